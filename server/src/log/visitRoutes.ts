import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import { visitKind } from '@keen-bleed/core';
import { and, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { blobs } from '../db/schema';
import { READERS, route, type Route } from '../http/route';
import { visitReport } from '../report/visitReport';
import { findLog, readLog, storedFacts } from './logRow';
import { writersOf } from './writersOf';

/** What the printer can put on paper. */
const PRINTED: ReadonlySet<string> = new Set(['image/jpeg', 'image/png']);

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
          photos: await photosOf(db, me.shopId, log.id, facts),
        });
        response
          .attachment(`visit-${new Date(log.startedAtMs).toISOString().slice(0, 10)}.pdf`)
          .type('application/pdf')
          .send(pdf);
      },
    }),
  ];
}

/** The photos that a visit's facts name, as data of a page. */
async function photosOf(
  db: Db,
  shopId: string,
  logId: string,
  facts: readonly VisitFact[],
): Promise<ReadonlyMap<string, string>> {
  const ids = facts.flatMap((fact) => ('photos' in fact ? (fact.photos ?? []) : []));
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: blobs.id, mediaType: blobs.mediaType, bytes: blobs.bytes })
    .from(blobs)
    .where(and(eq(blobs.shopId, shopId), eq(blobs.logId, logId), inArray(blobs.id, ids)));
  return new Map(
    rows.flatMap(({ id, mediaType, bytes }) =>
      PRINTED.has(mediaType)
        ? [[id, `data:${mediaType};base64,${bytes.toString('base64')}`] as const]
        : [],
    ),
  );
}
