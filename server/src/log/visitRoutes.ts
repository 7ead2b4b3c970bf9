import {
  VisitExportSchema,
  type VisitExport,
  type VisitFact,
  type VisitHeader,
} from '@keen-bleed/contract';
import { visitKind, visitRows } from '@keen-bleed/core';
import { Router } from 'express';
import Papa from 'papaparse';
import type { Db } from '../db/database';
import { READERS, route, type Route } from '../http/route';
import { photosAsData } from '../report/photosAsData';
import { print } from '../report/print';
import { NOT_AN_INSPECTION } from '../report/page';
import { exportedChain } from './chain';
import { findLog, readLog, storedFacts, type StoredLog } from './logRow';
import { writersOf } from './writersOf';

const COLUMNS = [
  'timeUtc',
  'by',
  'unit',
  'part',
  'kind',
  'what',
  'found',
  'answer',
  'pointsPsi',
  'fromPsi',
  'toPsi',
  'seconds',
  'waterMl',
];

/** What is particular to visits: what goes out of the product. */
export function visitRoutes(db: Db): Route[] {
  const find = async (shopId: string, visitId: string) => {
    const { log, by } = await findLog(db, shopId, visitId, 'visit');
    const kept = await storedFacts(db, shopId, log.id);
    const read = readLog(log, kept);
    const header = read.header as VisitHeader;
    const facts = read.facts as VisitFact[];
    const writers = await writersOf(db, shopId, log.id);
    const { state } = visitKind.fold(header, facts);
    return { log, by, header, facts, writers, state, chain: exportedChain(log, kept, read) };
  };
  const whole = {
    method: 'get',
    who: READERS,
    body: null,
    query: null,
    answers: 'file',
    exports: true,
  } as const;
  return [
    route({
      ...whole,
      path: '/visits/:id/report.pdf',
      does: async ({ me, id, response }) => {
        const visit = await find(me.shopId, id('id', 'visit'));
        const { log, by, header, facts, writers, state, chain } = visit;
        const pdf = await print('visit', {
          shopName: me.shopName,
          timeZone: me.timeZone,
          header,
          facts,
          state,
          by,
          writers,
          startedAtMs: log.startedAtMs,
          chain,
          photos: await photosAsData(db, me.shopId, log.id, facts),
        });
        response
          .attachment(`${fileName(log)}.pdf`)
          .type('application/pdf')
          .send(pdf);
      },
    }),
    route({
      ...whole,
      path: '/visits/:id/export.json',
      does: async ({ me, id, response }) => {
        const { log, by, header, facts, writers, chain } = await find(me.shopId, id('id', 'visit'));
        const body: VisitExport = {
          format: 'keen-bleed/visit/1',
          header,
          by,
          writers,
          startedAtMs: log.startedAtMs,
          closedAtMs: log.closedAtMs,
          timeUnsure: log.timeUnsure,
          facts,
          chain,
          caution: NOT_AN_INSPECTION,
        };
        response.attachment(`${fileName(log)}.json`).json(body);
      },
    }),
    route({
      ...whole,
      path: '/visits/:id/export.csv',
      does: async ({ me, id, response }) => {
        const { log, header, facts, writers, state } = await find(me.shopId, id('id', 'visit'));
        const data = visitRows(header, state, facts, writers);
        // Quotes before a leading sign keep a spreadsheet from reading a cell as a formula.
        const csv = Papa.unparse({ fields: COLUMNS, data }, { escapeFormulae: true });
        response
          .attachment(`${fileName(log)}.csv`)
          .type('text/csv')
          .send(`${csv}\r\n`);
      },
    }),
  ];
}

const fileName = ({ startedAtMs }: StoredLog): string =>
  `visit-${new Date(startedAtMs).toISOString().slice(0, 10)}`;

/** The shape of an exported visit, for whoever reads one. */
export function visitSchemaRoutes(): Router {
  const router = Router();
  router.get('/visit-export.json', (_request, response) => {
    response.json({
      $schema: 'http://json-schema.org/draft-07/schema#',
      ...VisitExportSchema,
    });
  });
  return router;
}
