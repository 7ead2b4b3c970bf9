/* The checks, one stage after the other, and one summary. With `--all` every check there is, and nothing taken from an
   earlier time; with `--quick` only the unit tests that are quick. */
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { dataFolder } from './setup/dataFolder.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { run } from './setup/run.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { keptTo, leftOut, sizeAsked } from './setup/testSizes.mjs';
import { ensureValidators, ensureWebBuild } from './setup/webBuild.mjs';

/** Characters of a failure that are printed. */
const MOST_SAID = 1_500;

const size = sizeAsked(process.argv);
const quick = size === 'quick';
const SAID = { quick: 'the quick tests', usual: 'the checks', all: 'every check' };
const results = [];

/** Runs one stage; a failure is kept for the summary and the rest goes on. Two may run beside each other. */
async function stage(name, work) {
  const startedMs = Date.now();
  const result = { name, passed: 0, failed: 0, ok: true };
  try {
    Object.assign(result, (await work()) ?? { passed: 1 });
    result.ok = result.failed === 0;
    const seconds = ((Date.now() - startedMs) / 1000).toFixed(0);
    say(`${name} … ${result.ok ? 'ok' : 'FAILED'} (${seconds} s)`);
  } catch (error) {
    Object.assign(result, { failed: Math.max(1, result.failed), ok: false });
    say(`${name} … FAILED`);
    console.error(error instanceof Trouble ? `\n  ${error.message}\n` : error);
  }
  results.push(result);
}

/** What a look found of a file that has not changed since is taken again, but where everything is asked for. */
const keptIn = (name) => join(root, 'node_modules/.cache/checks', name);
const again = (args) => (size === 'all' ? [] : args);

const npx = (...args) => run('npx', ['--no-install', ...args], { cwd: root });

async function jest(projects, env = {}, workers = 1) {
  const out = join(scratch, `jest-${projects.join('-')}.json`);
  const args = [
    '--selectProjects',
    ...projects,
    '--json',
    `--outputFile=${out}`,
    '--testLocationInResults',
    `--maxWorkers=${workers}`,
    '--silent',
    ...leftOut(size),
  ];
  let trouble = null;
  await run('npx', ['--no-install', 'jest', ...args], {
    cwd: root,
    env: { ...process.env, ...env },
  }).catch((error) => (trouble = error));
  if (!existsSync(out)) throw trouble ?? new Trouble('the tests left no result');
  const {
    numPassedTests: passed,
    numFailedTests,
    numRuntimeErrorTestSuites,
    testResults,
  } = JSON.parse(readFileSync(out, 'utf8'));
  for (const file of testResults.filter((each) => each.status === 'failed')) {
    console.error(`\n${file.message}`);
  }
  return { passed, failed: numFailedTests + numRuntimeErrorTestSuites };
}

/** The browser tests that failed, each with its own words: a summary that is cut short helps nobody. */
function failuresIn(suites) {
  const inside = (suite) => [
    ...(suite.specs ?? []).flatMap(({ title, file, tests }) =>
      tests.flatMap(({ results, projectName }) =>
        results
          .filter(({ status }) => status !== 'passed' && status !== 'skipped')
          .map(({ errors }) => ({
            title: `${title} (${projectName})`,
            file,
            error: errors.map(({ message }) => String(message).slice(0, MOST_SAID)).join('\n'),
          })),
      ),
    ),
    ...(suite.suites ?? []).flatMap(inside),
  ];
  return suites.flatMap(inside);
}

async function browser(env) {
  const out = join(scratch, 'browser.json');
  let trouble = null;
  await run('npx', ['--no-install', 'playwright', 'test', ...keptTo(size)], {
    cwd: join(root, 'e2e'),
    env: { ...process.env, ...env, PLAYWRIGHT_JSON_OUTPUT_NAME: out },
  }).catch((error) => (trouble = error));
  if (!existsSync(out)) throw trouble ?? new Trouble('the browser tests left no result');
  const { stats, suites, errors } = JSON.parse(readFileSync(out, 'utf8'));
  if (trouble && errors.length > 0) console.error(`\n  ${trouble.message}`);
  for (const { title, file, error } of failuresIn(suites)) {
    console.error(`\n  ${file}: ${title}\n${error}`);
  }
  if (stats.expected === 0) throw new Trouble('no browser test was run');
  return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
}

const scratch = mkdtempSync(join(tmpdir(), 'keen-bleed-test-'));
await runMain(async () => {
  console.log(`\nKeen Bleed: ${SAID[size]}`);
  const startedMs = Date.now();
  requireNode();
  if (!quick) await ensurePackages({ browser: true });
  await ensureNodeModules();
  await ensureValidators();

  // Each of these keeps one core busy: on a machine of two they go side by side.
  const looks = async () => {
    await stage('format', () =>
      npx(
        ...['prettier', '--check', '--log-level', 'warn', '.'],
        ...again(['--cache', '--cache-location', keptIn('prettier')]),
      ).then(() => null),
    );
    await stage('lint', () =>
      npx(
        ...['eslint', '.', '--max-warnings', '0'],
        ...again(['--cache', '--cache-strategy', 'content', '--cache-location', keptIn('eslint')]),
      ).then(() => null),
    );
  };
  const types = async () => {
    for (const room of ['contract', 'core', 'server', 'app', 'e2e']) {
      await stage(`types of ${room}`, () =>
        npx(
          ...['tsc', '-p', room],
          ...again(['--incremental', '--tsBuildInfoFile', keptIn(`${room}.tsbuildinfo`)]),
        ).then(() => null),
      );
    }
    await stage('arrows between rooms', () =>
      npx(
        'depcruise',
        'contract',
        'core',
        'server',
        'app',
        'e2e',
        '--config',
        '.dependency-cruiser.cjs',
      ).then(() => null),
    );
    await stage('arrows between folders', () =>
      npx(
        'depcruise',
        'contract',
        'core',
        'server',
        'app',
        '--config',
        '.dependency-folders.cjs',
      ).then(() => null),
    );
  };
  if (!quick) await Promise.all([looks(), types()]);
  const units = () =>
    stage('unit tests', () => jest(['contract', 'core', 'app'], {}, quick ? 2 : 1));
  if (quick) await units();

  if (!quick) {
    const home = join(dataFolder(), `test-${process.pid}`);
    let postgres = null;
    try {
      postgres = await startPostgres({ home, throwaway: true });
      let webFolder = null;
      const database = { TEST_DATABASE_URL: postgres.url };
      await Promise.all([
        (async () => {
          await stage('server tests', () => jest(['server'], database));
          // The outbox's storm drives the app's store against the real server.
          await stage('outbox in a storm', () => jest(['e2e'], database));
        })(),
        (async () => {
          await stage('web build', async () => {
            webFolder = await ensureWebBuild();
          });
          await units();
        })(),
      ]);
      if (webFolder) {
        await stage('browser tests', () =>
          browser({ TEST_DATABASE_URL: postgres.url, WEB_FOLDER: webFolder }),
        );
      }
    } finally {
      await postgres?.stop();
      rmSync(home, { recursive: true, force: true });
    }
  }

  rmSync(scratch, { recursive: true, force: true });
  const total = (key) => results.reduce((sum, result) => sum + result[key], 0);
  console.log('');
  for (const { name, passed, failed, ok } of results) {
    const counts =
      passed + failed > 1
        ? `${passed} passed${failed ? `, ${failed} failed` : ''}`
        : ok
          ? 'ok'
          : 'failed';
    console.log(`  ${ok ? ' ' : '!'} ${name.padEnd(24)} ${counts}`);
  }
  say(`in ${((Date.now() - startedMs) / 1000).toFixed(0)} s`);
  console.log(`\n${total('passed')} passed, ${total('failed')} failed`);
  if (results.some((result) => !result.ok)) process.exitCode = 1;
});
