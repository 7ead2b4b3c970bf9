import {
  FoundAtPartsSchema,
  HeldLogsSchema,
  HeldSchema,
  LogRecordSchema,
  LogRowsSchema,
  type AnyFact,
  type LogRecord,
} from '@keen-bleed/contract';
import { anyLogKind, inOrder, unitsOfHeader } from '@keen-bleed/core';
import { and, desc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import type { Bus } from '../bus/bus';
import type { Db } from '../db/database';
import { logs, logUnits, people } from '../db/schema';
import { READERS, RECORDERS, route, type Route } from '../http/route';
import type { Streams } from '../http/streams';
import { appendFacts } from './appendFacts';
import { standingOf } from './chain';
import { foundAtParts } from './foundAtParts';
import { LiveLogs } from './liveLogs';
import { findLog, logRow, readLog, storedFacts, type ReadLog, type StoredLog } from './logRow';
import { logsOfUnit } from './logsOfUnit';
import { heldLog, openLog } from './openLog';
import { writersOf } from './writersOf';

/** Open logs that are listed: more than a shop can work on at once. */
const LISTED_OPEN = 200;
/** Logs of a unit that are listed beside its runs. */
const LISTED_OF_UNIT = 40;
/** A log that was started this long before another is no longer being written, ms. */
const LEFT_OPEN_AFTER_MS = 12 * 3_600_000;

/** Logs of every kind: opening, adding facts, and reading back. */
export function logRoutes(db: Db, bus: Bus, streams: Streams): Route[] {
  const live = new LiveLogs(bus);
  return [
    route({
      method: 'post',
      path: '/logs',
      who: RECORDERS,
      body: 'openLog',
      query: null,
      answers: HeldSchema,
      does: async ({ me, body }) => {
        const { held, isNew } = await openLog(db, me, body);
        return { status: isNew ? 201 : 200, body: held };
      },
    }),
    route({
      method: 'post',
      path: '/logs/held',
      who: RECORDERS,
      body: 'compareHeld',
      query: null,
      answers: HeldLogsSchema,
      does: async ({ me, body }) => {
        const known = await db
          .select({ id: logs.id })
          .from(logs)
          .where(and(eq(logs.shopId, me.shopId), inArray(logs.id, body.ids)));
        const held = [];
        for (const { id } of known) held.push(await heldLog(db, me.shopId, id));
        return { body: { logs: held } };
      },
    }),
    route({
      method: 'get',
      path: '/logs/open',
      who: READERS,
      body: null,
      query: null,
      answers: LogRowsSchema,
      does: async ({ me }) => ({
        body: (
          await db
            .select({ log: logs, by: people.name })
            .from(logs)
            .innerJoin(people, and(eq(people.shopId, logs.shopId), eq(people.id, logs.personId)))
            .where(and(eq(logs.shopId, me.shopId), isNull(logs.closedAtMs)))
            .orderBy(desc(logs.lastAtMs))
            .limit(LISTED_OPEN)
        ).map(logRow),
      }),
    }),
    route({
      method: 'get',
      path: '/units/:id/visits',
      who: READERS,
      body: null,
      query: null,
      answers: LogRowsSchema,
      does: async ({ me, id }) => {
        const of = { kind: 'visit', most: LISTED_OF_UNIT } as const;
        return { body: (await logsOfUnit(db, me.shopId, id('id', 'unit'), of)).map(logRow) };
      },
    }),
    route({
      method: 'get',
      path: '/units/:id/found',
      who: READERS,
      body: null,
      query: null,
      answers: FoundAtPartsSchema,
      does: async ({ me, id }) => ({ body: await foundAtParts(db, me.shopId, id('id', 'unit')) }),
    }),
    route({
      method: 'post',
      path: '/logs/:id/facts',
      who: RECORDERS,
      body: 'appendFacts',
      query: null,
      answers: HeldSchema,
      does: async ({ me, id, body }) => {
        const logId = id('id', 'record');
        const held = await appendFacts(db, me, logId, body.facts).catch((error: unknown) => {
          // Facts before one that was refused are in it, so whoever follows reads it again.
          live.grew(me.shopId, logId, null);
          throw error;
        });
        live.grew(me.shopId, logId, held);
        return { body: held };
      },
    }),
    route({
      method: 'get',
      path: '/logs/:id',
      who: READERS,
      body: null,
      query: null,
      answers: LogRecordSchema,
      does: async ({ me, id }) => {
        const { log, by } = await findLog(db, me.shopId, id('id', 'record'));
        const kept = await storedFacts(db, me.shopId, log.id);
        const read = readLog(log, kept);
        return {
          body: {
            header: read.header,
            facts: inOrder(read.facts) as (AnyFact & { receivedAtMs: number })[],
            writers: await writersOf(db, me.shopId, log.id),
            by,
            byPersonId: log.personId,
            startedAtMs: log.startedAtMs,
            closedAtMs: log.closedAtMs,
            timeUnsure: log.timeUnsure,
            chain: standingOf(log, kept),
            overlapping: await overlapping(db, log, read),
          },
        };
      },
    }),
    route({
      method: 'get',
      path: '/logs/:id/live',
      who: READERS,
      body: null,
      query: null,
      answers: 'stream',
      does: async ({ me, id, request, response }) => {
        const { log } = await findLog(db, me.shopId, id('id', 'record'));
        const session = await streams.start(me, request, response);
        live.of(me.shopId, log.id).register(session);
        const held = await heldLog(db, me.shopId, log.id);
        // Whoever asked may be gone by then.
        if (session.isConnected) session.push(held, 'grew');
      },
    }),
  ];
}

/** Runs that touch a unit of this one in the same stretch of time: two phones were at work. */
async function overlapping(
  db: Db,
  log: StoredLog,
  { header }: ReadLog,
): Promise<LogRecord['overlapping']> {
  if (anyLogKind(log.kind).writers === 'shop') return [];
  const unitIds = unitsOfHeader(header).map((unit) => unit.id);
  return db
    .selectDistinct({
      logId: logs.id,
      by: people.name,
      startedAtMs: logs.startedAtMs,
      closedAtMs: logs.closedAtMs,
    })
    .from(logUnits)
    .innerJoin(logs, and(eq(logs.shopId, logUnits.shopId), eq(logs.id, logUnits.logId)))
    .innerJoin(people, and(eq(people.shopId, logs.shopId), eq(people.id, logs.personId)))
    .where(
      and(
        eq(logUnits.shopId, log.shopId),
        eq(logUnits.kind, log.kind),
        inArray(logUnits.unitId, unitIds),
        ne(logs.id, log.id),
        log.closedAtMs === null ? undefined : sql`${logs.startedAtMs} < ${log.closedAtMs}`,
        or(
          sql`${logs.closedAtMs} > ${log.startedAtMs}`,
          // One that was left open long before is forgotten, not at work.
          and(
            isNull(logs.closedAtMs),
            sql`${logs.startedAtMs} > ${log.startedAtMs - LEFT_OPEN_AFTER_MS}`,
          ),
        ),
      ),
    );
}
