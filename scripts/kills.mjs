/* Kills processes of a running installation at random, and sees whether it comes back by itself each time.
   `npm run kills -- 100 7` kills a hundred times by seed 7. */
import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { root } from './setup/root.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';

const BACK_WITHIN_MS = 20_000;
const UP_WITHIN_MS = 120_000;

const [count = 100, seed = Date.now() % 100_000] = process.argv.slice(2).map(Number);

/** Draws from the seed (mulberry32). */
let state = seed >>> 0;
const draw = () => {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = state;
  t = Math.imul(t ^ (t >>> 15), t | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
};

const data = mkdtempSync(join(tmpdir(), 'keen-bleed-kills-'));
chmodSync(data, 0o755);
const runningFile = join(data, 'running.json');

let start = null;
let printed = '';
function begin() {
  start = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: '', KEEN_BLEED_DATA: data },
  });
  for (const stream of [start.stdout, start.stderr]) {
    stream.on('data', (chunk) => (printed = `${printed}${chunk}`.slice(-20_000)));
  }
}

const noted = () =>
  existsSync(runningFile) ? JSON.parse(readFileSync(runningFile, 'utf8')) : null;

/** Whether the whole of it answers, by the processes that were started last and without the one that was killed. */
async function isUp(killed) {
  try {
    const now = noted();
    if (now?.pid !== start.pid || now.server === killed || now.database === killed) return false;
    return (await fetch(`${now.url}/api/health`, { signal: AbortSignal.timeout(2_000) })).ok;
  } catch {
    return false;
  }
}

async function back(withinMs, killed = null) {
  const startedMs = Date.now();
  while (!(await isUp(killed))) {
    if (start.exitCode !== null) return { ms: Date.now() - startedMs, why: 'the start ended' };
    if (Date.now() - startedMs > withinMs) return { ms: Date.now() - startedMs, why: 'too late' };
    await pause(50);
  }
  return { ms: Date.now() - startedMs, why: null };
}

/** A connection's own process of the database, drawn at random. */
function connectionOf(database) {
  const children = readdirSync('/proc').filter((pid) => {
    try {
      const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
      return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1] === String(database);
    } catch {
      return false;
    }
  });
  return Number(children[Math.floor(draw() * children.length)] ?? database);
}

await runMain(async () => {
  console.log(`\nKeen Bleed: ${count} kills, seed ${seed}`);
  const times = new Map();
  const late = [];
  try {
    begin();
    const first = await back(UP_WITHIN_MS);
    if (first.why) throw new Trouble(`It did not come up: ${first.why}.\n${printed}`);
    for (let n = 1; n <= count; n += 1) {
      const now = noted();
      const what = ['start', 'server', 'database', 'connection'][Math.floor(draw() * 4)];
      const pid = {
        start: start.pid,
        server: now.server,
        database: now.database,
        connection: connectionOf(now.database),
      }[what];
      process.kill(pid, 'SIGKILL');
      // Nothing watches the start itself but whoever started it: a service manager starts it again, as here.
      if (what === 'start') {
        await new Promise((done) => start.once('exit', done));
        begin();
      } else {
        // Until it is noticed it may still answer.
        await pause(300);
      }
      const { ms, why } = await back(BACK_WITHIN_MS, what === 'connection' ? null : pid);
      times.set(what, [...(times.get(what) ?? []), ms]);
      if (why) {
        late.push(`${n}: ${what}, ${why} after ${(ms / 1000).toFixed(1)} s`);
        say(`kill ${late.at(-1)}\n${printed.split('\n').slice(-12).join('\n')}`);
        if (start.exitCode !== null) begin();
        const again = await back(UP_WITHIN_MS);
        if (again.why) throw new Trouble(`It stays down: ${again.why}.`);
      }
      // Some come upon it at rest, some while it is still settling.
      await pause(draw() < 0.5 ? 0 : 1_000 * draw());
    }
  } finally {
    start?.kill('SIGINT');
    if (start?.exitCode === null) await new Promise((done) => start.once('exit', done));
    rmSync(data, { recursive: true, force: true });
  }
  for (const [what, ms] of times) {
    const sorted = ms.sort((a, b) => a - b);
    const at = (share) => (sorted[Math.floor(share * (sorted.length - 1))] / 1000).toFixed(1);
    say(
      `${what.padEnd(11)} ${String(ms.length).padStart(3)} kills, back in ${at(0.5)} s at the median, ${at(1)} s at most`,
    );
  }
  console.log(
    `\n${count - late.length} of ${count} came back by themselves within ${BACK_WITHIN_MS / 1000} s`,
  );
  if (late.length > 0) process.exitCode = 1;
});
