import type { Need, RuleStep } from '@keen-bleed/contract';

const step = (stepId: string, need: Need): RuleStep => ({ stepId, need });

/** A step that the rule set asks for. */
export const must = (stepId: string): RuleStep => step(stepId, 'must');
/** A step that may be done; leaving it out does not make a run incomplete. */
export const may = (stepId: string): RuleStep => step(stepId, 'may');
/** A step that stands in the list and is not done unless a copy asks for it. */
export const off = (stepId: string): RuleStep => step(stepId, 'off');
