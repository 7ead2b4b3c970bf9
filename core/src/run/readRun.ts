import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { procedureFor } from '../procedure/procedureFor';
import { runState, type RunState } from './runState';

/** Folds a run's facts with the steps that its own snapshot of rig and rule set gives. */
export function readRun(
  header: Pick<OpenRun, 'unit' | 'towed' | 'ruleSet' | 'leftOut'>,
  events: readonly RunEvent[],
): RunState {
  return runState(procedureFor(header, header.ruleSet, header.leftOut), header.unit, events);
}
