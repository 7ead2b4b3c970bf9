import { createRequire } from 'node:module';
import { join } from 'node:path';
import { dataFolder } from './dataFolder.mjs';
import { startPostgres } from './postgres.mjs';
import { root } from './root.mjs';

/**
 * Where this installation's database is: the one of DATABASE_URL, or our own, which is started for as long as it is
 * needed where it does not run.
 *
 * @param work given the address with its owner's rights
 */
export async function withDatabaseUrl(work) {
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL);
  // A database that runs already is Keen Bleed's own, or another command's: it is asked, and never signalled.
  const postgres = await startPostgres({ home: join(dataFolder(), 'database'), mayEnd: false });
  try {
    return await work(postgres.url);
  } finally {
    if (postgres.isOurs) await postgres.stop();
  }
}

/** Works on this installation's database by a connection of the tables' owner. */
export function withDatabase(work) {
  return withDatabaseUrl(async (url) => {
    const pg = createRequire(join(root, 'server/package.json'))('pg');
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    try {
      return await work(client);
    } finally {
      await client.end();
    }
  });
}
