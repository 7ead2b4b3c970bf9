import { nextDue, sayFailure, verdictWords, unitTitle } from '@keen-bleed/core';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { DrainRowsSchema } from '@keen-bleed/contract';
import type { Db } from '../db/database';
import { READERS, route, type Route } from '../http/route';
import { drainRows } from './drainRows';
import { yardRows } from './yardRows';

/** Tanks are drained daily: what was not within this is due, ms. */
const DRAINED_WITHIN_MS = 24 * 3_600_000;
/** Units named in one event; the rest are counted. */
const NAMED = 20;

/** What is due, for a calendar. */
export function dueRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/drains',
      who: READERS,
      body: null,
      query: null,
      answers: DrainRowsSchema,
      does: async ({ me }) => ({ body: await drainRows(db, me.shopId) }),
    }),
    route({
      method: 'get',
      path: '/due.ics',
      who: READERS,
      body: null,
      query: null,
      answers: 'file',
      exports: true,
      does: async ({ me, response }) => {
        const nowMs = Date.now();
        const calendar = ical({
          name: `${me.shopName}: brake tests due`,
          method: ICalCalendarMethod.PUBLISH,
          prodId: { company: 'Keen Bleed', product: 'Due tests' },
        });
        const rows = await yardRows(db, me.shopId);
        for (const row of rows) {
          if (row.unit.retiredAtMs !== null) continue;
          const due = nextDue(row.lastCompleteAtMs, row.unit.testEveryDays, nowMs);
          const last = row.last
            ? `Last: ${verdictWords[row.last.verdict]}. ${row.last.headline}`
            : 'No run yet.';
          const owed = [
            ...new Set([...row.holds, ...row.failures.map((each) => sayFailure(each))]),
          ];
          calendar.createEvent({
            id: `due-${row.unit.id}@keen-bleed`,
            // What was never tested, or is overdue, is due today.
            start: new Date(owed.length > 0 ? nowMs : Math.max(due.dueAtMs ?? nowMs, nowMs)),
            allDay: true,
            summary: `${row.holds.length > 0 ? 'OUT OF SERVICE' : owed.length > 0 ? 'Retest owed' : 'Brake test'}: ${unitTitle(row.unit)}`,
            description: [last, ...owed].join('\n'),
          });
        }
        const drained = new Map(
          (await drainRows(db, me.shopId)).map((each) => [each.unitId, each.drainedAtMs]),
        );
        const wet = rows.filter(
          ({ unit }) =>
            unit.retiredAtMs === null && (drained.get(unit.id) ?? 0) < nowMs - DRAINED_WITHIN_MS,
        );
        if (wet.length > 0) {
          const names = wet.map(({ unit }) => unitTitle(unit));
          calendar.createEvent({
            id: 'drains@keen-bleed',
            start: new Date(nowMs),
            allDay: true,
            summary: `Drain tanks: ${wet.length === 1 ? (names[0] ?? '1 unit') : `${wet.length} units`}`,
            description: [
              ...names.slice(0, NAMED),
              ...(names.length > NAMED ? [`and ${names.length - NAMED} more`] : []),
            ].join('\n'),
          });
        }
        response.attachment('brake-tests-due.ics').type('text/calendar').send(calendar.toString());
      },
    }),
  ];
}
