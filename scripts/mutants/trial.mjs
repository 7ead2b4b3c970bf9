import { fork } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from '../setup/run.mjs';
import { say, Trouble } from '../setup/say.mjs';

const WORKER = fileURLToPath(new URL('worker.mjs', import.meta.url));
const PROJECTS = ['core', 'server', 'app', 'contract'];
/** A file that takes so many times as long as it did is in an endless loop: that is seen, too. */
const TOO_LONG = 4;
const GRACE_MS = 20_000;
/** A survivor is tried against so much of its tests, soonest first, and no further. */
const MOST_MS = 40_000;
/** What is printed in a thread of its own, where the first run does not look: these tests come past all of it. */
const IN_THREADS = {
  folder: 'server/src/report/',
  tests: ['report/report', 'jobs/jobs', 'log/visit'].map((name) => `server/src/${name}.test.ts`),
};
/** Jest keeps a little of every run. */
const RUNS_A_WORKER = 60;

/**
 * Runs every test once without a mutant.
 *
 * @returns which test files come past which mutant, and how long each takes, ms
 * @throws Trouble where a test fails without any mutant: nothing could be learned from one that fails anyway
 */
export async function coverage({ home, tree, broken }, env) {
  const coverageFile = join(home, 'coverage.ndjson');
  const out = join(home, 'first.json');
  let trouble = null;
  await run(
    'npx',
    [
      '--no-install',
      'jest',
      '--selectProjects',
      ...PROJECTS,
      '--json',
      `--outputFile=${out}`,
      '--silent',
      `--maxWorkers=${cpus().length}`,
      '--findRelatedTests',
      ...broken,
    ],
    { cwd: tree, env: { ...env, MUTANT_COVERAGE: coverageFile } },
  ).catch((error) => (trouble = error));
  if (!existsSync(out)) throw trouble ?? new Trouble('the first run left no result');
  const { testResults } = JSON.parse(readFileSync(out, 'utf8'));
  const failed = testResults.filter(({ status }) => status !== 'passed');
  // What fails with every switch off is told, and proves nothing about any mutant.
  for (const { name } of failed)
    say(`not used, it fails without a mutant: ${relative(tree, name)}`);
  if (failed.length > testResults.length / 10)
    throw new Trouble(`${failed.length} test files fail without a mutant: mend those first.`);
  const useless = new Set(failed.map(({ name }) => name));
  const tookMs = new Map(testResults.map((each) => [each.name, each.endTime - each.startTime]));
  const byMutant = new Map();
  for (const line of readFileSync(coverageFile, 'utf8').trim().split('\n')) {
    const { file, ids } = JSON.parse(line);
    if (useless.has(file)) continue;
    for (const id of ids) byMutant.set(id, [...(byMutant.get(id) ?? []), file]);
  }
  return { tookMs, byMutant };
}

/** A file beside the source is more likely to notice than another, so it may take longer for its turn. */
const NEARNESS = { same: 0.1, folder: 0.3, elsewhere: 1 };

/** Files of tests in the order in which one notices soonest: quick ones, and those beside the source. */
function soonestFirst(files, source, tookMs) {
  const nearness = (file) => {
    if (file.replace(/\.test\.tsx?$/, '') === source.replace(/\.tsx?$/, '')) return NEARNESS.same;
    return dirname(file) === dirname(source) ? NEARNESS.folder : NEARNESS.elsewhere;
  };
  const turn = (file) => nearness(file) * tookMs.get(file);
  return [...files].sort((a, b) => turn(a) - turn(b));
}

/** One process that runs test files; made anew where it hangs, dies or grows old. */
class Runner {
  constructor(tree, env) {
    Object.assign(this, { tree, env, child: null, runs: 0 });
  }

  async started() {
    if (this.child && this.runs < RUNS_A_WORKER && this.child.connected) return this.child;
    this.stop();
    this.runs = 0;
    this.child = fork(WORKER, [this.tree], { cwd: this.tree, env: this.env, stdio: 'ignore' });
    await once(this.child, 'message');
    return this.child;
  }

  stop() {
    this.child?.kill('SIGKILL');
    this.child = null;
  }

  /** @returns whether the file failed, was too slow, or took the process with it */
  async fails(mutant, file, tookMs) {
    const child = await this.started();
    this.runs += 1;
    const stop = new AbortController();
    const timer = setTimeout(() => stop.abort(), TOO_LONG * tookMs + GRACE_MS);
    try {
      const project = relative(this.tree, file).split('/')[0];
      child.send({ mutant, project, file });
      const [answer] = await Promise.race([
        once(child, 'message', { signal: stop.signal }),
        once(child, 'exit', { signal: stop.signal }).then(() => [{ failed: true }]),
      ]);
      return answer.failed;
    } catch (error) {
      if (error.name !== 'AbortError') throw error;
      this.stop();
      return true;
    } finally {
      clearTimeout(timer);
      stop.abort();
    }
  }
}

/** Tries each mutant against the test files that come past it. */
export async function tryMutants({
  drawn,
  covered: { byMutant, tookMs },
  sandbox,
  env,
  untilMs,
  onSome,
}) {
  const { tree } = sandbox;
  const results = [];
  // A file has to pass here with nothing broken, too: else a trial that cannot run would count every mutant as killed.
  const sound = new Map();
  const isSound = async (runner, file) => {
    if (!sound.has(file)) {
      sound.set(file, !(await runner.fails(null, file, tookMs.get(file))));
      if (!sound.get(file))
        say(`not used, it fails here without a mutant: ${relative(tree, file)}`);
    }
    return sound.get(file);
  };
  const one = async (runner, mutant) => {
    const base = {
      file: mutant.fileName,
      line: mutant.location.start.line + 1,
      was: mutant.was,
      becomes: mutant.replacement,
      mutator: mutant.mutatorName,
    };
    const inThread = mutant.fileName.startsWith(IN_THREADS.folder) ? IN_THREADS.tests : [];
    const passing = byMutant.get(mutant.id) ?? inThread.map((each) => join(tree, each));
    const files = soonestFirst(passing, join(tree, mutant.fileName), tookMs);
    const said = (state, tried) => {
      results.push({ ...base, state, tried, covering: files.length });
      if (results.length % 25 === 0) onSome(results);
    };
    if (files.length === 0) return said('unreached', []);
    if (Date.now() > untilMs) return said('untried', []);
    const tried = [];
    let spentMs = 0;
    for (const file of files) {
      const took = tookMs.get(file);
      if (tried.length > 0 && spentMs + took > MOST_MS) continue;
      if (!(await isSound(runner, file))) continue;
      spentMs += took;
      tried.push(relative(tree, file));
      if (await runner.fails(mutant.id, file, took)) return said('killed', tried);
    }
    said('survived', tried);
  };
  const left = [...drawn];
  await Promise.all(
    cpus().map(async () => {
      const runner = new Runner(tree, env);
      for (let next = left.shift(); next; next = left.shift()) await one(runner, next);
      runner.stop();
    }),
  );
  return results;
}
