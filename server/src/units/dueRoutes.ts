import { nextDue, sayFailure, verdictWords, unitTitle } from '@keen-bleed/core';
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { Db } from '../db/database';
import { READERS, route, type Route } from '../http/route';
import { yardRows } from './yardRows';

/** What is due, for a calendar. */
export function dueRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/due.ics',
      who: READERS,
      body: null,
      query: null,
      answers: 'file',
      does: async ({ me, response }) => {
        const nowMs = Date.now();
        const calendar = ical({
          name: `${me.shopName}: brake tests due`,
          method: ICalCalendarMethod.PUBLISH,
          prodId: { company: 'Keen Bleed', product: 'Due tests' },
        });
        for (const row of await yardRows(db, me.shopId)) {
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
        response.attachment('brake-tests-due.ics').type('text/calendar').send(calendar.toString());
      },
    }),
  ];
}
