import { BlocksSchema, JobRowsSchema, LessonsSchema } from '@keen-bleed/contract';
import {
  FoldedLog,
  jobKind,
  lessonsOf,
  sayJobFact,
  taught,
  unitTitle,
  type JobBoard,
} from '@keen-bleed/core';
import { and, eq, isNotNull } from 'drizzle-orm';
import Papa from 'papaparse';
import type { Db } from '../db/database';
import { logs, units } from '../db/schema';
import { READERS, route, type Route } from '../http/route';
import { photosAsData } from '../report/photosAsData';
import { NOT_AN_INSPECTION } from '../report/page';
import { print } from '../report/print';
import { blocksOf } from '../log/answerRelease';
import { digestOf } from '../log/digest';
import { jobRows } from './jobRows';
import { storedJob } from './storedJob';

/** Jobs: the board, what stands against a release, pages and files, and what repairs teach. */
export function jobRoutes(db: Db): Route[] {
  const reads = { method: 'get', who: READERS, body: null, query: null } as const;
  const csv = (rows: object[]) =>
    // Quotes before a leading sign keep a spreadsheet from reading a cell as a formula.
    `${Papa.unparse(rows, { escapeFormulae: true })}\r\n`;
  return [
    route({
      ...reads,
      path: '/jobs',
      answers: JobRowsSchema,
      does: async ({ me }) => ({ body: await jobRows(db, me.shopId) }),
    }),
    route({
      ...reads,
      path: '/jobs/parts.csv',
      answers: 'file',
      exports: true,
      does: async ({ me, response }) => {
        const rows = await jobRows(db, me.shopId);
        const wanted = rows
          .filter(({ wants, closedAtMs }) => closedAtMs === null && wants.length > 0)
          .map(({ title, part, wants, waitingFor, wantedBy, owner }) => ({
            unit: title,
            part: part?.title ?? '',
            mustMatch: wants
              .map(({ title: want, value }) => `${want}: ${value ?? 'not known yet'}`)
              .join('; '),
            waitingFor: waitingFor ?? '',
            wantedBy: wantedBy ?? '',
            owner: owner ?? '',
          }));
        response.attachment('parts.csv').type('text/csv').send(csv(wanted));
      },
    }),
    route({
      ...reads,
      path: '/jobs/:id/blocks',
      answers: BlocksSchema,
      does: async ({ me, id }) => {
        const { header, facts } = await storedJob(db, me.shopId, id('id', 'job'));
        const log = new FoldedLog(jobKind, header, facts) as unknown as FoldedLog;
        const blocks = await db.transaction((tx) => blocksOf(tx, me.shopId, log));
        return { body: { blocks } };
      },
    }),
    route({
      ...reads,
      path: '/jobs/:id/release.pdf',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const job = await storedJob(db, me.shopId, id('id', 'job'));
        const pdf = await print('release', {
          ...job,
          shopName: me.shopName,
          timeZone: me.timeZone,
        });
        response
          .attachment(`${fileName(job.header)}.pdf`)
          .type('application/pdf')
          .send(pdf);
      },
    }),
    route({
      ...reads,
      path: '/jobs/:id/share.html',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const job = await storedJob(db, me.shopId, id('id', 'job'));
        const photos = await photosAsData(db, me.shopId, job.header.id, job.facts);
        const page = await print('share', {
          ...job,
          photos,
          shopName: me.shopName,
          timeZone: me.timeZone,
        });
        response
          .attachment(`${fileName(job.header)}.html`)
          .type('text/html')
          .send(page);
      },
    }),
    route({
      ...reads,
      path: '/jobs/:id/export.json',
      answers: 'file',
      exports: true,
      does: async ({ me, id, response }) => {
        const { header, facts, state, by, writers, startedAtMs, closedAtMs, chain } =
          await storedJob(db, me.shopId, id('id', 'job'));
        const plain = facts.map(({ receivedAtMs: _receivedAtMs, ...fact }) => fact);
        const lanes = new FoldedLog(jobKind, header, facts).lanes;
        response.attachment(`${fileName(header)}.json`).json({
          format: 'keen-bleed/job/1',
          header,
          by,
          writers,
          startedAtMs,
          closedAtMs,
          facts: plain,
          story: state.told.map((fact) => ({ factId: fact.id, ...sayJobFact(header, fact) })),
          /** Over everything that is here; a release carries its own over what it knew. */
          digest: { knew: lanes, sha256: digestOf(header, facts, lanes) },
          chain,
          caution: NOT_AN_INSPECTION,
        });
      },
    }),
    route({
      ...reads,
      path: '/lessons',
      answers: LessonsSchema,
      does: async ({ me }) => ({ body: await lessons(db, me.shopId) }),
    }),
    route({
      ...reads,
      path: '/lessons.csv',
      answers: 'file',
      exports: true,
      does: async ({ me, response }) => {
        const { parts, repeats } = await lessons(db, me.shopId);
        const rows = parts.map(({ title, worked, needless }) => ({
          part: title,
          worked,
          changedNeedlessly: needless,
          repeats: repeats.filter(({ part }) => part === title).length,
        }));
        response.attachment('lessons.csv').type('text/csv').send(csv(rows));
      },
    }),
  ];
}

const fileName = ({
  made,
  startedAtMs,
}: {
  made: { units: readonly { number: string }[] };
  startedAtMs: number;
}) =>
  `job-${made.units.map(({ number }) => number).join('-')}-${new Date(startedAtMs).toISOString().slice(0, 10)}`.replace(
    /[^\w.-]/g,
    '_',
  );

async function lessons(db: Db, shopId: string) {
  const ended = await db
    .select({ board: logs.board })
    .from(logs)
    .where(and(eq(logs.shopId, shopId), eq(logs.kind, 'job'), isNotNull(logs.closedAtMs)));
  const named = await db
    .select({ id: units.id, draft: units.draft })
    .from(units)
    .where(eq(units.shopId, shopId));
  const titles = new Map(named.map(({ id, draft }) => [id, unitTitle(draft)]));
  const boards = ended.flatMap(({ board }) => (board ? [board] : [])) satisfies JobBoard[];
  return lessonsOf(taught(boards, (id) => titles.get(id) ?? ''));
}
