import type { RunFact, RunMade } from '@keen-bleed/contract';
import { inOrder } from '../facts/factOrder';
import { RunLog } from './runLog';
import type { RunState } from './runState';

/** Folds a run's facts by the steps that were asked in it. */
export function stateOfRun(
  { ruleSet, steps, unit }: Pick<RunMade, 'ruleSet' | 'steps' | 'unit'>,
  facts: readonly RunFact[],
): RunState {
  return new RunLog({ title: ruleSet.title, steps }, unit, inOrder(facts)).state;
}
