import type { Unit } from '@keen-bleed/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../db/database';
import { unitRevisions, units } from '../db/schema';
import { notFound } from '../http/apiError';
import { fieldError } from '../http/fieldError';

/**
 * Units of a record, each as the shop kept it at the revision that is claimed. What was sent has to say the same: a
 * claim to an old revision brings no words of its own.
 *
 * @param fieldOf where each unit stands in what was sent
 */
export async function unitsAsKept(
  db: Db,
  shopId: string,
  sent: readonly Unit[],
  fieldOf: (at: number) => string,
): Promise<Unit[]> {
  const ids = sent.map((unit) => unit.id.toLowerCase());
  const revisions = sent.map((unit) => unit.revision);
  const rows = await db
    .select({ id: units.id, revision: units.revision, kept: unitRevisions })
    .from(units)
    .leftJoin(
      unitRevisions,
      and(
        eq(unitRevisions.shopId, units.shopId),
        eq(unitRevisions.unitId, units.id),
        inArray(unitRevisions.revision, revisions),
      ),
    )
    .where(and(eq(units.shopId, shopId), inArray(units.id, ids)));
  const kept = rows.flatMap(({ kept: each }) => (each ? [each] : []));
  return sent.map((unit, at) => {
    const { id, revision, retiredAtMs, ...draft } = unit;
    const row = rows.find((each) => each.id === id.toLowerCase());
    if (!row) throw notFound('unit');
    const field = fieldOf(at);
    if (revision > row.revision) {
      throw fieldError(`${field}.revision`, `This unit is at revision ${row.revision}.`);
    }
    const same = kept.find((each) => each.unitId === row.id && each.revision === revision);
    if (!same || !isDeepStrictEqual(same.draft, draft)) {
      throw fieldError(
        field,
        `Unit ${unit.number} is not as the shop kept it at revision ${revision}. Take the unit as it stands now.`,
      );
    }
    return { id: row.id, revision, retiredAtMs, ...same.draft };
  });
}

/** Keeps units as they now stand, for the records that will be made on them. */
export async function keepRevisions(
  tx: Db,
  personId: string,
  rows: readonly (typeof units.$inferSelect)[],
): Promise<void> {
  if (rows.length === 0) return;
  await tx.insert(unitRevisions).values(
    rows.map(({ shopId, id, revision, draft }) => ({
      shopId,
      unitId: id,
      revision,
      draft,
      personId,
    })),
  );
}
