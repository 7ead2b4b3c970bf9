import { checkCoupling } from '@keen-bleed/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { rigUnits, units } from '../db/schema';
import { ApiError } from '../http/apiError';
import { unitRecord } from './unitRecord';

/** Units of the rig a unit is coupled in, front to rear; none where it stands alone. */
async function rigOf(tx: Db, shopId: string, unitId: string) {
  const [place] = await tx
    .select({ rigId: rigUnits.rigId })
    .from(rigUnits)
    .where(
      and(eq(rigUnits.shopId, shopId), eq(rigUnits.unitId, unitId), eq(rigUnits.coupled, true)),
    );
  if (!place) return [];
  const rows = await tx
    .select({ unit: units })
    .from(rigUnits)
    .innerJoin(units, and(eq(units.shopId, rigUnits.shopId), eq(units.id, rigUnits.unitId)))
    .where(and(eq(rigUnits.shopId, shopId), eq(rigUnits.rigId, place.rigId)))
    .orderBy(asc(rigUnits.place));
  return rows.map(({ unit }) => unit);
}

/** Refuses a change to a unit that could not stand coupled as it is; `row` is the unit as it would be. */
export async function requireFitsItsRig(tx: Db, row: typeof units.$inferSelect): Promise<void> {
  const rig = await rigOf(tx, row.shopId, row.id);
  if (rig.length === 0) return;
  const [problem] = checkCoupling(rig.map((each) => unitRecord(each.id === row.id ? row : each)));
  if (!problem) return;
  throw new ApiError(
    'coupled-already',
    `This unit is coupled, and could not be so changed: ${problem.message} Uncouple it first.`,
    [{ field: 'kind', message: 'Uncouple it first.' }],
  );
}

/** Refuses to retire a unit that is coupled. */
export async function requireUncoupled(tx: Db, shopId: string, unitId: string): Promise<void> {
  if ((await rigOf(tx, shopId, unitId)).length === 0) return;
  throw new ApiError('coupled-already', 'This unit is coupled in a rig: uncouple it first.');
}
