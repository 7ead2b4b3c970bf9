import { createHmac } from 'node:crypto';
import pg from 'pg';
import { migrateDatabase, openDatabase } from './database';

/** What the server may do with each table beyond reading it and adding rows. Everything else it may not. */
const MAY: Readonly<Record<string, string>> = {
  shops: 'update',
  people: 'update',
  second_factors: 'update, delete',
  sessions: 'update, delete',
  tries: 'update, delete',
  units: 'update',
  rigs: 'update',
  rig_units: 'update',
  rule_sets: 'update',
  logs: 'update',
  log_units: 'update',
};

/** The role the server works under: one for each database, named after it. */
const roleOf = (database: string): string => `${database.slice(0, 50)}_app`;

/** The same on every server of an installation, without being written down anywhere. */
const passwordOf = (secret: string, role: string): string =>
  createHmac('sha256', secret).update(`database role ${role}`).digest('base64url');

/**
 * Brings a database up to this version as its owner, and gives the address under which the server works on it: as a role
 * of its own that reads and adds, changes only what is not evidence, and deletes nothing recorded.
 *
 * @param ownerUrl address with the owner's name and password
 * @param secret what the role's password is made from; the same on all servers of an installation
 * @param work what is done once as the owner, such as bringing older facts up
 * @param makesRole false where whoever runs the server made a role by hand: then there is no address to give
 * @throws Error in words where the owner may not make roles
 */
export async function prepareDatabase(
  ownerUrl: string,
  secret: string,
  work: (database: ReturnType<typeof openDatabase>) => Promise<void> = () => Promise.resolve(),
  makesRole = true,
): Promise<string> {
  const owner = openDatabase(ownerUrl, () => undefined);
  try {
    await migrateDatabase(owner);
    await work(owner);
    if (!makesRole) return ownerUrl;
    const { rows } = await owner.pool.query<{ name: string }>('select current_database() as name');
    const role = roleOf(rows[0]?.name ?? '');
    const password = passwordOf(secret, role);
    await makeRole(owner.pool, role, password);
    const url = new URL(ownerUrl);
    url.username = encodeURIComponent(role);
    url.password = password;
    return url.href;
  } finally {
    await owner.close();
  }
}

/** Guards the making of a role against two servers that start at once; any fixed number does. */
const ROLE_LOCK = 710_123;

async function makeRole(pool: pg.Pool, role: string, password: string): Promise<void> {
  const client = await pool.connect();
  const name = pg.escapeIdentifier(role);
  try {
    await client.query('begin');
    await client.query('select pg_advisory_xact_lock($1)', [ROLE_LOCK]);
    const { rowCount } = await client.query('select from pg_roles where rolname = $1', [role]);
    const rights = `login password ${pg.escapeLiteral(password)}`;
    await client.query(
      rowCount === 0 ? `create role ${name} ${rights}` : `alter role ${name} ${rights}`,
    );
    const { rows } = await client.query<{ name: string }>('select current_database() as name');
    await client.query(
      `grant connect on database ${pg.escapeIdentifier(rows[0]?.name ?? '')} to ${name}`,
    );
    // From nothing each time: a right that a version no longer needs is gone.
    await client.query(`revoke all on all tables in schema public from ${name}`);
    await client.query(`grant usage on schema public, drizzle to ${name}`);
    await client.query(`grant select, insert on all tables in schema public to ${name}`);
    await client.query(`grant select on all tables in schema drizzle to ${name}`);
    for (const [table, may] of Object.entries(MAY)) {
      await client.query(`grant ${may} on ${pg.escapeIdentifier(table)} to ${name}`);
    }
    await client.query('commit');
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    if ((error as { code?: unknown }).code !== '42501') throw error;
    throw new Error(
      'The login in DATABASE_URL may not make the role the server works under: give it CREATEROLE, or make a role by hand and give its address and the owner’s, as docs/RUNNING.md says.',
      { cause: error },
    );
  } finally {
    client.release();
  }
}
