import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { visitKind } from '@keen-bleed/core';
import type { Db } from '../db/database';
import { READERS, route, type Route } from '../http/route';
import { photosAsData } from '../report/photosAsData';
import { visitReport } from '../report/visitReport';
import { findLog, readLog, storedFacts } from './logRow';
import { writersOf } from './writersOf';

/** What is particular to visits: their report. */
export function visitRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/visits/:id/report.pdf',
      who: READERS,
      body: null,
      query: null,
      answers: 'file',
      does: async ({ me, id, response }) => {
        const { log, by } = await findLog(db, me.shopId, id('id', 'visit'), 'visit');
        const read = readLog(log, await storedFacts(db, me.shopId, log.id));
        const header = read.header as VisitHeader;
        const facts = read.facts as VisitFact[];
        const pdf = await visitReport({
          shopName: me.shopName,
          timeZone: me.timeZone,
          header,
          facts,
          state: visitKind.fold(header, facts).state,
          by,
          writers: await writersOf(db, me.shopId, log.id),
          startedAtMs: log.startedAtMs,
          photos: await photosAsData(db, me.shopId, log.id, facts),
        });
        response
          .attachment(`visit-${new Date(log.startedAtMs).toISOString().slice(0, 10)}.pdf`)
          .type('application/pdf')
          .send(pdf);
      },
    }),
  ];
}
