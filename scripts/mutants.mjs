/*
 * Breaks the code in small ways, one at a time, and sees whether a test fails: `npm run mutants`, or
 * `npm run mutants -- --count 300 --seed 7 --minutes 40 --only core/src/leak --tests core`.
 *
 * Mutants come from Stryker's instrumenter: core without the twin and the gas, the server's rules and queries, the app's
 * store. As many as asked for are drawn by the seed that is printed. Each is tried against the test files that run its
 * line, soonest first, until one fails. What lives on is listed with what was tried; docs/MUTANTS.md says what it means.
 * `-- --again FILE` tries those once more that lived in an earlier run, by its results.
 */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { coverage } from './mutants/coverage.mjs';
import { drawMutants } from './mutants/draw.mjs';
import { report } from './mutants/report.mjs';
import { makeSandbox } from './mutants/sandbox.mjs';
import { tryMutants } from './mutants/trial.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { ensureValidators } from './setup/webBuild.mjs';

const MOST = 1_500;

const { values: options } = parseArgs({
  options: {
    count: { type: 'string', default: String(MOST) },
    seed: { type: 'string', default: String(Math.floor(Date.now() / 1000)) },
    minutes: { type: 'string', default: '120' },
    only: { type: 'string', default: '' },
    tests: { type: 'string' },
    again: { type: 'string' },
    out: { type: 'string', default: join(tmpdir(), 'mutants.json') },
  },
});

await runMain(async () => {
  const startedMs = Date.now();
  const untilMs = startedMs + Number(options.minutes) * 60_000;
  requireNode();
  await ensureNodeModules();
  await ensureValidators();
  const count = Math.min(MOST, Number(options.count));
  if (!(count > 0) || !Number.isInteger(Number(options.seed)))
    throw new Trouble('--count is a number from 1 to 1500, --seed a whole number.');

  const { drawn, files, of } = await drawMutants({
    count,
    seed: Number(options.seed),
    only: options.only,
    again: options.again ? JSON.parse(readFileSync(options.again, 'utf8')) : null,
  });
  say(
    options.again
      ? `${drawn.length} mutants that lived in ${options.again}`
      : `${drawn.length} of ${of} mutants drawn with seed ${options.seed}`,
  );
  const sandbox = await makeSandbox(files);
  const home = mkdtempSync(join(tmpdir(), 'keen-bleed-mutants-db-'));
  const postgres = await startPostgres({ home, throwaway: true });
  try {
    const env = { ...process.env, TEST_DATABASE_URL: postgres.url, TZ: 'UTC' };
    const testFiles = await coverage(sandbox, env, options.tests?.split(',') ?? null);
    say('which tests come past which is known');
    const keep = (results) => writeFileSync(options.out, JSON.stringify(results, null, 1));
    const onSome = (results) => {
      keep(results);
      const settled = results.filter(({ state }) => state !== 'untried');
      const killed = settled.filter(({ state }) => state === 'killed').length;
      say(`${settled.length} of ${drawn.length} settled, ${killed} killed`);
    };
    const results = await tryMutants({ drawn, testFiles, sandbox, env, untilMs, onSome });
    keep(results);
    report(results, say);
    say(`Every result is in ${options.out}; ${Math.round((Date.now() - startedMs) / 60_000)} min.`);
  } finally {
    await postgres.stop();
    rmSync(home, { recursive: true, force: true });
    sandbox.remove();
  }
});
