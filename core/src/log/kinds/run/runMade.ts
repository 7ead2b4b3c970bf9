import type { RunMade } from '@keen-bleed/contract';
import { procedureFor } from '../../../procedure/procedureFor';

/** Adds to what a run is made on the steps that follow from it: what is asked, and kept as it was asked. */
export function runMade(on: Omit<RunMade, 'steps'>): RunMade {
  const { steps } = procedureFor(on, on.ruleSet, on.leftOut, { also: on.also });
  return { ...on, steps: [...steps] };
}
