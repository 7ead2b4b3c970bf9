/*
 * Brings a backup back: `npm run restore -- FILE`. Everything is replaced by what the file holds, in one step: all of it,
 * or, where anything fails, nothing. What is there now is kept in a backup of its own first.
 */
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { dataFolder } from './setup/dataFolder.mjs';
import { postgresPrograms } from './setup/packages.mjs';
import { isAlive } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { withDatabase, withDatabaseUrl } from './setup/withDatabase.mjs';

/** Whether Keen Bleed runs from this folder, by what its start noted. */
function isRunning() {
  const file = join(dataFolder(), 'running.json');
  if (process.env.DATABASE_URL || !existsSync(file)) return false;
  try {
    return isAlive(JSON.parse(readFileSync(file, 'utf8')).pid);
  } catch {
    return false;
  }
}

/** How many shops there are; null where there are no tables yet. */
const countShops = () =>
  withDatabase(async (client) => {
    const { rows } = await client.query("select to_regclass('public.shops') as there");
    if (rows[0].there === null) return null;
    return (await client.query('select count(*)::int as n from shops')).rows[0].n;
  });

/** Runs the file's statements as one. */
function replace(url, file) {
  const restore = spawn(
    join(postgresPrograms(), 'pg_restore'),
    ['--no-owner', '--no-privileges', '--file=-', file],
    { stdio: ['ignore', 'pipe', 'inherit'] },
  );
  const psql = spawn(
    join(postgresPrograms(), 'psql'),
    [
      '--quiet',
      '--no-psqlrc',
      '--single-transaction',
      '-v',
      'ON_ERROR_STOP=1',
      '-o',
      '/dev/null',
      url,
    ],
    { stdio: ['pipe', 'ignore', 'inherit'] },
  );
  psql.stdin.write(
    'set client_min_messages = warning; drop schema if exists public cascade; drop schema if exists drizzle cascade; ' +
      'create schema public authorization pg_database_owner; grant usage on schema public to public;\n',
  );
  restore.stdout.pipe(psql.stdin, { end: false });
  return new Promise((done, failed) => {
    let restored = null;
    restore.once('exit', (code) => {
      restored = code;
      // Without its end the statements are not made to count.
      if (code === 0) psql.stdin.end();
      else psql.kill();
    });
    psql.stdin.on('error', () => undefined);
    psql.once('exit', (code) =>
      code === 0 && restored === 0
        ? done()
        : failed(new Trouble('The backup could not be brought back: nothing was changed.')),
    );
  });
}

await runMain(async () => {
  const file = process.argv[2] ? resolve(process.argv[2]) : null;
  if (!file) throw new Trouble('Name the backup: npm run restore -- FILE');
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`);
  try {
    execFileSync(join(postgresPrograms(), 'pg_restore'), ['--list', file], { stdio: 'ignore' });
  } catch {
    throw new Trouble(`${file} is no backup, or is not whole: nothing was changed.`);
  }
  if (isRunning()) throw new Trouble('Keen Bleed is running: stop it with Ctrl-C first.');
  const shops = await countShops();
  if (shops) {
    if (!process.argv.includes('--yes')) {
      const ask = createInterface({ input: process.stdin, output: process.stdout });
      const answer = await ask.question(
        '  Everything recorded since that backup will be replaced. Type "replace" to go on: ',
      );
      ask.close();
      if (answer.trim() !== 'replace') {
        say('nothing was changed');
        return;
      }
    }
    say('keeping what is there now');
    await run(process.execPath, [join(import.meta.dirname, 'backup.mjs')], { show: true });
  }
  await withDatabaseUrl((url) => replace(url, file));
  say(
    `brought back: ${await countShops()} shop(s); ` +
      '`npm run verify` holds every record to its chain',
  );
});
