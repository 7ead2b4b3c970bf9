/*
 * Brings a backup back: `npm run restore -- FILE`. Everything is replaced by what the file holds, in one step: all of it,
 * or, where anything fails, nothing. What is there now is kept in a backup of its own first.
 */
import { spawn } from 'node:child_process';
import { createReadStream, existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { pipeline } from 'node:stream/promises';
import { readBackup } from './setup/backupFile.mjs';
import { dataFolder } from './setup/dataFolder.mjs';
import { ASK, differences, readHolding } from './setup/holding.mjs';
import { postgresPrograms } from './setup/packages.mjs';
import { isAlive } from './setup/postgres.mjs';
import { openPsql } from './setup/psql.mjs';
import { run } from './setup/run.mjs';
import { ENDED, runMain, say, Trouble } from './setup/say.mjs';
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

const CLEAR =
  'set client_min_messages = warning; begin; drop schema if exists public cascade; drop schema if exists drizzle cascade; ' +
  'create schema public authorization pg_database_owner; grant usage on schema public to public;\n';

const unchanged = (why, code = ENDED.failed) =>
  new Trouble(`The backup could not be brought back${why}: nothing was changed.`, code);

/**
 * Puts what the file holds in the place of what is there, as one step: what came is held against the file's own list
 * before that step counts. Whatever is cut off on the way ends without it.
 */
async function replace(url, file, { from, bytes, list }) {
  const restore = spawn(
    join(postgresPrograms(), 'pg_restore'),
    ['--no-owner', '--no-privileges', '--file=-'],
    { stdio: ['pipe', 'pipe', 'inherit'] },
  );
  const restored = new Promise((done) => {
    restore.once('error', () => done(1));
    restore.once('close', done);
  });
  const psql = openPsql(url);
  try {
    return await swapped(file, { from, bytes, list }, { restore, restored, psql });
  } finally {
    // Without its commit psql ends with everything as it was; left open, this command would not end.
    psql.stdin.destroy();
    restore.kill();
  }
}

async function swapped(file, { from, bytes, list }, { restore, restored, psql }) {
  psql.stdin.write(`\\o /dev/null\n${CLEAR}`);
  const archive = createReadStream(file, { start: from, end: from + bytes - 1 });
  // It may leave the archive's last bytes unread; its exit code says whether it had all it needed.
  const read = pipeline(archive, restore.stdin).catch(() => undefined);
  const whole = await pipeline(restore.stdout, psql.stdin, { end: false }).then(
    () => true,
    () => false,
  );
  const code = await restored;
  await read;
  if (!whole || code !== 0) {
    psql.stdin.destroy();
    await psql.ended;
    throw unchanged('');
  }
  psql.stdin.write(`\\o\n${ASK}`);
  const found = await readHolding(psql.lines);
  const wrong = !found ? ['not all of it was taken'] : list ? differences(list, found) : [];
  if (wrong.length > 0) {
    psql.stdin.end('rollback;\n');
    await psql.ended;
    throw unchanged(`, ${wrong.slice(0, 5).join('; ')}`, ENDED.wrong);
  }
  psql.stdin.end('commit;\n');
  if ((await psql.ended) !== 0) throw unchanged('');
  if (!list) say('a backup of an earlier version: it carries no list to be held against');
  return found;
}

await runMain(async () => {
  const file = process.argv[2] ? resolve(process.argv[2]) : null;
  if (!file) throw new Trouble('Name the backup: npm run restore -- FILE', ENDED.asked);
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`, ENDED.asked);
  const backup = await readBackup(file);
  if (!backup) {
    throw new Trouble(`${file} is no backup, or is not whole: nothing was changed.`, ENDED.wrong);
  }
  if (isRunning()) {
    throw new Trouble('Keen Bleed is running: stop it with Ctrl-C first.', ENDED.busy);
  }
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
  const found = await withDatabaseUrl((url) => replace(url, file, backup));
  say(`brought back: ${found.tables['public.shops'] ?? 0} shop(s), ${found.records} records`);
  if (found.wrong.length > 0)
    say(`${found.wrong.length} of them are not what was recorded: npm run verify`);
});
