import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { readMigrationFiles } from 'drizzle-orm/migrator';
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
  return { pool, db: overPool(pool), close: () => pool.end() };
}

/**
 * The typed handle, with transactions that give their connection back whatever happens. The library's own keeps one that
 * breaks as its transaction begins: a database that restarts under load would leave the pool empty for good.
 */
function overPool(pool: pg.Pool): Db {
  const db: Db = drizzle(pool, { schema });
  const handles = new WeakMap<pg.PoolClient, Db>();
  const over = (client: pg.PoolClient): Db => {
    const handle = handles.get(client) ?? drizzle(client, { schema });
    handles.set(client, handle);
    return handle;
  };
  db.transaction = async (work, config) => {
    const client = await pool.connect();
    try {
      return await over(client).transaction(work, config);
    } finally {
      client.release();
    }
  };
  return db;
}

/** Guards the bringing up of one database against two servers that start at once; any fixed number does. */
const MIGRATION_LOCK = 710_122;
const FOLDER = join(dirname(fileURLToPath(import.meta.url)), '../../drizzle');

/** How a database's tables stand to this version of the server. */
export type SchemaStanding = 'as it should be' | 'older' | 'newer';

/** Whether the tables are those of this version: by the newest migration that was made on them. */
export async function schemaStanding({ pool }: Pick<Database, 'pool'>): Promise<SchemaStanding> {
  const files = readMigrationFiles({ migrationsFolder: FOLDER });
  const known = Math.max(...files.map(({ folderMillis }) => folderMillis));
  const { rows: ledger } = await pool.query<{ there: string | null }>(
    `select to_regclass('drizzle.__drizzle_migrations')::text as there`,
  );
  if (ledger[0]?.there === null) return 'older';
  const { rows } = await pool.query<{ newest: string | null }>(
    'select max(created_at)::text as newest from drizzle.__drizzle_migrations',
  );
  const newest = Number(rows[0]?.newest ?? 0);
  return newest > known ? 'newer' : newest < known ? 'older' : 'as it should be';
}

/**
 * Brings the tables to the newest migration; running it again changes nothing, and two servers that start at once take
 * turns.
 *
 * @throws Error in words where the tables are of a newer version: going on would harm them
 */
export async function migrateDatabase(database: Database): Promise<void> {
  const client = await database.pool.connect();
  try {
    // Held by this connection until it is let go; a server that dies lets it go, too.
    await client.query('set statement_timeout = 0');
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    if ((await schemaStanding(database)) === 'newer') {
      throw new Error(
        'This database was used by a newer version of Keen Bleed. Start that version, or restore a backup made before it.',
      );
    }
    await migrate(database.db, { migrationsFolder: FOLDER });
  } finally {
    await client.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]).catch(() => undefined);
    await client.query(`set statement_timeout = ${STATEMENT_TIMEOUT_MS}`).catch(() => undefined);
    client.release();
  }
}
