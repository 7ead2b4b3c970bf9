import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { postgresPrograms } from './packages.mjs';

/**
 * An address as PostgreSQL's programs are given it: the password goes by the environment, which others on the machine
 * cannot read as they can a command line.
 */
export function addressFor(url) {
  const address = new URL(url);
  const password = decodeURIComponent(address.password);
  address.password = '';
  const env = { ...process.env, ...(password === '' ? {} : { PGPASSWORD: password }) };
  return { address: address.href, env };
}

/** A session of psql that is fed statements, and that ends by itself at the first one that fails. */
export function openPsql(url) {
  const { address, env } = addressFor(url);
  const psql = spawn(
    join(postgresPrograms(), 'psql'),
    ['--quiet', '--no-psqlrc', '-At', '-v', 'ON_ERROR_STOP=1', '-v', 'FETCH_COUNT=500', address],
    { stdio: ['pipe', 'pipe', 'inherit'], env },
  );
  psql.stdin.on('error', () => undefined);
  return {
    stdin: psql.stdin,
    lines: createInterface({ input: psql.stdout }),
    /** Its exit code, once all it printed has been read. */
    ended: new Promise((done, failed) => {
      psql.once('error', failed);
      psql.once('close', (code) => done(code));
    }),
  };
}
