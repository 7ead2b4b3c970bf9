import type { LimitUsed, RuleSet } from '@keen-bleed/contract';
import { limitFor, type LimitedRig } from './limitFor';
import { roadTest } from './roadTest';

/**
 * What a measured stop must reach, percent of the weight. A rule set that has no figure for it, such as a copy from
 * before stops were measured, goes by the law’s own: otherwise any braking would do.
 */
export const stopLimit = (rig: LimitedRig, ruleSet: RuleSet): LimitUsed | null =>
  limitFor('stop-braking', rig, ruleSet) ?? limitFor('stop-braking', rig, roadTest);
