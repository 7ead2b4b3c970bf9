import type { NewFact } from '@keen-bleed/core';
import { laneOf, type Writer } from './kept';
import { folded, keptLog } from './logs';
import { countWaiting, sendSoon } from './outbox';
import { recordFact } from './recordFact';
import { tellTabs } from './tabs';
import { deviceMs } from '../wire/serverClock';

/**
 * Records a fact in a log of this device that is not open on the screen.
 *
 * @returns what is wrong with it, or null
 */
export async function recordIn(who: Writer, logId: string, fact: NewFact): Promise<string | null> {
  const kept = await keptLog(logId);
  if (!kept) return 'This record is not on this device.';
  const writing = { log: folded(kept), lane: await laneOf(who) };
  const done = await recordFact(writing, fact, deviceMs());
  if ('problem' in done) return done.problem;
  tellTabs(logId);
  await countWaiting();
  sendSoon();
  return null;
}
