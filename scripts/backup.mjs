/*
 * Keeps everything recorded in one file: `npm run backup`, or `npm run backup -- FILE`. Works while Keen Bleed runs: what
 * is kept is one moment, whole. Photos are in it; secrets of the installation are not.
 */
import { chmodSync, mkdirSync, renameSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { dataFolder } from './setup/dataFolder.mjs';
import { postgresPrograms } from './setup/packages.mjs';
import { run } from './setup/run.mjs';
import { runMain, say } from './setup/say.mjs';
import { withDatabaseUrl } from './setup/withDatabase.mjs';

await runMain(async () => {
  const day = new Date().toISOString().replace(/[:.]/g, '-').slice(0, 23);
  const file = resolve(
    process.argv[2] ?? join(dataFolder(), 'backups', `keen-bleed-${day}.backup`),
  );
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  const half = `${file}.half`;
  await withDatabaseUrl((url) =>
    // Who owns what and who may what is made anew at the next start.
    run(join(postgresPrograms(), 'pg_dump'), [
      ...['--format=custom', '--no-owner', '--no-privileges', `--file=${half}`],
      url,
    ]),
  );
  chmodSync(half, 0o600);
  // Under its name it is whole.
  renameSync(half, file);
  say(`kept in ${file} (${Math.ceil(statSync(file).size / 1024)} kB)`);
  say('keep a copy on another machine; `npm run restore -- FILE` brings it back');
});
