import { RigSchema, RigsSchema, type Rig } from '@keen-bleed/contract';
import { checkCoupling } from '@keen-bleed/core';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { rigs, rigUnits, units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { takenIndex } from '../http/errorHandler';
import { READERS, RECORDERS, route, type Route } from '../http/route';
import { unitRecord } from '../units/unitRecord';

/** Rigs: units coupled one behind the other. */
export function rigRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/rigs',
      who: READERS,
      body: null,
      query: null,
      answers: RigsSchema,
      does: async ({ me }) => ({ body: await coupledRigs(db, me.shopId) }),
    }),
    route({
      method: 'post',
      path: '/rigs',
      who: RECORDERS,
      body: 'coupleRig',
      query: null,
      answers: RigSchema,
      does: async ({ me, body: { id, unitIds } }) => {
        const ids = unitIds.map((each) => each.toLowerCase());
        const before = await findRig(db, me.shopId, id);
        if (before) {
          // A retry after a lost answer finds its own rig and is told so.
          if (before.unitIds.join() !== ids.join()) {
            throw new ApiError('id-taken', 'Another rig has this id.');
          }
          return { body: before };
        }
        try {
          await db.transaction(async (tx) => {
            // Held while they are coupled: what is changed or retired meanwhile would not fit.
            const rows = await tx
              .select()
              .from(units)
              .where(and(eq(units.shopId, me.shopId), inArray(units.id, ids)))
              .orderBy(asc(units.id))
              .for('update');
            const inOrder = ids.map((unitId) => rows.find((row) => row.id === unitId));
            if (inOrder.some((row) => row === undefined)) throw notFound('unit');
            const problems = checkCoupling(
              inOrder.flatMap((row) => (row ? [unitRecord(row)] : [])),
            );
            const first = problems[0];
            if (first) throw new ApiError('not-right', first.message, problems);
            await tx.insert(rigs).values({ shopId: me.shopId, id });
            await tx
              .insert(rigUnits)
              .values(
                ids.map((unitId, place) => ({ shopId: me.shopId, rigId: id, place, unitId })),
              );
          });
        } catch (error) {
          // Sent twice at the same moment: the other one has made this very rig.
          const made = takenIndex(error) === null ? null : await findRig(db, me.shopId, id);
          if (made?.unitIds.join() === ids.join()) return { body: made };
          if (takenIndex(error) !== 'rig_units_once') throw error;
          throw new ApiError(
            'coupled-already',
            'One of these units is coupled in another rig: uncouple that one first.',
            [{ field: 'unitIds', message: 'A unit is coupled in one rig at a time.' }],
          );
        }
        return { status: 201, body: await foundRig(db, me.shopId, id) };
      },
    }),
    route({
      method: 'post',
      path: '/rigs/:id/uncouple',
      who: RECORDERS,
      body: 'uncoupleRig',
      query: null,
      answers: RigSchema,
      does: async ({ me, id: pathId, body: { revision } }) => {
        const id = pathId('id', 'rig');
        const before = await foundRig(db, me.shopId, id);
        if (before.uncoupledAtMs !== null) return { body: before };
        await db.transaction(async (tx) => {
          const [row] = await tx
            .update(rigs)
            .set({ uncoupledAt: new Date(), revision: sql`${rigs.revision} + 1` })
            .where(and(eq(rigs.shopId, me.shopId), eq(rigs.id, id), eq(rigs.revision, revision)))
            .returning();
          if (!row) {
            throw new ApiError(
              'changed-meanwhile',
              'Somebody changed this rig meanwhile. Look at it again.',
            );
          }
          await tx
            .update(rigUnits)
            .set({ coupled: false })
            .where(and(eq(rigUnits.shopId, me.shopId), eq(rigUnits.rigId, id)));
        });
        return { body: await foundRig(db, me.shopId, id) };
      },
    }),
  ];
}

/** Every rig of a shop that is coupled now. */
export async function coupledRigs(db: Db, shopId: string): Promise<Rig[]> {
  const rows = await db
    .select()
    .from(rigs)
    .innerJoin(rigUnits, and(eq(rigUnits.shopId, rigs.shopId), eq(rigUnits.rigId, rigs.id)))
    .where(and(eq(rigs.shopId, shopId), isNull(rigs.uncoupledAt)))
    .orderBy(asc(rigs.coupledAt), asc(rigs.id), asc(rigUnits.place));
  return gathered(rows);
}

async function foundRig(db: Db, shopId: string, id: string): Promise<Rig> {
  const rig = await findRig(db, shopId, id);
  if (!rig) throw notFound('rig');
  return rig;
}

async function findRig(db: Db, shopId: string, id: string): Promise<Rig | null> {
  const rows = await db
    .select()
    .from(rigs)
    .innerJoin(rigUnits, and(eq(rigUnits.shopId, rigs.shopId), eq(rigUnits.rigId, rigs.id)))
    .where(and(eq(rigs.shopId, shopId), eq(rigs.id, id)))
    .orderBy(asc(rigUnits.place));
  return gathered(rows)[0] ?? null;
}

interface Row {
  rigs: typeof rigs.$inferSelect;
  rig_units: typeof rigUnits.$inferSelect;
}

function gathered(rows: readonly Row[]): Rig[] {
  const byId = new Map<string, Rig>();
  for (const { rigs: rig, rig_units: member } of rows) {
    const found = byId.get(rig.id) ?? {
      id: rig.id,
      revision: rig.revision,
      unitIds: [],
      coupledAtMs: rig.coupledAt.getTime(),
      uncoupledAtMs: rig.uncoupledAt ? rig.uncoupledAt.getTime() : null,
    };
    found.unitIds.push(member.unitId);
    byId.set(rig.id, found);
  }
  return [...byId.values()];
}
