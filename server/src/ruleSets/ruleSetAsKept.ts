import type { RuleSet, RuleSetDraft } from '@keen-bleed/contract';
import { ruleSetById } from '@keen-bleed/core';
import { sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../db/database';
import { ruleSetRevisions, type ruleSets } from '../db/schema';
import { Statement } from '../db/statement';
import { fieldError } from '../http/fieldError';
import { findRuleSet, ruleSetRecord } from './shopRuleSets';
import shippedBefore from './shippedBefore.json' with { type: 'json' };

/** A record's rule set as the shop kept it at the revision that is claimed; what was sent has to say the same. */
export async function ruleSetAsKept(
  db: Db,
  shopId: string,
  sent: RuleSet,
  field: string,
): Promise<RuleSet> {
  const current = await findRuleSet(db, shopId, sent.id);
  if (!current) throw fieldError(`${field}.id`, `There is no rule set "${sent.id}".`);
  if (sent.revision > current.revision) {
    throw fieldError(`${field}.revision`, `This rule set is at revision ${current.revision}.`);
  }
  const kept = shipped(sent) ?? (await revision(db, shopId, current, sent.revision));
  if (!kept || !isDeepStrictEqual(kept, sent)) {
    throw fieldError(
      field,
      `“${sent.title}” is not as the shop kept it at revision ${sent.revision}. Take the rule set as it stands now.`,
    );
  }
  return kept;
}

/** Earlier revisions of what ships: runs by them may still lie on a phone. */
const before = shippedBefore as unknown as readonly RuleSet[];

const shipped = ({ id, revision: wanted }: RuleSet): RuleSet | null => {
  const now = ruleSetById(id);
  if (!now || now.revision === wanted) return now;
  return before.find((set) => set.id === id && set.revision === wanted) ?? null;
};

const atRevision = new Statement<{ draft: RuleSetDraft }>(
  'rule-set-at-revision',
  sql`
    select ${ruleSetRevisions.draft} as draft
    from ${ruleSetRevisions}
    where ${ruleSetRevisions.shopId} = ${sql.placeholder('shopId')}
      and ${ruleSetRevisions.ruleSetId} = ${sql.placeholder('id')}
      and ${ruleSetRevisions.revision} = ${sql.placeholder('wanted')}`,
);

async function revision(
  db: Db,
  shopId: string,
  { id, basedOn }: RuleSet,
  wanted: number,
): Promise<RuleSet | null> {
  const {
    rows: [row],
  } = await atRevision.run(db, { shopId, id, wanted });
  return row && basedOn !== null
    ? ruleSetRecord({ id, revision: wanted, basedOn, draft: row.draft })
    : null;
}

/** A shop's own rule set as it was first made; null where there is none. */
export const firstRevision = (db: Db, shopId: string, set: RuleSet): Promise<RuleSet | null> =>
  revision(db, shopId, set, 1);

/** Keeps a rule set as it now stands, for the records that will be made by it. */
export async function keepRevision(
  tx: Db,
  personId: string,
  { shopId, id, revision: now, draft }: typeof ruleSets.$inferSelect,
): Promise<void> {
  await tx
    .insert(ruleSetRevisions)
    .values({ shopId, ruleSetId: id, revision: now, draft, personId });
}
