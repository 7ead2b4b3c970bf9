import { and, eq, isNull, sql } from 'drizzle-orm';
import type { Database } from '../db/database';
import { facts, logs } from '../db/schema';
import { headOf, linked } from './chain';
import { storedFacts } from './logRow';

/** Logs that are looked up at once. */
const LOGS_AT_ONCE = 200;

/**
 * Gives facts that an older version kept their place and link, in their order of receipt. Done as the tables' owner
 * before the server starts to work; a log whose facts are all linked is left alone.
 */
export async function chainOlderFacts({ db }: Pick<Database, 'db'>): Promise<void> {
  for (;;) {
    const owing = await db
      .selectDistinct({ shopId: facts.shopId, logId: facts.logId })
      .from(facts)
      .where(isNull(facts.link))
      .limit(LOGS_AT_ONCE);
    if (owing.length === 0) return;
    for (const { shopId, logId } of owing) {
      await db.transaction(async (tx) => {
        const [log] = await tx
          .select({ header: logs.header })
          .from(logs)
          .where(and(eq(logs.shopId, shopId), eq(logs.id, logId)))
          .for('update');
        if (!log) return;
        const rows = await storedFacts(tx, shopId, logId);
        // Lane by lane as they come; a stable sort keeps that where several came at once.
        const unlinked = rows
          .filter(({ link }) => link === null)
          .sort((a, b) => a.receivedAtMs - b.receivedAtMs);
        for (const { lane, seq, place, link } of linked(headOf(log.header, rows), unlinked)) {
          await tx
            .update(facts)
            .set({ place, link })
            .where(
              and(
                eq(facts.shopId, shopId),
                eq(facts.logId, logId),
                eq(facts.lane, lane),
                eq(facts.seq, seq),
                sql`${facts.link} is null`,
              ),
            );
        }
      });
    }
  }
}
