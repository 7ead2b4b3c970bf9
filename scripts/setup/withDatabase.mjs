import { createRequire } from 'node:module';
import { existsSync, readFileSync } from 'node:fs';
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
  const home = join(dataFolder(), 'database');
  const pidFile = join(home, 'pg/postmaster.pid');
  const ranAlready = existsSync(pidFile) && isUp(pidFile);
  const postgres = await startPostgres({ home });
  try {
    return await work(postgres.url);
  } finally {
    if (!ranAlready) await postgres.stop();
  }
}

/** Whether the process a server's file names is there. */
function isUp(pidFile) {
  try {
    process.kill(Number(readFileSync(pidFile, 'utf8').split('\n')[0]), 0);
    return true;
  } catch {
    return false;
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
