import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { admit, readRun } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import type { NewFact } from './useRun';

/**
 * Makes the next event of a run out of a fact, if the run as it stands takes it.
 *
 * @param pressedAtMs when it was pressed; a fact that names a time of its own keeps that
 */
export function nextEvent(
  header: OpenRun,
  events: readonly RunEvent[],
  fact: NewFact,
  pressedAtMs: number,
): { event: RunEvent } | { problem: string } {
  const state = readRun(header, events);
  const event = { atMs: pressedAtMs, ...fact, id: uuidv7(), seq: state.lastSeq + 1 };
  const problem = admit(state, new Set(events.map((each) => each.id)), event);
  return problem ? { problem: problem.message } : { event };
}
