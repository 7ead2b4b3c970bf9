import type { Unit, UnitDraft } from '@keen-bleed/contract';
import { sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../db/database';
import { unitRevisions, units } from '../db/schema';
import { Statement } from '../db/statement';
import { notFound } from '../http/apiError';
import { fieldError } from '../http/fieldError';

/** Units of a shop, each with those of some revisions that are kept of it. */
const asKept = new Statement<{
  id: string;
  revision: number;
  kept: number | null;
  draft: UnitDraft | null;
}>(
  'units-as-kept',
  sql`
    select ${units.id} as id, ${units.revision} as revision, ${unitRevisions.revision} as kept, ${unitRevisions.draft} as draft
    from ${units}
    left join ${unitRevisions} on ${unitRevisions.shopId} = ${units.shopId} and ${unitRevisions.unitId} = ${units.id}
      and ${unitRevisions.revision} = any(${sql.placeholder('revisions')}::int[])
    where ${units.shopId} = ${sql.placeholder('shopId')} and ${units.id} = any(${sql.placeholder('ids')}::uuid[])`,
);

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
  const { rows } = await asKept.run(db, { shopId, ids, revisions });
  return sent.map((unit, at) => {
    const { id, revision, retiredAtMs, ...draft } = unit;
    const row = rows.find((each) => each.id === id.toLowerCase());
    if (!row) throw notFound('unit');
    const field = fieldOf(at);
    if (revision > row.revision) {
      throw fieldError(`${field}.revision`, `This unit is at revision ${row.revision}.`);
    }
    const same = rows.find((each) => each.id === row.id && each.kept === revision);
    if (!same?.draft || !isDeepStrictEqual(same.draft, draft)) {
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
