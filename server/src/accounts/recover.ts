import { and, asc, eq, sql } from 'drizzle-orm';
import { randomInt } from 'node:crypto';
import { keepAudit } from '../audit/keepAudit';
import { LocalBus, wordFrom } from '../bus/bus';
import type { Database, Db } from '../db/database';
import { people, shops } from '../db/schema';
import { hashPassword } from './password';
import { dropFactor } from './secondFactor';
import { endSessionsOf } from './session';

/* Letters and digits that are not taken for each other on paper; five groups of four of them are 98 bits. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const GROUPS = 5;

const newPassword = () =>
  Array.from({ length: GROUPS }, () =>
    Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join(''),
  ).join('-');

const known = (db: Db) =>
  db
    .select({
      shopId: people.shopId,
      personId: people.id,
      name: people.name,
      signInName: people.signInName,
      shopName: shops.name,
    })
    .from(people)
    .innerJoin(shops, eq(shops.id, people.shopId));

/** The leads of every shop of an installation. */
export const leadsOf = (db: Db) =>
  known(db).where(eq(people.role, 'lead')).orderBy(asc(shops.name), asc(people.name));

/** What came of a recovery: how they sign in now, or why nothing was done. */
export type Recovered =
  { name: string; shopName: string; signInName: string; password: string } | { trouble: string };

/**
 * Makes somebody a lead who can sign in, whatever was lost: at the console of the server alone, by whoever holds the
 * database's own password. Codes are turned off, all devices signed out, and the audit trail says so.
 *
 * @param signInName whose
 * @param shop the shop's name, where several shops know that name
 */
export async function recoverLead(
  { db, pool }: Database,
  signInName: string,
  shop?: string,
): Promise<Recovered> {
  const found = await known(db).where(
    and(
      sql`lower(${people.signInName}) = lower(${signInName})`,
      shop === undefined ? undefined : sql`lower(${shops.name}) = lower(${shop})`,
    ),
  );
  const [who] = found;
  if (!who) return { trouble: `Nobody signs in as “${signInName}”.` };
  if (found.length > 1) {
    const names = found.map(({ shopName }) => shopName).join(', ');
    return { trouble: `“${signInName}” is known in ${names}: give the shop’s name, too.` };
  }
  const password = newPassword();
  const passwordHash = await hashPassword(password);
  await db.transaction(async (tx) => {
    await tx
      .update(people)
      .set({ passwordHash, role: 'lead', active: true })
      .where(and(eq(people.shopId, who.shopId), eq(people.id, who.personId)));
    await dropFactor(tx, who);
    await keepAudit(
      tx,
      { me: { shopId: who.shopId, personId: null, name: 'the server’s console' } },
      'recovered',
      `${who.name}: lead, new password, codes turned off`,
    );
  });
  await endSessionsOf(db, new LocalBus(), who.shopId, who.personId);
  // Servers that run hear it and end the streams, too.
  await pool.query(
    ...wordFrom('console', 'rights', { shopId: who.shopId, personId: who.personId }),
  );
  return { name: who.name, shopName: who.shopName, signInName: who.signInName, password };
}
