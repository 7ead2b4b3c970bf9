import type { LogRecord } from '@keen-bleed/contract';
import { ask } from '../wire/api';
import { asLogRecord } from '../wire/logRecord';
import { askToPersist, laneOf, type Writer } from './kept';
import { changeLog, folded, keptLog, takeIn } from './logs';
import { sendSoon } from './outbox';
import { recordFact } from './recordFact';
import { tellTabs } from './tabs';
import { deviceMs } from '../wire/serverClock';

/**
 * Goes on with an open run on this device, whoever began it wherever: it is kept here, and the record says who took it
 * over and what of the other device was known then.
 *
 * @param record the run as the server has it
 * @returns what is wrong with it, or null
 */
export async function takeOver(who: Writer, record: LogRecord<'run'>): Promise<string | null> {
  void askToPersist();
  const { id } = record.header;
  // What was marked a moment ago may not be on this screen yet.
  const newest = await ask('GET', `/api/v1/logs/${id}`).then(asLogRecord<'run'>, () => record);
  await takeIn(who, newest, record.byPersonId);
  if (record.byPersonId !== who.personId) await changeLog(id, { takenBy: who.personId });
  const kept = await keptLog(id);
  if (!kept) return 'This device could not keep the run. Free some space on it, then try again.';
  const lane = await laneOf(who);
  const log = folded(kept);
  const knew = Object.fromEntries(Object.entries(log.lanes).filter(([each]) => each !== lane));
  const done = await recordFact({ log, lane }, { kind: 'take-over', knew }, deviceMs());
  if ('problem' in done) return done.problem;
  tellTabs(id);
  sendSoon();
  return null;
}
