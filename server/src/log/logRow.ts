import type { AnyFact, AnyHeader, LogRow } from '@keen-bleed/contract';
import { anyLogKind, upToDate } from '@keen-bleed/core';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { facts, logs, people } from '../db/schema';
import { notFound } from '../http/apiError';

export type StoredLog = typeof logs.$inferSelect;

/** A log as it is read today, whatever version kept it. */
export interface ReadLog {
  header: AnyHeader;
  /** With the time of receipt on each. */
  facts: AnyFact[];
}

/** Brings a stored log up to date. */
export function readLog(
  { kind, header }: Pick<StoredLog, 'kind' | 'header'>,
  rows: readonly { fact: Record<string, unknown>; receivedAtMs: number }[],
): ReadLog {
  const now = upToDate(anyLogKind(kind), { header, facts: rows.map(({ fact }) => fact) });
  return {
    header: now.header as unknown as AnyHeader,
    facts: now.facts.map(
      (fact, i) => ({ ...fact, receivedAtMs: rows[i]?.receivedAtMs ?? 0 }) as unknown as AnyFact,
    ),
  };
}

/** The stored facts of a log, lane by lane, with their links in its chain. */
export const storedFacts = (db: Db, shopId: string, logId: string) =>
  db
    .select({
      fact: facts.fact,
      receivedAtMs: facts.receivedAtMs,
      lane: facts.lane,
      seq: facts.seq,
      personId: facts.personId,
      place: facts.place,
      link: facts.link,
    })
    .from(facts)
    .where(and(eq(facts.shopId, shopId), eq(facts.logId, logId)))
    .orderBy(facts.lane, facts.seq);

/** A stored log with who opened it; throws where this shop has none of that id. */
export async function findLog(
  db: Db,
  shopId: string,
  logId: string,
  kind?: StoredLog['kind'],
): Promise<{ log: StoredLog; by: string }> {
  const [row] = await db
    .select({ log: logs, by: people.name })
    .from(logs)
    .innerJoin(people, and(eq(people.shopId, logs.shopId), eq(people.id, logs.personId)))
    .where(and(eq(logs.shopId, shopId), eq(logs.id, logId)));
  if (!row || (kind !== undefined && row.log.kind !== kind)) throw notFound(kind ?? 'record');
  return row;
}

/** A log as lists show it. */
export const logRow = ({ log, by }: { log: StoredLog; by: string }): LogRow => ({
  id: log.id,
  kind: log.kind,
  unitId: log.unitId,
  rigId: log.rigId,
  title: log.title,
  headline: log.headline ?? '',
  startedAtMs: log.startedAtMs,
  closedAtMs: log.closedAtMs,
  by,
  byPersonId: log.personId,
  facts: log.factCount,
});
