import type { LogKindName } from '@keen-bleed/contract';
import { and, desc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { logs, logUnits, people } from '../db/schema';

/** A unit's logs of one kind with who opened them: the open ones, then the newest closed first. */
export const logsOfUnit = (
  db: Db,
  shopId: string,
  unitId: string,
  { kind, most }: { kind: LogKindName; most: number },
) =>
  db
    .select({ log: logs, by: people.name })
    .from(logUnits)
    .innerJoin(logs, and(eq(logs.shopId, logUnits.shopId), eq(logs.id, logUnits.logId)))
    .innerJoin(people, and(eq(people.shopId, logs.shopId), eq(people.id, logs.personId)))
    .where(and(eq(logUnits.shopId, shopId), eq(logUnits.unitId, unitId), eq(logUnits.kind, kind)))
    .orderBy(sql`${logUnits.rankMs} desc nulls first`, desc(logUnits.startedAtMs))
    .limit(most);
