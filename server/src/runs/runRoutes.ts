import {
  RunExportSchema,
  type OpenRun,
  type RunExport,
  type RunRecord,
  type RunRow,
} from '@keen-bleed/contract';
import { markRows, rigTitle } from '@keen-bleed/core';
import { createSession } from 'better-sse';
import { and, asc, desc, eq, inArray, ne, or, sql } from 'drizzle-orm';
import { Router } from 'express';
import Papa from 'papaparse';
import { signedIn, signedInAs } from '../accounts/session';
import type { Db } from '../db/database';
import { people, runEvents, runs, runUnits } from '../db/schema';
import { notFound } from '../http/apiError';
import { checkedBody, pathId } from '../http/checked';
import { appendEvents } from './appendEvents';
import { NOT_AN_INSPECTION, runReport } from '../report/runReport';
import { LiveRuns } from './liveRuns';
import { openRun } from './openRun';
import { readRun } from './runReading';

/** Runs of a unit that are listed: ten years of monthly tests. */
const LISTED_RUNS = 120;

/** A run that was started this long before another is no longer being made, ms. */
const LEFT_OPEN_AFTER_MS = 12 * 3_600_000;

/** Runs: opening, appending facts, reading back, and taking out. */
export function runRoutes(db: Db): Router {
  const router = Router();
  const live = new LiveRuns();

  const find = async (shopId: string, runId: string) => {
    const [row] = await db
      .select({ run: runs, by: people.name })
      .from(runs)
      .innerJoin(people, and(eq(people.shopId, runs.shopId), eq(people.id, runs.personId)))
      .where(and(eq(runs.shopId, shopId), eq(runs.id, runId)));
    if (!row) throw notFound('run');
    const events = (
      await db
        .select({ event: runEvents.event })
        .from(runEvents)
        .where(and(eq(runEvents.shopId, shopId), eq(runEvents.runId, runId)))
        .orderBy(asc(runEvents.seq))
    ).map((each) => each.event);
    return { ...row, events };
  };

  router.post('/runs', async (request, response) => {
    const me = await signedInAs(db, request, 'technician', 'lead');
    const isNew = await openRun(db, me, checkedBody('openRun', request));
    response.status(isNew ? 201 : 200).json({ held: 0 });
  });

  router.post('/runs/:id/events', async (request, response) => {
    const me = await signedInAs(db, request, 'technician', 'lead');
    const { events } = checkedBody('appendEvents', request);
    const runId = pathId(request, 'id', 'run');
    const appended = await appendEvents(db, me, runId, events);
    live.grew(me.shopId, runId, appended.lastSeq);
    response.json(appended);
  });

  router.get('/units/:id/runs', async (request, response) => {
    const me = await signedIn(db, request);
    const unitId = pathId(request, 'id', 'unit');
    const rows = await db
      .select({ run: runs, by: people.name })
      .from(runUnits)
      .innerJoin(runs, and(eq(runs.shopId, runUnits.shopId), eq(runs.id, runUnits.runId)))
      .innerJoin(people, and(eq(people.shopId, runs.shopId), eq(people.id, runs.personId)))
      .where(and(eq(runUnits.shopId, me.shopId), eq(runUnits.unitId, unitId)))
      .orderBy(sql`${runUnits.closedAtMs} desc nulls first`, desc(runUnits.startedAtMs))
      .limit(LISTED_RUNS);
    const body: RunRow[] = rows.map(({ run, by }) => ({
      id: run.id,
      unitId: run.unitId,
      rigTitle: rigTitle(run),
      ruleSetTitle: run.ruleSet.title,
      drained: run.drained,
      startedAtMs: run.startedAtMs,
      closedAtMs: run.closedAtMs,
      by,
      verdict: run.verdict,
      headline: run.headline,
      decisive: run.decisive,
      figures: run.figures ?? [],
    }));
    response.json(body);
  });

  /** Runs that touch a unit of this one in the same stretch of time: two phones were at work. */
  const overlapping = async (run: typeof runs.$inferSelect): Promise<RunRecord['overlapping']> => {
    const unitIds = [run.unit, ...run.towed].map((unit) => unit.id);
    const rows = await db
      .selectDistinct({
        runId: runs.id,
        by: people.name,
        startedAtMs: runs.startedAtMs,
        closedAtMs: runs.closedAtMs,
      })
      .from(runUnits)
      .innerJoin(runs, and(eq(runs.shopId, runUnits.shopId), eq(runs.id, runUnits.runId)))
      .innerJoin(people, and(eq(people.shopId, runs.shopId), eq(people.id, runs.personId)))
      .where(
        and(
          eq(runUnits.shopId, run.shopId),
          inArray(runUnits.unitId, unitIds),
          ne(runs.id, run.id),
          run.closedAtMs === null ? undefined : sql`${runs.startedAtMs} < ${run.closedAtMs}`,
          or(
            sql`${runs.closedAtMs} > ${run.startedAtMs}`,
            // One that was left open long before is forgotten, not at work.
            and(
              sql`${runs.closedAtMs} is null`,
              sql`${runs.startedAtMs} > ${run.startedAtMs - LEFT_OPEN_AFTER_MS}`,
            ),
          ),
        ),
      );
    return rows;
  };

  router.get('/runs/:id', async (request, response) => {
    const me = await signedIn(db, request);
    const { run, by, events } = await find(me.shopId, pathId(request, 'id', 'run'));
    const { state, outcome } = readRun(run, events);
    const body: RunRecord = {
      header: headerOf(run),
      by,
      byPersonId: run.personId,
      closedAtMs: run.closedAtMs,
      gauge: state.gauge,
      events,
      outcome,
      overlapping: await overlapping(run),
    };
    response.json(body);
  });

  router.get('/runs/:id/live', async (request, response) => {
    const me = await signedIn(db, request);
    const { run } = await find(me.shopId, pathId(request, 'id', 'run'));
    const session = await createSession(request, response);
    live.of(me.shopId, run.id).register(session);
    session.push({ lastSeq: run.lastSeq }, 'grew');
  });

  router.get('/runs/:id/report.pdf', async (request, response) => {
    const me = await signedIn(db, request);
    const { run, by, events } = await find(me.shopId, pathId(request, 'id', 'run'));
    const pdf = await runReport({
      shopName: me.shopName,
      header: headerOf(run),
      by,
      closedAtMs: run.closedAtMs,
      ...readRun(run, events),
    });
    response
      .attachment(`${fileName(run)}.pdf`)
      .type('application/pdf')
      .send(pdf);
  });

  router.get('/runs/:id/export.json', async (request, response) => {
    const me = await signedIn(db, request);
    const { run, by, events } = await find(me.shopId, pathId(request, 'id', 'run'));
    const body: RunExport = {
      format: 'keen-bleed/run/1',
      run: { ...headerOf(run), closedAtMs: run.closedAtMs, by },
      events,
      outcome: readRun(run, events).outcome,
      caution: NOT_AN_INSPECTION,
    };
    response.attachment(`${fileName(run)}.json`).json(body);
  });

  router.get('/runs/:id/export.csv', async (request, response) => {
    const me = await signedIn(db, request);
    const { run, events } = await find(me.shopId, pathId(request, 'id', 'run'));
    const rows = markRows(readRun(run, events).state, events);
    const columns = [
      'seq',
      'timeUtc',
      'step',
      'mark',
      'readingPsi',
      'resolutionPsi',
      'method',
      'gauge',
      'state',
    ];
    // Quotes before a leading sign keep a spreadsheet from reading a cell as a formula.
    const csv = Papa.unparse({ fields: columns, data: rows }, { escapeFormulae: true });
    response
      .attachment(`${fileName(run)}.csv`)
      .type('text/csv')
      .send(`${csv}\r\n`);
  });

  return router;
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

function headerOf(run: typeof runs.$inferSelect): OpenRun {
  const { id, unitId, rigId, startedAtMs, unit, towed, ruleSet, leftOut } = run;
  return { id, unitId, rigId, startedAtMs, unit, towed, ruleSet, leftOut };
}

function fileName(run: typeof runs.$inferSelect): string {
  const day = new Date(run.startedAtMs).toISOString().slice(0, 10);
  return `run-${run.unit.number.replaceAll(/[^A-Za-z0-9-]/g, '_')}-${day}`;
}
