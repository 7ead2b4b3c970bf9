import type { AnyFact, AnyHeader } from '@keen-bleed/contract';
import { anyLogKind, CORE_VERSION, FoldedLog, rigTitle, unitsOfHeader } from '@keen-bleed/core';
import type { facts, logs, logUnits } from '../db/schema';
import { hashOf, linked } from './chain';
import { judged } from './judged';

/** The rows of a log that is made whole at once, as they would stand had it come in fact by fact. */
export function storedLog(
  shopId: string,
  personOf: (fact: AnyFact | null) => string,
  header: AnyHeader,
  ofLog: readonly AnyFact[],
  receivedAtMs: number,
): {
  log: typeof logs.$inferInsert;
  units: (typeof logUnits.$inferInsert)[];
  facts: (typeof facts.$inferInsert)[];
} {
  const columns = judged(new FoldedLog(anyLogKind(header.kind), header, ofLog), receivedAtMs);
  const [front, ...towed] = unitsOfHeader(header);
  if (!front) throw new Error('a log is on one unit at least');
  return {
    log: {
      lastAtMs: columns.log.startedAtMs,
      coreVersion: CORE_VERSION,
      ...columns.log,
      shopId,
      id: header.id,
      kind: header.kind,
      unitId: header.subject.unitId,
      rigId: header.subject.rigId,
      personId: personOf(null),
      header: header as unknown as Record<string, unknown>,
      title: rigTitle({ unit: front, towed }),
      receivedAt: new Date(receivedAtMs),
    },
    units: [front, ...towed].map(({ id }) => ({
      startedAtMs: columns.log.startedAtMs,
      ...columns.units,
      shopId,
      unitId: id,
      logId: header.id,
      kind: header.kind,
    })),
    facts: linked(
      { place: 0, link: hashOf(header) },
      ofLog.map((fact) => ({
        shopId,
        logId: header.id,
        lane: fact.lane,
        seq: fact.seq,
        id: fact.id,
        personId: personOf(fact),
        fact: { ...fact },
        receivedAtMs,
      })),
    ),
  };
}
