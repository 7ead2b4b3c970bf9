import { database } from './database';
import { askHeldOf } from './held';
import { lanesOf, type Writer } from './kept';
import { changeLog, isWritable, setHeld } from './logs';

/** Most logs that are compared in one request, as the server takes them. */
const AT_ONCE = 500;

/**
 * Compares what this device has sent with what the server holds. A server that was restored from a backup may have
 * lost some of it: that is sent again. Also measures the clock before anything is sent.
 */
export async function compareWithServer(who: Writer): Promise<void> {
  const db = await database();
  const own = await lanesOf(who);
  const logs = (await db.getAll('logs')).filter(
    (log) => isWritable(log, who) && log.opened === 1 && log.refused === null,
  );
  for (let from = 0; from < logs.length; from += AT_ONCE) {
    const some = logs.slice(from, from + AT_ONCE);
    const held = await askHeldOf(some.map(({ id }) => id));
    for (const log of some) {
      const there = held.get(log.id);
      // A log of somebody else's that is gone is theirs to bring back.
      const isOurs = log.personId === who.personId;
      if (!there && !isOurs) continue;
      if (!there) await changeLog(log.id, { opened: 0, confirmedAtMs: null });
      // Closed on another device: it is not gone on with here.
      if (there?.closedAtMs != null && log.closed === 0) await changeLog(log.id, { closed: 1 });
      await setHeld(log.id, isOurs ? [...own, log.id] : own, there?.lanes ?? {});
    }
  }
}
