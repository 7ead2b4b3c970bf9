import type { AnyFact, FittedFact, LineFact, PartFact } from '@keen-bleed/contract';
import {
  correctedMs,
  fittedRecordOf,
  lineRecordOf,
  partRecordOf,
  withLine,
  withPart,
  type FoldedLog,
} from '@keen-bleed/core';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../db/database';
import { units } from '../db/schema';
import { keepRevisions } from './unitRevisions';

/** What changes how a unit is described. */
type Said = PartFact | LineFact | FittedFact;

/**
 * Brings units up to what was found of their parts. Each unit gets one new revision with who found it, so that a record
 * made before keeps its parts as they were.
 *
 * @param taken the facts that came in now
 * @param log their log, for what they take back and the answers about its clocks
 */
export async function applyParts(
  tx: Db,
  who: { shopId: string; personId: string },
  taken: readonly AnyFact[],
  log: FoldedLog,
): Promise<void> {
  const found = [...taken, ...takenBack(taken, log)].filter(
    (fact): fact is Said & AnyFact =>
      fact.kind === 'part' || fact.kind === 'line' || fact.kind === 'fitted',
  );
  if (found.length === 0) return;
  const { answers } = log.times;
  const ids = [...new Set(found.map(({ at }) => at.unitId.toLowerCase()))];
  const rows = await tx
    .select()
    .from(units)
    .where(and(eq(units.shopId, who.shopId), inArray(units.id, ids)))
    .orderBy(asc(units.id))
    .for('no key update');
  for (const row of rows) {
    const draft = found
      .filter(({ at }) => at.unitId.toLowerCase() === row.id)
      .reduce((before, fact) => {
        const foundAtMs = Math.round(correctedMs(fact, answers.get(fact.lane)));
        switch (fact.kind) {
          case 'part':
            return withPart(before, partRecordOf(fact, foundAtMs));
          case 'line':
            return withLine(before, lineRecordOf(fact, foundAtMs));
          case 'fitted':
            return withPart(before, fittedRecordOf(before, fact, foundAtMs));
        }
      }, row.draft);
    if (isDeepStrictEqual(draft, row.draft)) continue;
    const changed = await tx
      .update(units)
      .set({ draft, revision: sql`${units.revision} + 1`, updatedAt: new Date() })
      .where(and(eq(units.shopId, who.shopId), eq(units.id, row.id)))
      .returning();
    await keepRevisions(tx, who.personId, changed);
  }
}

/** Repairs that were taken back at once, in case of a slip: what came off is on again. */
function takenBack(taken: readonly AnyFact[], log: FoldedLog): AnyFact[] {
  return taken.flatMap((fact) => {
    if (fact.kind !== 'retract') return [];
    const target = log.factOf(fact.target);
    if (target?.kind !== 'fitted') return [];
    const { lane, atMs, offsetMs } = fact;
    const back: FittedFact = {
      ...target,
      lane,
      atMs,
      offsetMs,
      repair: 'cleaned',
      now: target.was,
    };
    return [back];
  });
}
