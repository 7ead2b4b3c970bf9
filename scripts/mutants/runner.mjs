import { fork } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const WORKER = fileURLToPath(new URL('worker.mjs', import.meta.url));
/** A test that takes so many times as long as it did is in an endless loop: that is seen, too. */
const TOO_LONG = 4;
const GRACE_MS = 20_000;
const LOOK_MS = 500;
/** Jest keeps a little of every run. */
const RUNS_A_WORKER = 60;

/** One process that runs test files; made anew where it hangs, dies or grows old. */
export class Runner {
  constructor({ tree, home }, env, n) {
    Object.assign(this, {
      tree,
      env,
      child: null,
      runs: 0,
      out: join(home, `told-${n}`),
      asked: 0,
    });
  }

  async #started() {
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

  /**
   * Runs a file.
   *
   * @param isTooLong asked again and again while it runs
   * @returns the worker's answer; null where the file was too slow or took the process with it
   */
  async #run(message, isTooLong) {
    const child = await this.#started();
    this.runs += 1;
    const stop = new AbortController();
    const watch = setInterval(() => isTooLong() && stop.abort(), LOOK_MS);
    try {
      child.send({ ...message, project: relative(this.tree, message.file).split('/')[0] });
      const [answer] = await Promise.race([
        once(child, 'message', { signal: stop.signal }),
        once(child, 'exit', { signal: stop.signal }).then(() => [null]),
      ]);
      return answer;
    } catch (error) {
      if (error.name !== 'AbortError') throw error;
      this.stop();
      return null;
    } finally {
      clearInterval(watch);
      stop.abort();
    }
  }

  /** @returns whether the file fails with the mutant, or with none where it is null */
  async fails(mutant, { name: file, tookMs }) {
    const untilMs = Date.now() + TOO_LONG * tookMs + GRACE_MS;
    const task = { kind: 'one' };
    const answer = await this.#run({ task, mutant, file }, () => Date.now() > untilMs);
    return answer?.failed ?? true;
  }

  /**
   * Tries many mutants in one file.
   *
   * @param mutants each with the names of the tests that may notice it
   * @returns which were killed, which test was spoilt by which, and the one in whose run everything stopped
   */
  async tryMany(file, mutants) {
    this.asked += 1;
    const out = `${this.out}-${this.asked}.ndjson`;
    const msOf = new Map(file.tests.map(({ name, ms }) => [name, ms]));
    const told = () =>
      existsSync(out)
        ? readFileSync(out, 'utf8')
            .split('\n')
            .filter((line) => line.endsWith('}'))
            .map((line) => JSON.parse(line))
        : [];
    let seen = { length: -1, atMs: Date.now() };
    const isTooLong = () => {
      const lines = told();
      if (lines.length !== seen.length) seen = { length: lines.length, atMs: Date.now() };
      const ms = msOf.get(lines.at(-1)?.name) ?? file.tookMs;
      return Date.now() > seen.atMs + TOO_LONG * ms + GRACE_MS;
    };
    const task = { kind: 'many', out, mutants };
    const answer = await this.#run({ task, mutant: null, file: file.name }, isTooLong);
    const lines = told();
    return {
      killed: new Set(lines.flatMap(({ killed }) => killed ?? [])),
      spoilt: lines.find(({ spoilt }) => spoilt)?.spoilt ?? null,
      stoppedIn: answer === null ? (lines.findLast(({ begun }) => begun)?.begun ?? null) : null,
      isOver: answer !== null,
    };
  }
}
