/* global expect, afterAll */
/*
 * Runs in every test file of the copy, before its tests are named. It does one of three things, by MUTANT_TASK:
 *
 *   cover  tells which switches each test came past, and how long it took
 *   many   runs each test whole, then again with one mutant after another switched on: loading a file takes longer
 *          than its tests, so it is loaded once for all of them
 *   one    stops at the first test that fails: one mutant is switched on for the whole file
 */
const { appendFileSync, readFileSync } = require('node:fs');
const { performance } = require('node:perf_hooks');
const { bind } = require('jest-each');

const task = JSON.parse(process.env.MUTANT_TASK ?? 'null');
const switches = (globalThis.__stryker__ ??= {});
/** A mutant that comes past its own line so often is in an endless loop. */
const MOST_HITS = 2_000_000;

const tell = (what) => appendFileSync(task.out, `${JSON.stringify(what)}\n`);
const nameOf = () => expect.getState().currentTestName;
const fileOf = () => expect.getState().testPath;

function covering(work) {
  return async () => {
    const name = nameOf();
    switches.currentTestId = name;
    const startedMs = performance.now();
    try {
      return await work();
    } finally {
      delete switches.currentTestId;
      const past = switches.mutantCoverage?.perTest?.[name] ?? {};
      tell({
        file: fileOf(),
        test: name,
        ms: performance.now() - startedMs,
        ids: Object.keys(past),
      });
    }
  };
}

/** @returns whether the work fails with the mutant switched on, or with none */
async function fails(work, mutant) {
  switches.activeMutant = mutant;
  switches.hitCount = 0;
  switches.hitLimit = MOST_HITS;
  // The same test comes again: its pictures are counted from the first once more.
  expect.getState().snapshotState?._counters?.clear();
  expect.setState({ suppressedErrors: [] });
  try {
    await work();
    // A picture that differs is kept for the test's end, and does not throw.
    return expect.getState().suppressedErrors.length > 0;
  } catch {
    return true;
  } finally {
    expect.setState({ suppressedErrors: [] });
    delete switches.activeMutant;
  }
}

const killed = new Set();
let isSpoilt = false;

function withMany(work) {
  return async () => {
    const name = nameOf();
    const here = task.mutants.filter(({ id, tests }) => !killed.has(id) && tests.includes(name));
    if (isSpoilt || here.length === 0) return;
    if (await fails(work)) return tell({ unusable: name });
    for (const { id } of here) {
      tell({ begun: id, name });
      if (!(await fails(work, id))) continue;
      // What a mutant left behind must not kill the next one: the test has to pass again without it.
      if (await fails(work)) {
        isSpoilt = true;
        return tell({ spoilt: id, name });
      }
      killed.add(id);
      tell({ killed: id, name });
    }
  };
}

let hasFailed = false;

function untilOneFails(work) {
  return async () => {
    if (hasFailed) throw new Error('an earlier test has failed');
    try {
      return await work();
    } catch (error) {
      hasFailed = true;
      throw error;
    }
  };
}

const around = { cover: covering, many: withMany, one: untilOneFails }[task?.kind];
if (around) {
  const plain = globalThis.test;
  const wrapped = (named) => (name, work, timeout) =>
    named(name, around(work), task.kind === 'many' ? 3_600_000 : timeout);
  const test = Object.assign(wrapped(plain), plain);
  for (const name of ['only', 'failing', 'concurrent'])
    if (plain[name]) test[name] = Object.assign(wrapped(plain[name]), plain[name]);
  test.each = bind(test);
  globalThis.test = test;
  globalThis.it = test;
}
if (task?.kind === 'cover') {
  afterAll(() =>
    tell({
      file: fileOf(),
      statics: Object.keys(switches.mutantCoverage?.static ?? {}),
      hasHooks: /\b(before|after)(Each|All)\(|jest\.\w+\(/.test(readFileSync(fileOf(), 'utf8')),
    }),
  );
}
