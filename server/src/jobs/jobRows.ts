import type { JobRow } from '@keen-bleed/contract';
import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import type { Db } from '../db/database';
import { logs, people } from '../db/schema';

/** Ended jobs that the board still shows: the newest. */
const ENDED = 60;

type Row = Pick<
  typeof logs.$inferSelect,
  'id' | 'unitId' | 'title' | 'board' | 'startedAtMs' | 'closedAtMs'
> & { by: string };

const columns = {
  id: logs.id,
  unitId: logs.unitId,
  title: logs.title,
  board: logs.board,
  startedAtMs: logs.startedAtMs,
  closedAtMs: logs.closedAtMs,
  by: people.name,
};

/** Every open job of a shop, what holds a vehicle first and the oldest first, then the newest that ended. */
export async function jobRows(db: Db, shopId: string): Promise<JobRow[]> {
  const of = () =>
    db
      .select(columns)
      .from(logs)
      .innerJoin(people, and(eq(people.shopId, logs.shopId), eq(people.id, logs.personId)))
      .$dynamic();
  const open = await of().where(
    and(eq(logs.shopId, shopId), eq(logs.kind, 'job'), isNull(logs.closedAtMs)),
  );
  const ended = await of()
    .where(and(eq(logs.shopId, shopId), eq(logs.kind, 'job'), isNotNull(logs.closedAtMs)))
    .orderBy(desc(logs.closedAtMs))
    .limit(ENDED);
  const rows = open.flatMap(jobRow);
  return [
    ...rows.sort(
      (a, b) => Number(b.holds.length > 0) - Number(a.holds.length > 0) || a.openedMs - b.openedMs,
    ),
    ...ended.flatMap(jobRow),
  ];
}

function jobRow({ id, unitId, title, board, startedAtMs, closedAtMs, by }: Row): JobRow[] {
  if (!board) return [];
  const { learns: _learns, offered: _offered, ...shown } = board;
  return [{ id, unitId, title, ...shown, openedMs: startedAtMs, closedAtMs, by }];
}
