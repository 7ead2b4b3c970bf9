import type { RuleSet } from '@keen-bleed/contract';
import { stepOfFailure } from '../procedure/stepOfFailure';

/**
 * Steps whose failure takes a vehicle out of service where its rule set does not say otherwise: what holds it, what
 * leaks, what warns, and what happens when a trailer breaks away [common practice, no source].
 */
const USUALLY: ReadonlySet<string> = new Set([
  'static-hold',
  'applied-hold',
  'warning',
  'warning-parts',
  'pop-out',
  'park-stays',
  'holding',
  'service-stop',
  'hand-brake-test',
  'tractor-protection',
  'trailer-alone',
  'breakaway-hold',
  'breakaway-held',
]);

/** Whether whatever fails in a step takes the vehicle out of service, by a rule set. */
export const isCriticalStep = ({ steps }: Pick<RuleSet, 'steps'>, stepId: string): boolean =>
  steps.find((step) => step.stepId === stepId)?.critical ?? USUALLY.has(stepId);

/**
 * Whether a failure takes the vehicle out of service, by the rule set of the run in which it failed. Where that says
 * nothing of the step, an answer that leaves a vehicle without brakes or warning does.
 *
 * @param holds the answer that was chosen is of that kind (`LookOption.holds`)
 */
export function isCriticalFailure(
  ruleSet: Pick<RuleSet, 'steps'>,
  key: string,
  holds = false,
): boolean {
  const stepId = stepOfFailure(key);
  if (stepId === null) return false;
  const said = ruleSet.steps.find((step) => step.stepId === stepId)?.critical;
  return said ?? (holds || USUALLY.has(stepId));
}
