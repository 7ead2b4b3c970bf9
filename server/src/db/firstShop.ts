import { sql } from 'drizzle-orm';
import type { Db } from './database';
import { shops } from './schema';

/** Guards the making of the first shop against two requests, or two servers, at once; any fixed number does. */
const FIRST_SHOP_LOCK = 710_121;

/** Whether there is a shop already. */
export async function anyShop(db: Pick<Db, 'select'>): Promise<boolean> {
  const rows = await db.select({ id: shops.id }).from(shops).limit(1);
  return rows.length > 0;
}

/**
 * Whether a transaction may make the first shop. Whoever asks at the same time waits until it has, and is then told that
 * there is one.
 */
export async function mayMakeFirstShop(tx: Pick<Db, 'select' | 'execute'>): Promise<boolean> {
  await tx.execute(sql`select pg_advisory_xact_lock(${FIRST_SHOP_LOCK})`);
  return !(await anyShop(tx));
}
