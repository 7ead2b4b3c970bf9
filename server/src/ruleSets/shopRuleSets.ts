import type { RuleSet } from '@keen-bleed/contract';
import { defaultRuleSetId, ruleSetById, ruleSets as shipped } from '@keen-bleed/core';
import { asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { ruleSets, shops } from '../db/schema';
import { Statement } from '../db/statement';

type Row = Pick<typeof ruleSets.$inferSelect, 'id' | 'revision' | 'basedOn' | 'draft'>;

/** A shop's own rule set, from its row. */
export function ruleSetRecord({ id, revision, basedOn, draft }: Row): RuleSet {
  return { id, revision, basedOn, ...draft };
}

/** The rule sets a shop may run by: those that ship, then its own; and the one it takes by itself. */
export async function shopRuleSets(
  db: Db,
  shopId: string,
): Promise<{ sets: RuleSet[]; defaultId: string }> {
  const own = await db
    .select()
    .from(ruleSets)
    .where(eq(ruleSets.shopId, shopId))
    .orderBy(asc(ruleSets.updatedAt));
  const [shop] = await db
    .select({ chosen: shops.ruleSetId })
    .from(shops)
    .where(eq(shops.id, shopId));
  const sets = [...shipped, ...own.map(ruleSetRecord)];
  const chosen = sets.find((set) => set.id === shop?.chosen);
  return { sets, defaultId: chosen?.id ?? defaultRuleSetId };
}

const UUID = /^[0-9a-f]{8}-([0-9a-f]{4}-){3}[0-9a-f]{12}$/i;

const ownById = new Statement<Row>(
  'rule-set-by-id',
  sql`
    select ${ruleSets.id} as id, ${ruleSets.revision} as revision, ${ruleSets.basedOn} as "basedOn", ${ruleSets.draft} as draft
    from ${ruleSets}
    where ${ruleSets.shopId} = ${sql.placeholder('shopId')} and ${ruleSets.id} = ${sql.placeholder('id')}`,
);

/** A rule set of a shop by its id, shipped or its own, or null. */
export async function findRuleSet(db: Db, shopId: string, id: string): Promise<RuleSet | null> {
  const ships = ruleSetById(id);
  if (ships) return ships;
  if (!UUID.test(id)) return null;
  const { rows } = await ownById.run(db, { shopId, id: id.toLowerCase() });
  return rows[0] ? ruleSetRecord(rows[0]) : null;
}
