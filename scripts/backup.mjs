/*
 * Keeps everything recorded in one file: `npm run backup`, or `npm run backup -- FILE`. Works while Keen Bleed runs: what
 * is kept is one moment, whole. Photos are in it; secrets of the installation are not. The file says what it holds.
 */
import { spawn } from 'node:child_process';
import {
  closeSync,
  createWriteStream,
  fsyncSync,
  mkdirSync,
  openSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { begin, closing, sealing } from './setup/backupFile.mjs';
import { dataFolder } from './setup/dataFolder.mjs';
import { ASK, readHolding } from './setup/holding.mjs';
import { postgresPrograms } from './setup/packages.mjs';
import { addressFor, openPsql } from './setup/psql.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { withDatabaseUrl } from './setup/withDatabase.mjs';

const failed = () => new Trouble('The backup could not be made: nothing was kept.');

/** Writes the archive of one moment, and what there was in it. */
async function keep(url, file) {
  const psql = openPsql(url);
  try {
    return await written(url, file, psql);
  } finally {
    // Where it failed, psql still waits for a word, and this command for psql.
    psql.stdin.destroy();
  }
}

async function written(url, file, psql) {
  // The archive and the list are of the same moment.
  psql.stdin.write(
    'begin isolation level repeatable read, read only;\nselect pg_catalog.pg_export_snapshot();\n',
  );
  const lines = psql.lines[Symbol.asyncIterator]();
  const moment = (await lines.next()).value;
  if (!moment) throw failed();
  const { address, env } = addressFor(url);
  const dump = spawn(
    join(postgresPrograms(), 'pg_dump'),
    // Who owns what and who may what is made anew at the next start.
    ['--format=custom', '--no-owner', '--no-privileges', `--snapshot=${moment}`, address],
    { stdio: ['ignore', 'pipe', 'inherit'], env },
  );
  const dumped = new Promise((done) => {
    dump.once('error', () => done(1));
    dump.once('close', done);
  });
  const out = createWriteStream(file, { mode: 0o600 });
  out.write(begin());
  const { through, seal } = sealing();
  await pipeline(dump.stdout, through, out, { end: false });
  if ((await dumped) !== 0) throw failed();
  psql.stdin.end(`${ASK}commit;\n`);
  const holding = await readHolding({ [Symbol.asyncIterator]: () => lines });
  if (!holding || (await psql.ended) !== 0) throw failed();
  await new Promise((done, wrong) => {
    out.once('error', wrong);
    out.end(closing({ madeAt: new Date().toISOString(), ...seal(), ...holding }), done);
  });
  return holding;
}

await runMain(async () => {
  const day = new Date().toISOString().replace(/[:.]/g, '-').slice(0, 23);
  const file = resolve(
    process.argv[2] ?? join(dataFolder(), 'backups', `keen-bleed-${day}.backup`),
  );
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const half = `${file}.half`;
  let holding;
  try {
    holding = await withDatabaseUrl((url) => keep(url, half));
  } catch (error) {
    rmSync(half, { force: true });
    throw error;
  }
  // Under its name it is whole, and on the disk.
  const open = openSync(half, 'r+');
  fsyncSync(open);
  closeSync(open);
  renameSync(half, file);
  say(`kept in ${file} (${Math.ceil(statSync(file).size / 1024)} kB, ${holding.records} records)`);
  if (holding.wrong.length > 0)
    say(`${holding.wrong.length} of them are not what was recorded: npm run verify`);
  say('keep a copy on another machine; `npm run restore -- FILE` brings it back');
});
