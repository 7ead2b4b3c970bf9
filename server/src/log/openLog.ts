import type { AnyHeader, Held, LogKindName, Me, Unit } from '@keen-bleed/contract';
import { anyLogKind, CORE_VERSION, rigTitle } from '@keen-bleed/core';
import { and, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { facts, logs, logUnits, rigs } from '../db/schema';
import { Statement } from '../db/statement';
import { ApiError } from '../http/apiError';
import { fieldError } from '../http/fieldError';
import { openJob } from './kinds/openJob';
import { openRun } from './kinds/openRun';
import { openVisit } from './kinds/openVisit';
import { judged } from './judged';
import { FoldedLog } from '@keen-bleed/core';

/** What a kind makes of a header that is sent: the shop's own words in it, and the units it is on. */
export type Opener = (
  db: Db,
  me: Me,
  header: AnyHeader,
) => Promise<{ header: AnyHeader; units: readonly [Unit, ...Unit[]] }>;

/** How each kind looks at a header before it is kept. */
const openers: Readonly<Record<LogKindName, Opener>> = {
  run: openRun,
  visit: openVisit,
  job: openJob,
};

/**
 * Opens a log, once. A phone may have started it hours ago without network; units and rule sets in it are taken only
 * where they are a revision that the shop has kept, to the letter of their meaning.
 *
 * @returns what is held of it, and whether it was new
 */
export async function openLog(
  db: Db,
  me: Me,
  sent: AnyHeader,
): Promise<{ held: Held; isNew: boolean }> {
  const kind = anyLogKind(sent.kind);
  if (sent.v !== kind.version) {
    throw fieldError('v', 'The app on this device is out of date: reload it once.');
  }
  const { header, units } = await openers[sent.kind](db, me, {
    ...sent,
    id: sent.id.toLowerCase(),
  });
  await requireRig(db, me, header);
  const receivedAt = new Date();
  const columns = judged(new FoldedLog(kind, header), receivedAt.getTime());
  const [front, ...towed] = units;
  const row: Partial<typeof logs.$inferInsert> = {
    ...columns.log,
    shopId: me.shopId,
    id: header.id,
    kind: header.kind,
    unitId: header.subject.unitId,
    rigId: header.subject.rigId,
    personId: me.personId,
    header: header as unknown as Record<string, unknown>,
    title: rigTitle({ unit: front, towed }),
    lastAtMs: columns.log.startedAtMs,
    coreVersion: CORE_VERSION,
    receivedAt,
  };
  const unitIds = units.map(({ id }) => id);
  const { rowCount } = await opening(db, row).run(db, { ...row, unitIds });
  if (rowCount) {
    return { held: { logId: header.id, held: 0, lanes: {}, closedAtMs: null }, isNew: true };
  }
  await requireMine(db, me, header);
  return { held: await heldLog(db, me.shopId, header.id), isNew: false };
}

const openings = new Map<string, Statement<never>>();

/**
 * One statement for a log and its units: all of it is there, or nothing, in one way to the database and back. There is
 * one for each set of columns that a kind of log fills.
 */
function opening(db: Db, row: Partial<typeof logs.$inferInsert>): Statement<never> {
  const columns = Object.keys(row).sort();
  const key = columns.join(' ');
  const known = openings.get(key);
  if (known) return known;
  const placed = Object.fromEntries(columns.map((each) => [each, sql.placeholder(each)]));
  const insertLog = db
    .insert(logs)
    .values(placed as unknown as typeof logs.$inferInsert)
    .onConflictDoNothing()
    .returning({ shopId: logs.shopId, id: logs.id, kind: logs.kind, at: logs.startedAtMs });
  const made = new Statement<never>(
    `open-log-${openings.size}`,
    sql`
      with made as ${insertLog}
      insert into ${logUnits} (shop_id, unit_id, log_id, kind, started_at_ms)
      select made.shop_id, unit.id, made.id, made.kind, made.started_at_ms
      from made, unnest(${sql.placeholder('unitIds')}::uuid[]) as unit (id)`,
  );
  openings.set(key, made);
  return made;
}

/** A rig of this shop, coupled still or not. */
async function requireRig(db: Db, me: Me, { subject: { rigId } }: AnyHeader): Promise<void> {
  if (rigId === null) return;
  const [rig] = await db
    .select({ id: rigs.id })
    .from(rigs)
    .where(and(eq(rigs.shopId, me.shopId), eq(rigs.id, rigId)));
  if (!rig) throw fieldError('subject.rigId', 'This shop has no such rig.');
}

async function requireMine(db: Db, me: Me, header: AnyHeader): Promise<void> {
  const [mine] = await db
    .select({
      personId: logs.personId,
      unitId: logs.unitId,
      rigId: logs.rigId,
      kind: logs.kind,
      startedAtMs: sql<number>`(${logs.header}->>'startedAtMs')::float8`,
    })
    .from(logs)
    .where(and(eq(logs.shopId, me.shopId), eq(logs.id, header.id)));
  // Whose and on what it is, and when it was begun, stand in the header of every version alike.
  const isSame =
    mine?.kind === header.kind &&
    mine.unitId === header.subject.unitId &&
    mine.rigId === header.subject.rigId &&
    mine.startedAtMs === header.startedAtMs;
  const mayWrite = anyLogKind(header.kind).writers === 'shop' || mine?.personId === me.personId;
  if (!isSame || !mayWrite) throw new ApiError('id-taken', 'Another record has this id.');
}

/** What is held of a log, lane by lane. */
export async function heldLog(db: Db, shopId: string, logId: string): Promise<Held> {
  const lanes = await db
    .select({
      lane: facts.lane,
      last: sql<number>`max(${facts.seq})::int`,
      count: sql<number>`count(*)::int`,
    })
    .from(facts)
    .where(and(eq(facts.shopId, shopId), eq(facts.logId, logId)))
    .groupBy(facts.lane);
  const [log] = await db
    .select({ closedAtMs: logs.closedAtMs })
    .from(logs)
    .where(and(eq(logs.shopId, shopId), eq(logs.id, logId)));
  return {
    logId,
    held: lanes.reduce((sum, { count }) => sum + count, 0),
    lanes: Object.fromEntries(lanes.map(({ lane, last }) => [lane, last])),
    closedAtMs: log?.closedAtMs ?? null,
  };
}
