import type { NewFact } from '@keen-bleed/core';
import { laneOf, type Writer } from './kept';
import { folded, keptLog } from './logs';
import { countWaiting, sendSoon } from './outbox';
import { recordFact } from './recordFact';
import { tellTabs } from './tabs';
import { deviceMs } from '../wire/serverClock';

/**
 * Records facts, one after the other, in a log of this device that is not open on the screen.
 *
 * @returns the ids of those that were recorded, and what is wrong with the next, or null
 */
export async function recordAllIn(
  who: Writer,
  logId: string,
  facts: readonly NewFact[],
): Promise<{ ids: string[]; problem: string | null }> {
  const kept = await keptLog(logId);
  if (!kept) return { ids: [], problem: 'This record is not on this device.' };
  const lane = await laneOf(who);
  const ids: string[] = [];
  let log = folded(kept);
  let problem: string | null = null;
  for (const fact of facts) {
    const done = await recordFact({ log, lane }, fact, deviceMs());
    if ('problem' in done) {
      problem = done.problem;
      break;
    }
    log = done.log;
    const newest = log.facts.findLast((each) => each.lane === lane);
    if (newest) ids.push(newest.id);
  }
  if (ids.length > 0) {
    tellTabs(logId);
    await countWaiting();
    sendSoon();
  }
  return { ids, problem };
}

/**
 * Records a fact in a log of this device that is not open on the screen.
 *
 * @returns what is wrong with it, or null
 */
export const recordIn = async (who: Writer, logId: string, fact: NewFact): Promise<string | null> =>
  (await recordAllIn(who, logId, [fact])).problem;
