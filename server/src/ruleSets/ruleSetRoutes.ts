import { RuleSetListSchema, RuleSetSchema, type RuleSetDraft } from '@keen-bleed/contract';
import { checkRuleSet } from '@keen-bleed/core';
import { and, eq, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import { keepAudit } from '../audit/keepAudit';
import type { Db } from '../db/database';
import { ruleSets, shops } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { LEADS, READERS, route, type Route } from '../http/route';
import { firstRevision, keepRevision } from './ruleSetAsKept';
import { findRuleSet, ruleSetRecord, shopRuleSets } from './shopRuleSets';

/** Rule sets: everybody reads them, a lead copies and edits them. */
export function ruleSetRoutes(db: Db): Route[] {
  return [
    route({
      method: 'get',
      path: '/rule-sets',
      who: READERS,
      body: null,
      query: null,
      answers: RuleSetListSchema,
      does: async ({ me }) => ({ body: await shopRuleSets(db, me.shopId) }),
    }),
    route({
      method: 'post',
      path: '/rule-sets',
      who: LEADS,
      body: 'copyRuleSet',
      query: null,
      answers: RuleSetSchema,
      does: async ({ me, body: { id, basedOn, draft }, request }) => {
        if (!(await findRuleSet(db, me.shopId, basedOn))) {
          throw new ApiError('not-right', 'The rule set to copy is not there.', [
            { field: 'basedOn', message: `There is no rule set "${basedOn}".` },
          ]);
        }
        requireRight(draft);
        const made = await db.transaction(async (tx) => {
          const [row] = await tx
            .insert(ruleSets)
            .values({ shopId: me.shopId, id, basedOn, draft })
            .onConflictDoNothing()
            .returning();
          if (row) {
            await keepRevision(tx, me.personId, row);
            await keepAudit(tx, { me, request }, 'rule-set', `${draft.title}: copied`);
          }
          return row;
        });
        if (made) return { status: 201, body: ruleSetRecord(made) };
        const before = await findRuleSet(db, me.shopId, id);
        if (!before) throw notFound('rule set');
        // A retry says what was said at first, whatever has become of the set since.
        const first = await firstRevision(db, me.shopId, before);
        const again = ruleSetRecord({ id: before.id, revision: 1, basedOn, draft });
        if (!isDeepStrictEqual(first, again)) {
          throw new ApiError('id-taken', 'Another rule set has this id.');
        }
        return { body: before };
      },
    }),
    route({
      method: 'put',
      path: '/rule-sets/default',
      who: LEADS,
      body: 'chooseRuleSet',
      query: null,
      answers: RuleSetListSchema,
      does: async ({ me, body: { ruleSetId }, request }) => {
        const chosen = await findRuleSet(db, me.shopId, ruleSetId);
        if (!chosen) throw notFound('rule set');
        await db.transaction(async (tx) => {
          await tx.update(shops).set({ ruleSetId }).where(eq(shops.id, me.shopId));
          await keepAudit(
            tx,
            { me, request },
            'rule-set',
            `${chosen.title}: the shop’s own choice`,
          );
        });
        return { body: await shopRuleSets(db, me.shopId) };
      },
    }),
    route({
      method: 'put',
      path: '/rule-sets/:id',
      who: LEADS,
      body: 'editRuleSet',
      query: null,
      answers: RuleSetSchema,
      does: async ({ me, id: pathId, body: { revision, draft }, request }) => {
        const id = pathId('id', 'rule set of its own');
        requireRight(draft);
        const edited = await db.transaction(async (tx) => {
          const [row] = await tx
            .update(ruleSets)
            .set({ draft, revision: sql`${ruleSets.revision} + 1`, updatedAt: new Date() })
            .where(
              and(
                eq(ruleSets.shopId, me.shopId),
                eq(ruleSets.id, id),
                eq(ruleSets.revision, revision),
              ),
            )
            .returning();
          if (row) {
            await keepRevision(tx, me.personId, row);
            const about = `${draft.title}, revision ${revision + 1}`;
            await keepAudit(tx, { me, request }, 'rule-set', about);
          }
          return row;
        });
        if (!edited) {
          if (!(await findRuleSet(db, me.shopId, id))) throw notFound('rule set of its own');
          throw new ApiError(
            'changed-meanwhile',
            'Somebody changed this rule set while you had it open. Look at their version, then make your change again.',
          );
        }
        return { body: ruleSetRecord(edited) };
      },
    }),
  ];
}

function requireRight(draft: RuleSetDraft): void {
  const problems = checkRuleSet(draft);
  const first = problems[0];
  if (first) throw new ApiError('not-right', first.message, problems);
}
