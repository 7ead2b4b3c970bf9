import type { AuditedAct } from '@keen-bleed/contract';
import type { Request } from 'express';
import { v7 as uuidv7 } from 'uuid';
import type { Db } from '../db/database';
import { audit } from '../db/schema';

/** Longest text that is kept of whom or what something was done to. */
const MOST_LETTERS = 200;

/** Who did something, and from where. */
export interface Doer {
  me: { shopId: string; personId: string | null; name: string };
  request?: Pick<Request, 'ip'>;
}

/**
 * Keeps that something was done. Inside the transaction that does it, so that neither is there without the other.
 *
 * @param about whom or what it was done to, in words
 */
export async function keepAudit(
  db: Pick<Db, 'insert'>,
  { me, request }: Doer,
  what: AuditedAct,
  about: string,
): Promise<void> {
  await db.insert(audit).values({
    shopId: me.shopId,
    id: uuidv7(),
    personId: me.personId,
    by: me.name,
    what,
    about: about.slice(0, MOST_LETTERS),
    address: request?.ip ?? '',
  });
}
