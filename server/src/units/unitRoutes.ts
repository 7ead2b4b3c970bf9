import { UnitSchema, UnitsSchema, YardRowsSchema, type UnitDraft } from '@keen-bleed/contract';
import { checkUnit, unitTitle } from '@keen-bleed/core';
import { and, asc, eq, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import { keepAudit } from '../audit/keepAudit';
import type { Db } from '../db/database';
import { unitRevisions, units } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { takenIndex } from '../http/errorHandler';
import { oneAtATime, requireRoom, type Quotas } from '../http/quotas';
import { PAGE_ROWS, pageOf } from '../http/paged';
import { LEADS, READERS, RECORDERS, route, type Route } from '../http/route';
import { keepRevisions } from './unitRevisions';
import { requireFitsItsRig, requireUncoupled } from './coupled';
import { unitRecord } from './unitRecord';
import { yardRows } from './yardRows';

/** Units and the yard that lists them. */
export function unitRoutes(db: Db, quotas: Quotas): Route[] {
  const byId = db
    .select()
    .from(units)
    .where(and(eq(units.shopId, sql.placeholder('shop')), eq(units.id, sql.placeholder('id'))))
    .prepare('unit-by-id');
  const find = async (shop: string, id: string) => {
    const [row] = await byId.execute({ shop, id });
    if (!row) throw notFound('unit');
    return row;
  };
  const whole = { who: READERS, method: 'get', body: null } as const;
  return [
    route({
      ...whole,
      path: '/yard',
      query: 'pageQuery',
      answers: YardRowsSchema,
      does: async ({ me, query: { after }, response }) => {
        const rows = await yardRows(db, me.shopId, { after, most: PAGE_ROWS + 1 });
        return { body: pageOf(rows, response, '/yard', ({ unit }) => unit.id) };
      },
    }),
    route({
      ...whole,
      path: '/units',
      query: 'pageQuery',
      answers: UnitsSchema,
      does: async ({ me, query: { after }, response }) => {
        const beyond = after
          ? sql`(${units.number}, ${units.id}) > (select a.number, a.id from ${units} a where a.shop_id = ${me.shopId} and a.id = ${after})`
          : undefined;
        const rows = await db
          .select()
          .from(units)
          .where(and(eq(units.shopId, me.shopId), beyond))
          .orderBy(asc(units.number), asc(units.id))
          .limit(PAGE_ROWS + 1);
        return { body: pageOf(rows, response, '/units', ({ id }) => id).map(unitRecord) };
      },
    }),
    route({
      ...whole,
      path: '/units/:id',
      query: null,
      answers: UnitSchema,
      does: async ({ me, id }) => ({ body: unitRecord(await find(me.shopId, id('id', 'unit'))) }),
    }),
    route({
      method: 'post',
      path: '/units',
      who: RECORDERS,
      body: 'createUnit',
      query: null,
      answers: UnitSchema,
      does: async ({ me, body: { id, draft }, request }) => {
        requireRight(draft);
        // A retry after a lost answer finds its own unit and is told so.
        const inserted = await numberGuard(draft, () =>
          db.transaction(async (tx) => {
            const made = await tx
              .insert(units)
              .values({ shopId: me.shopId, id, number: draft.number.trim(), draft })
              .onConflictDoNothing({ target: [units.shopId, units.id] })
              .returning();
            await keepRevisions(tx, me.personId, made);
            if (made.length > 0) {
              await oneAtATime(tx, me.shopId);
              const has = await tx.$count(units, eq(units.shopId, me.shopId));
              requireRoom(quotas, 'units', has - 1);
              await keepAudit(tx, { me, request }, 'unit-added', unitTitle(draft));
            }
            return made;
          }),
        ).catch(async (error: unknown) => {
          // Sent twice at the same moment, the number may be found taken by the very unit that is being made.
          if (error instanceof ApiError && error.code === 'number-taken') {
            const [own] = await db
              .select({ id: units.id })
              .from(units)
              .where(and(eq(units.shopId, me.shopId), eq(units.id, id)));
            if (own) return [];
          }
          throw error;
        });
        const row = inserted[0] ?? (await find(me.shopId, id));
        if (!inserted[0]) await requireSameAsMade(db, me.shopId, id, draft);
        return { status: inserted[0] ? 201 : 200, body: unitRecord(row) };
      },
    }),
    route({
      method: 'put',
      path: '/units/:id',
      who: RECORDERS,
      body: 'editUnit',
      query: null,
      answers: UnitSchema,
      does: async ({ me, id: pathId, body: { revision, draft }, request }) => {
        const id = pathId('id', 'unit');
        requireRight(draft);
        const before = await find(me.shopId, id);
        // A page from before lines were kept sends none: what is known of them stays.
        const kept = draft.lines ?? before.draft.lines;
        const whole = kept ? { ...draft, lines: kept } : draft;
        const [edited] = await numberGuard(draft, () =>
          db.transaction(async (tx) => {
            const changed = await tx
              .update(units)
              .set({
                draft: whole,
                number: draft.number.trim(),
                revision: sql`${units.revision} + 1`,
                updatedAt: new Date(),
              })
              .where(
                and(eq(units.shopId, me.shopId), eq(units.id, id), eq(units.revision, revision)),
              )
              .returning();
            // Held by the change above: nobody couples it meanwhile.
            if (changed[0]) await requireFitsItsRig(tx, changed[0]);
            await keepRevisions(tx, me.personId, changed);
            if (changed.length > 0) {
              const about = `${unitTitle(draft)}, revision ${revision + 1}`;
              await keepAudit(tx, { me, request }, 'unit-edited', about);
            }
            return changed;
          }),
        );
        if (!edited) {
          throw new ApiError(
            'changed-meanwhile',
            'Somebody changed this unit while you had it open. Look at their version, then make your change again.',
          );
        }
        return { body: unitRecord(edited) };
      },
    }),
    route({
      method: 'post',
      path: '/units/:id/retire',
      who: LEADS,
      body: 'retireUnit',
      query: null,
      answers: UnitSchema,
      does: async ({ me, id: pathId, body: { retired }, request }) => {
        const id = pathId('id', 'unit');
        const before = await find(me.shopId, id);
        const [row] = await numberGuard(before.draft, () =>
          db.transaction(async (tx) => {
            const changed = await tx
              .update(units)
              .set({
                retiredAt: retired ? (before.retiredAt ?? new Date()) : null,
                updatedAt: new Date(),
              })
              .where(and(eq(units.shopId, me.shopId), eq(units.id, id)))
              .returning();
            if (retired) await requireUncoupled(tx, me.shopId, id);
            const about = `${unitTitle(before.draft)}${retired ? '' : ': back in service'}`;
            await keepAudit(tx, { me, request }, 'unit-retired', about);
            return changed;
          }),
        );
        if (!row) throw notFound('unit');
        return { body: unitRecord(row) };
      },
    }),
  ];
}

/** A retry of a lost answer says again what made the unit; anything else under its id is another unit. */
async function requireSameAsMade(
  db: Db,
  shopId: string,
  id: string,
  draft: UnitDraft,
): Promise<void> {
  const [first] = await db
    .select({ draft: unitRevisions.draft })
    .from(unitRevisions)
    .where(
      and(
        eq(unitRevisions.shopId, shopId),
        eq(unitRevisions.unitId, id),
        eq(unitRevisions.revision, 1),
      ),
    );
  if (first && !isDeepStrictEqual(first.draft, draft)) {
    throw new ApiError('id-taken', 'Another unit has this id.');
  }
}

function requireRight(draft: UnitDraft): void {
  const problems = checkUnit(draft);
  const first = problems[0];
  if (first) throw new ApiError('not-right', first.message, problems);
}

async function numberGuard<T>(draft: UnitDraft, write: () => Promise<T>): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (takenIndex(error) !== 'units_number') throw error;
    const message = `Number ${draft.number} is taken by another unit of this shop: choose another.`;
    throw new ApiError('number-taken', message, [{ field: 'number', message }]);
  }
}
