import type { RunFact } from '@keen-bleed/contract';
import { RUN_VERSION, type NewFact } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { ask, asProblem } from '../wire/api';
import { deviceMs, measuredClock } from '../wire/serverClock';
import { isHeld } from './held';
import { laneOf, type Writer } from './kept';

/**
 * Adds to a record what may still be added to it, from a device that does not keep the record itself: how far a clock
 * was ahead, or a note.
 *
 * @returns what is wrong with it, or null
 */
export async function addToRecord(
  logId: string,
  who: Writer,
  facts: readonly RunFact[],
  fact: NewFact<RunFact>,
): Promise<string | null> {
  const lane = await laneOf(who);
  const last = facts.reduce(
    (most, each) => (each.lane === lane ? Math.max(most, each.seq) : most),
    0,
  );
  const latestMs = facts.reduce(
    (most, each) => (each.lane === lane ? Math.max(most, each.atMs) : most),
    0,
  );
  const atMs = Math.max(deviceMs(), latestMs);
  const stamp = { id: uuidv7(), lane, seq: last + 1, atMs, v: RUN_VERSION };
  const made = { ...fact, ...stamp, offsetMs: measuredClock().aheadMs };
  try {
    const answer = await ask('POST', `/api/v1/logs/${logId}/facts`, { facts: [made] });
    return isHeld(answer, logId)
      ? null
      : 'Something between here and the shop’s server is in the way.';
  } catch (error) {
    return asProblem(error).message;
  }
}
