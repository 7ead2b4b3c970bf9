import type { RuleSet, RunMade, Unit } from '@keen-bleed/contract';
import { procedureFor, ruleSetFor, type Owed, type RigUnderTest } from '@keen-bleed/core';

/** A run of just what is owed. */
export interface RetestRun {
  on: Omit<RunMade, 'steps'>;
  /** Steps that are owed and that the rule set does not have: titles. */
  missing: string[];
  minutes: number;
}

/** Getting ready, in minutes: chocks, gauge, and air in the tanks. */
const READY_MINUTES = 1;

/**
 * What a run asks that is to retest what jobs owe: by the rule set that has most of it, the shop's usual one first.
 *
 * @param rig the units as they are now, with what was fitted
 */
export function retestRun(
  rig: RigUnderTest,
  owed: readonly Pick<Owed, 'id' | 'title' | 'minutes' | 'stepId'>[],
  jobIds: readonly string[],
  { sets, defaultId }: { sets: readonly RuleSet[]; defaultId: string },
): RetestRun | null {
  const steps = owed.flatMap((each) => (each.stepId === null ? [] : [each]));
  if (steps.length === 0) return null;
  const usual = ruleSetFor(rig.unit, sets, defaultId);
  const has = (set: RuleSet) => {
    const ids = new Set(procedureFor(rig, set, []).steps.map(({ id }) => id));
    return steps.filter(({ stepId }) => ids.has(stepId ?? ''));
  };
  const school = usual.school;
  const best = [
    usual,
    ...sets.filter((set) => set.id !== usual.id && set.school === school),
  ].reduce((most, set) => (has(set).length > has(most).length ? set : most));
  const found = has(best);
  const wanted = new Set([...found.map(({ stepId }) => stepId), 'prepare']);
  const leftOut = best.steps.map(({ stepId }) => stepId).filter((stepId) => !wanted.has(stepId));
  return {
    on: {
      unit: rig.unit,
      towed: [...rig.towed] as Unit[],
      ruleSet: best,
      leftOut,
      retestOf: [...jobIds],
    },
    missing: steps.filter((step) => !found.includes(step)).map(({ title }) => title),
    minutes: READY_MINUTES + found.reduce((sum, { minutes }) => sum + minutes, 0),
  };
}
