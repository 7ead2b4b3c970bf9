import {
  RunExportSchema,
  RunRowsSchema,
  type RunExport,
  type RunFact,
  type RunHeader,
} from '@keen-bleed/contract';
import { FoldedLog, markRows, outcomeOfRun, runKind, unitsOf } from '@keen-bleed/core';
import { Router } from 'express';
import Papa from 'papaparse';
import type { Db } from '../db/database';
import { failuresOn } from '../failures/refreshFailures';
import { READERS, route, type Route } from '../http/route';
import { exportedChain, standingOf } from '../log/chain';
import { logsOfUnit } from '../log/logsOfUnit';
import { sayBy, writersOf } from '../log/writersOf';
import { findLog, readLog, storedFacts, type StoredLog } from '../log/logRow';
import { NOT_AN_INSPECTION } from '../report/page';
import { print } from '../report/print';

/** Runs of a unit that are listed: ten years of monthly tests. */
const LISTED_RUNS = 120;

const COLUMNS = [
  'seq',
  'timeUtc',
  'deviceTimeUtc',
  'clockAheadS',
  'receivedUtc',
  'step',
  'mark',
  'readingPsi',
  'resolutionPsi',
  'method',
  'gauge',
  'state',
];

/** What is particular to runs: a unit's list of them, and what goes out of the product. */
export function runRoutes(db: Db): Route[] {
  const find = async (shopId: string, runId: string) => {
    const { log, by } = await findLog(db, shopId, runId, 'run');
    const kept = await storedFacts(db, shopId, log.id);
    const read = readLog(log, kept);
    const header = read.header as RunHeader;
    const folded = new FoldedLog(runKind, header, read.facts as RunFact[]);
    const writers = await writersOf(db, shopId, log.id);
    const { facts, state } = folded;
    return { log, by: sayBy(by, state, writers), header, facts, state, kept };
  };
  const standingOn = (shopId: string, { made }: RunHeader) =>
    failuresOn(
      db,
      shopId,
      unitsOf(made).map(({ id }) => id),
    );
  const whole = { who: READERS, method: 'get', body: null, query: null } as const;
  return [
    route({
      ...whole,
      path: '/units/:id/runs',
      answers: RunRowsSchema,
      does: async ({ me, id }) => {
        const of = { kind: 'run', most: LISTED_RUNS } as const;
        const rows = await logsOfUnit(db, me.shopId, id('id', 'unit'), of);
        return {
          body: rows.map(({ log, by }) => ({
            id: log.id,
            unitId: log.unitId,
            rigTitle: log.title,
            ruleSetTitle: ruleSetTitle(log),
            drained: log.drained,
            startedAtMs: log.startedAtMs,
            closedAtMs: log.closedAtMs,
            timeUnsure: log.timeUnsure,
            by,
            verdict: log.verdict,
            headline: log.headline,
            decisive: log.decisive,
            figures: log.figures ?? [],
            ...(isRetest(log) ? { retest: true } : {}),
          })),
        };
      },
    }),
    route({
      ...whole,
      path: '/runs/:id/report.pdf',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const { log, by, header, facts, kept } = await find(me.shopId, id('id', 'run'));
        const pdf = await print('run', {
          shopName: me.shopName,
          timeZone: me.timeZone,
          standing: await standingOn(me.shopId, header),
          header,
          facts,
          by,
          startedAtMs: log.startedAtMs,
          closedAtMs: log.closedAtMs,
          timeUnsure: log.timeUnsure,
          chain: standingOf(log, kept),
        });
        response
          .attachment(`${fileName(log, header)}.pdf`)
          .type('application/pdf')
          .send(pdf);
      },
    }),
    route({
      ...whole,
      path: '/runs/:id/export.json',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const { log, by, header, facts, state, kept } = await find(me.shopId, id('id', 'run'));
        const body: RunExport = {
          format: 'keen-bleed/run/2',
          header,
          by,
          startedAtMs: log.startedAtMs,
          closedAtMs: log.closedAtMs,
          timeUnsure: log.timeUnsure,
          facts: [...facts],
          outcome: outcomeOfRun(header, state),
          openFailures: await standingOn(me.shopId, header),
          chain: exportedChain(log, kept, { header, facts }),
          caution: NOT_AN_INSPECTION,
        };
        response.attachment(`${fileName(log, header)}.json`).json(body);
      },
    }),
    route({
      ...whole,
      path: '/runs/:id/export.csv',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const { log, header, facts, state } = await find(me.shopId, id('id', 'run'));
        const data = markRows(state, facts);
        // Quotes before a leading sign keep a spreadsheet from reading a cell as a formula.
        const csv = Papa.unparse({ fields: COLUMNS, data }, { escapeFormulae: true });
        response
          .attachment(`${fileName(log, header)}.csv`)
          .type('text/csv')
          .send(`${csv}\r\n`);
      },
    }),
  ];
}

/** It asked only what repairs owed. */
const isRetest = ({ header }: StoredLog): boolean =>
  (header as { made?: { retestOf?: unknown } }).made?.retestOf !== undefined;

/** The title of a run's rule set stands at the same name in every version's header. */
function ruleSetTitle({ header }: StoredLog): string {
  const { ruleSet, made } = header as {
    ruleSet?: { title: string };
    made?: { ruleSet: { title: string } };
  };
  return (made?.ruleSet ?? ruleSet)?.title ?? '';
}

/** The shape of an exported run, for whoever reads one. */
export function schemaRoutes(): Router {
  const router = Router();
  router.get('/run-export.json', (_request, response) => {
    response.json({
      $schema: 'http://json-schema.org/draft-07/schema#',
      ...RunExportSchema,
    });
  });
  return router;
}

function fileName(log: StoredLog, { made }: RunHeader): string {
  const day = new Date(log.startedAtMs).toISOString().slice(0, 10);
  return `run-${made.unit.number.replaceAll(/[^A-Za-z0-9-]/g, '_')}-${day}`;
}
