import type { RuleSetDraft, RuleSetList } from '@keen-bleed/contract';
import { checkRuleSet } from '@keen-bleed/core';
import { and, eq, sql } from 'drizzle-orm';
import { Router } from 'express';
import { signedIn, signedInAs } from '../accounts/session';
import type { Db } from '../db/database';
import { ruleSets, shops } from '../db/schema';
import { ApiError, notFound } from '../http/apiError';
import { checkedBody, pathId } from '../http/checked';
import { keepRevision } from './ruleSetAsKept';
import { findRuleSet, ruleSetRecord, shopRuleSets } from './shopRuleSets';

/** Rule sets: everybody reads them, a lead copies and edits them. */
export function ruleSetRoutes(db: Db): Router {
  const router = Router();

  router.get('/rule-sets', async (request, response) => {
    const me = await signedIn(db, request);
    const body: RuleSetList = await shopRuleSets(db, me.shopId);
    response.json(body);
  });

  router.post('/rule-sets', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const { id, basedOn, draft } = checkedBody('copyRuleSet', request);
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
      if (row) await keepRevision(tx, me.personId, row);
      return row;
    });
    const body = made ? ruleSetRecord(made) : await findRuleSet(db, me.shopId, id);
    response.status(made ? 201 : 200).json(body);
  });

  router.put('/rule-sets/default', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const { ruleSetId } = checkedBody('chooseRuleSet', request);
    if (!(await findRuleSet(db, me.shopId, ruleSetId))) throw notFound('rule set');
    await db.update(shops).set({ ruleSetId }).where(eq(shops.id, me.shopId));
    response.json(await shopRuleSets(db, me.shopId));
  });

  router.put('/rule-sets/:id', async (request, response) => {
    const me = await signedInAs(db, request, 'lead');
    const id = pathId(request, 'id', 'rule set of its own');
    const { revision, draft } = checkedBody('editRuleSet', request);
    requireRight(draft);
    const edited = await db.transaction(async (tx) => {
      const [row] = await tx
        .update(ruleSets)
        .set({ draft, revision: sql`${ruleSets.revision} + 1`, updatedAt: new Date() })
        .where(
          and(eq(ruleSets.shopId, me.shopId), eq(ruleSets.id, id), eq(ruleSets.revision, revision)),
        )
        .returning();
      if (row) await keepRevision(tx, me.personId, row);
      return row;
    });
    if (!edited) {
      if (!(await findRuleSet(db, me.shopId, id))) throw notFound('rule set of its own');
      throw new ApiError(
        'changed-meanwhile',
        'Somebody changed this rule set while you had it open. Look at their version, then make your change again.',
      );
    }
    response.json(ruleSetRecord(edited));
  });

  return router;
}

function requireRight(draft: RuleSetDraft): void {
  const problems = checkRuleSet(draft);
  const first = problems[0];
  if (first) throw new ApiError('not-right', first.message, problems);
}
