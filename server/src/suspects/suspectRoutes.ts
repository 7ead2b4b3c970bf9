import { SuspectTableSchema, type SuspectTable } from '@keen-bleed/contract';
import { checkCoupling, type RigUnderTest } from '@keen-bleed/core';
import { and, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { READERS, route, type Route } from '../http/route';
import { unitRecord } from '../units/unitRecord';
import type { SuspectTables } from './suspectTables';

/** What a rig would show under each of its faults, worked out here for a phone that is too weak for it. */
export function suspectRoutes(db: Db, tables: SuspectTables): Route[] {
  return [
    route({
      method: 'post',
      path: '/suspects/table',
      who: READERS,
      body: 'askTable',
      query: null,
      answers: SuspectTableSchema,
      does: async ({ me, body: { unitIds } }) => ({
        body: tables.ask(me.shopId, await rigOf(db, me.shopId, unitIds)) as SuspectTable,
      }),
    }),
  ];
}

async function rigOf(db: Db, shopId: string, unitIds: readonly string[]): Promise<RigUnderTest> {
  const ids = unitIds.map((id) => id.toLowerCase());
  const rows = await db
    .select()
    .from(units)
    .where(and(eq(units.shopId, shopId), inArray(units.id, ids)));
  const [unit, ...towed] = ids.map((id) => {
    const row = rows.find((each) => each.id === id);
    if (!row) throw notFound('unit');
    return unitRecord(row);
  });
  if (!unit) throw notFound('unit');
  const [problem] = towed.length > 0 ? checkCoupling([unit, ...towed]) : [];
  if (problem) throw new ApiError('not-right', problem.message, [problem]);
  return { unit, towed };
}
