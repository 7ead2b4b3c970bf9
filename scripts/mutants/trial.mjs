import { cpus } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { say } from '../setup/say.mjs';
import { Runner } from './runner.mjs';

/**
 * A mutant is tried against so much of its tests, soonest first, and no further: in one loaded file, and alone. Alone,
 * the tests of its own noun are tried however long they take. What came through among many is tried alone once more,
 * against tests beside it: a test may have kept a result.
 */
const MOST_MS = { many: 8_000, one: 25_000, again: 8_000 };
/** Where fewer are drawn there is time for twice as much of each one's tests. */
const mostOf = (drawn) => {
  const times = drawn > 700 ? 1 : 2;
  return { many: times * MOST_MS.many, one: times * MOST_MS.one, again: times * MOST_MS.again };
};
/** What is printed in a thread of its own, where the first run does not look: these tests come past all of it. */
const IN_THREADS = {
  folder: 'server/src/report/',
  tests: ['report/report', 'jobs/jobs', 'log/visit'].map((name) => `server/src/${name}.test.ts`),
};
const SAID_EVERY = 50;

/** A file beside the source is more likely to notice than another, so it may take longer for its turn. */
const NEARNESS = { same: 0.1, folder: 0.3, elsewhere: 1 };

/** Of a noun of a room, such as `core/src/procedure`, whatever stands beneath it; what stands above all nouns is the room's. */
const nounOf = (path, tree) => relative(tree, dirname(path)).split('/').slice(0, 3).join('/');

function nearnessOf(file, source, tree) {
  if (file.replace(/\.test\.tsx?$/, '') === source.replace(/\.tsx?$/, '')) return NEARNESS.same;
  return nounOf(file, tree) === nounOf(source, tree) ? NEARNESS.folder : NEARNESS.elsewhere;
}

const sum = (numbers) => numbers.reduce((all, each) => all + each, 0);

/** One mutant, and what has become of it. */
class Trial {
  constructor(mutant, testFiles, tree, most) {
    const { id, fileName } = mutant;
    Object.assign(this, { mutant, id, most, state: null, tried: new Set(), spentMs: 0 });
    this.source = join(tree, fileName);
    const past = (file) => file.statics.has(id) || file.tests.some(({ ids }) => ids.has(id));
    this.files = testFiles.filter(past);
    if (this.files.length === 0 && fileName.startsWith(IN_THREADS.folder)) {
      const names = new Set(IN_THREADS.tests.map((each) => join(tree, each)));
      this.files = testFiles.filter(({ name }) => names.has(name));
    }
    const turn = ({ name, tookMs }) => nearnessOf(name, this.source, tree) * tookMs;
    this.files.sort((a, b) => turn(a) - turn(b));
  }

  /** Whether each of a file's tests can be run by itself with this one switched on. */
  isAmongMany(file) {
    return !file.hasHooks && !file.statics.has(this.id);
  }

  /** The tests of a file that may notice, soonest first, as far as time is left. */
  testsIn(file) {
    const chosen = [];
    for (const { name, ms, ids } of [...file.tests].sort((a, b) => a.ms - b.ms)) {
      if (!ids.has(this.id)) continue;
      if (this.spentMs > 0 && this.spentMs + ms > this.most.many) break;
      this.spentMs += Math.max(ms, 1);
      chosen.push(name);
    }
    return chosen;
  }

  result(tree) {
    const { mutant } = this;
    return {
      file: mutant.fileName,
      line: mutant.location.start.line + 1,
      was: mutant.was,
      becomes: mutant.replacement,
      mutator: mutant.mutatorName,
      state: this.state ?? 'untried',
      tried: [...this.tried].map((name) => relative(tree, name)),
      covering: this.files.length,
    };
  }
}

/** Tries all that need no fresh file, file after file. */
async function tryAmongMany(trials, testFiles, runners, untilMs, onSome) {
  const cost = ({ tests }) => sum(tests.map(({ ms }) => ms)) / Math.max(1, tests.length);
  const left = testFiles.filter(({ hasHooks }) => !hasHooks).sort((a, b) => cost(a) - cost(b));
  const one = async (runner, file) => {
    let asked = trials
      .filter((trial) => trial.state === null && trial.files.includes(file))
      .filter((trial) => trial.isAmongMany(file))
      .map((trial) => ({ trial, tests: trial.testsIn(file) }))
      .filter(({ tests }) => tests.length > 0);
    while (asked.length > 0 && Date.now() < untilMs) {
      const mutants = asked.map(({ trial: { id }, tests }) => ({ id, tests }));
      const { killed, spoilt, stoppedIn, isOver } = await runner.tryMany(file, mutants);
      for (const { trial } of asked) {
        if (killed.has(trial.id) || trial.id === stoppedIn) {
          trial.state = 'killed';
          trial.tried.add(file.name);
        } else if (isOver && spoilt === null) trial.tried.add(file.name);
      }
      onSome();
      // What spoils a test is tried alone, later; the others once more without it.
      if (isOver ? spoilt === null : stoppedIn === null) return;
      asked = asked.filter(({ trial }) => trial.state === null && trial.id !== spoilt);
    }
  };
  await Promise.all(
    runners.map(async (runner) => {
      for (let next = left.shift(); next; next = left.shift()) await one(runner, next);
    }),
  );
}

/** Tries what is left, each alone in a fresh file. */
async function tryAlone(trials, runners, untilMs, onSome, tree) {
  // A file has to pass here with nothing broken, too: else a trial that cannot run would count every mutant as killed.
  const sound = new Map();
  const isSound = (runner, file) => {
    if (!sound.has(file)) {
      sound.set(
        file,
        runner.fails(null, file).then((failed) => {
          if (failed) say(`not used, it fails here without a mutant: ${relative(tree, file.name)}`);
          return !failed;
        }),
      );
    }
    return sound.get(file);
  };
  const one = async (runner, trial) => {
    const isAgain = trial.tried.size > 0;
    const isNear = (file) => nearnessOf(file.name, trial.source, tree) < NEARNESS.elsewhere;
    const files = trial.files.filter((file) => !isAgain || isNear(file));
    const most =
      isAgain && !files.some((file) => !trial.isAmongMany(file))
        ? trial.most.again
        : trial.most.one;
    let spentMs = 0;
    let runs = 0;
    for (const file of files) {
      // What ran whole among many has nothing new to say, unless it had run out of its time there.
      const isRepeated = isAgain && trial.isAmongMany(file);
      const isTooLong = runs > 0 && !isNear(file) && spentMs + file.tookMs > most;
      if (isRepeated ? file.tookMs > most : isTooLong) continue;
      if (!(await isSound(runner, file))) continue;
      if (!isNear(file)) spentMs += file.tookMs;
      runs += 1;
      trial.tried.add(file.name);
      if (await runner.fails(trial.id, file)) {
        trial.state = 'killed';
        return;
      }
    }
    trial.state = 'survived';
  };
  const left = trials.filter(({ state }) => state === null);
  await Promise.all(
    runners.map(async (runner) => {
      for (let next = left.shift(); next; next = left.shift()) {
        if (Date.now() > untilMs) return;
        await one(runner, next);
        onSome();
      }
    }),
  );
}

/** Tries each mutant against the tests that come past it. */
export async function tryMutants({ drawn, testFiles, sandbox, env, untilMs, onSome }) {
  const { tree } = sandbox;
  const most = mostOf(drawn.length);
  const trials = drawn.map((mutant) => new Trial(mutant, testFiles, tree, most));
  for (const trial of trials) if (trial.files.length === 0) trial.state = 'unreached';
  const results = () => trials.map((trial) => trial.result(tree));
  let said = 0;
  const some = () => {
    const settled = trials.filter(({ state }) => state !== null).length;
    if (settled < said + SAID_EVERY) return;
    said = settled;
    onSome(results());
  };
  const runners = cpus().map((_, n) => new Runner(sandbox, env, n));
  try {
    await tryAmongMany(trials, testFiles, runners, untilMs, some);
    await tryAlone(trials, runners, untilMs, some, tree);
  } finally {
    for (const runner of runners) runner.stop();
  }
  return results();
}
