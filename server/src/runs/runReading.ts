import type { OpenRun, Outcome, RunEvent } from '@keen-bleed/contract';
import { outcomeOf, readRun as stateOf, type RunState } from '@keen-bleed/core';

/** What a run's facts come to. */
export interface RunReading {
  state: RunState;
  outcome: Outcome;
}

/** The snapshot a run is read by. */
export type RunSnapshot = Pick<OpenRun, 'unit' | 'towed' | 'ruleSet' | 'leftOut'>;

/** Folds and judges a run's facts by its own snapshot of rig and rule set, in its own gauge's unit. */
export function readRun(run: RunSnapshot, events: readonly RunEvent[]): RunReading {
  const { unit, towed, ruleSet } = run;
  const state = stateOf(run, events);
  return { state, outcome: outcomeOf(state, { unit, towed, ruleSet, sayIn: unit.gauge.unit }) };
}
