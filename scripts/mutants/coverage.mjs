import { existsSync, readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join, relative } from 'node:path';
import { run } from '../setup/run.mjs';
import { say, Trouble } from '../setup/say.mjs';

/** Which rooms' tests come past a room: those of its own, and of what is built on it. */
const TESTED_IN = { core: ['core', 'server', 'app'], server: ['server'], app: ['app'] };
/** Nothing can be learned where so many fail anyway. */
const MOST_FAILING = 0.1;

const linesOf = (file) =>
  readFileSync(file, 'utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));

/**
 * Runs every test once without a mutant.
 *
 * @param rooms whose tests alone are run; null for all that come past what is broken
 * @returns the test files: how long each takes, ms; what each of its tests comes past, and how long that takes; what is
 *   come past outside of a test; whether tests of it lean on hooks or on what stands in for a module
 * @throws Trouble where too many fail without any mutant
 */
export async function coverage({ home, tree, broken }, env, rooms) {
  const past = join(home, 'coverage.ndjson');
  const out = join(home, 'first.json');
  let trouble = null;
  await run(
    'npx',
    [
      '--no-install',
      'jest',
      '--selectProjects',
      ...(rooms ??
        new Set(broken.flatMap((file) => TESTED_IN[relative(tree, file).split('/')[0]]))),
      '--json',
      `--outputFile=${out}`,
      '--silent',
      `--maxWorkers=${cpus().length}`,
    ],
    {
      cwd: tree,
      env: { ...env, MUTANT_TASK: JSON.stringify({ kind: 'cover', out: past }) },
    },
  ).catch((error) => (trouble = error));
  if (!existsSync(out)) throw trouble ?? new Trouble('the first run left no result');
  const { testResults } = JSON.parse(readFileSync(out, 'utf8'));
  const failed = testResults.filter(({ status }) => status !== 'passed');
  // What fails with every switch off is told, and proves nothing about any mutant.
  for (const { name } of failed)
    say(`not used, it fails without a mutant: ${relative(tree, name)}`);
  if (failed.length > testResults.length * MOST_FAILING)
    throw new Trouble(`${failed.length} test files fail without a mutant: mend those first.`);
  const useless = new Set(failed.map(({ name }) => name));
  const tookMs = new Map(testResults.map((each) => [each.name, each.endTime - each.startTime]));
  const files = new Map();
  const fileOf = (name) => {
    if (!files.has(name)) files.set(name, { name, tookMs: tookMs.get(name), tests: [] });
    return files.get(name);
  };
  for (const { file, test, ms, ids, statics, hasHooks } of linesOf(past)) {
    if (useless.has(file)) continue;
    if (test === undefined) Object.assign(fileOf(file), { statics: new Set(statics), hasHooks });
    else fileOf(file).tests.push({ name: test, ms, ids: new Set(ids) });
  }
  return [...files.values()].filter(({ statics }) => statics !== undefined);
}
