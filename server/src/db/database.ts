import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import pg from 'pg';
import * as schema from './schema';

export type Db = NodePgDatabase<typeof schema>;

/** An open pool and the typed handle over it. */
export interface Database {
  pool: pg.Pool;
  db: Db;
  close: () => Promise<void>;
}

/** A database that is not there refuses at once; this long a wait is for one on a busy machine. */
const CONNECT_TIMEOUT_MS = 10_000;
const STATEMENT_TIMEOUT_MS = 15_000;
const POOL_SIZE = 12;

/**
 * Opens a pool. It connects at the first query, and again by itself after the database was away.
 *
 * @param url a PostgreSQL connection URL
 * @param onIdleError told when an idle connection breaks, which is no failure of any request
 */
export function openDatabase(url: string, onIdleError: (error: Error) => void): Database {
  const pool = new pg.Pool({
    connectionString: url,
    max: POOL_SIZE,
    connectionTimeoutMillis: CONNECT_TIMEOUT_MS,
    statement_timeout: STATEMENT_TIMEOUT_MS,
  });
  pool.on('error', onIdleError);
  // A client that is out on a transaction has no listener of the pool's: its connection's end would end the server.
  pool.on('connect', (client) => client.on('error', onIdleError));
  return { pool, db: drizzle(pool, { schema }), close: () => pool.end() };
}

/** Brings the tables to the newest migration; running it again changes nothing. */
export async function migrateDatabase({ db }: Database): Promise<void> {
  const folder = join(dirname(fileURLToPath(import.meta.url)), '../../drizzle');
  await migrate(db, { migrationsFolder: folder });
}
