import { expect, test } from '@playwright/test';
import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '../..');

/** A first start makes a database and two years of runs; a busy disk may make that slow. */
const UP_WITHIN_MS = 120_000;
test.describe.configure({ timeout: 2 * UP_WITHIN_MS });

let data: string;
test.beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'keen-bleed-start-'));
  // The database's own user has to get in.
  chmodSync(data, 0o755);
});
test.afterEach(() => rmSync(data, { recursive: true, force: true }));

/** `npm start`'s script, with what it has printed so far. */
class Start {
  printed = '';
  readonly child: ChildProcess;

  constructor(env: Record<string, string> = {}, ...args: string[]) {
    const { DATABASE_URL: _none, ...surroundings } = process.env;
    this.child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
      cwd: root,
      env: { ...surroundings, KEEN_BLEED_DATA: data, ...env },
    });
    for (const stream of [this.child.stdout, this.child.stderr]) {
      stream?.on('data', (chunk: Buffer) => (this.printed += chunk.toString()));
    }
  }

  async address(): Promise<string> {
    const found = () => /Open\s+(http:\S+)/.exec(this.printed)?.[1] ?? null;
    // One that has ended will not come up: its words say why.
    await expect
      .poll(() => found() ?? this.child.exitCode, {
        timeout: UP_WITHIN_MS,
        message: 'the start came up',
      })
      .not.toBeNull();
    const url = found();
    if (url === null) throw new Error(`The start ended. It said:\n${this.printed}`);
    return url;
  }

  async end(): Promise<number | null> {
    if (this.child.exitCode !== null) return this.child.exitCode;
    const [code] = (await once(this.child, 'exit')) as [number | null];
    return code;
  }

  async interrupt(): Promise<void> {
    this.child.kill('SIGINT');
    await this.end();
  }
}

/** Processes that were started for this test's data folder. */
const left = () =>
  execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })
    .split('\n')
    .filter((line) => line.includes(join(data, 'database')));

test('comes up with the demo world, keeps its data, and leaves nothing running', async () => {
  const first = new Start();
  const url = await first.address();
  expect(first.printed).toContain('demo world made');
  expect(first.printed).toContain('grit-before-snow');
  expect((await fetch(url)).status).toBe(200);
  expect(left()).toHaveLength(1);

  const second = new Start();
  expect(await second.end()).toBe(1);
  expect(second.printed).toContain('already running from this folder');

  await first.interrupt();
  expect(left()).toEqual([]);

  const again = new Start();
  await again.address();
  expect(again.printed).not.toContain('demo world made');
  await again.interrupt();
  expect(left()).toEqual([]);
});

test('explains a busy port, and a port that is none, without a stack', async () => {
  const busy = createServer();
  await new Promise<void>((resolve) => busy.listen(0, '127.0.0.1', resolve));
  const address = busy.address();
  const port = typeof address === 'object' && address ? String(address.port) : '';
  const start = new Start({ PORT: port });
  expect(await start.end()).toBe(1);
  expect(start.printed).toContain(`Port ${port} is busy. Set PORT to another`);
  expect(start.printed).not.toMatch(/\n\s+at /);
  busy.close();
  const none = new Start({ PORT: 'door' });
  expect(await none.end()).toBe(1);
  expect(none.printed).toContain('PORT must be a number');
});

test('two starts at the same moment both come up, each on a port of its own', async () => {
  const other = mkdtempSync(join(tmpdir(), 'keen-bleed-start-'));
  chmodSync(other, 0o755);
  const starts = [new Start({}, '--empty'), new Start({ KEEN_BLEED_DATA: other }, '--empty')];
  const urls = await Promise.all(starts.map((start) => start.address()));
  expect(new Set(urls).size).toBe(2);
  for (const url of urls) expect((await fetch(url)).status).toBe(200);
  await Promise.all(starts.map((start) => start.interrupt()));
  rmSync(other, { recursive: true, force: true });
});

test('repairs a half-made data folder, and sets a broken one aside', async () => {
  mkdirSync(join(data, 'database/pg.half'), { recursive: true });
  writeFileSync(join(data, 'database/pg.half/PG_VERSION'), '15');
  mkdirSync(join(data, 'database/pg'));
  writeFileSync(join(data, 'database/pg/something'), 'precious');
  const start = new Start({}, '--empty');
  const url = await start.address();
  expect(start.printed).toContain('clearing a half-made database folder');
  const aside = /moved to (\S+),/.exec(start.printed)?.[1] ?? '';
  expect(readFileSync(join(aside, 'something'), 'utf8')).toBe('precious');
  expect(await (await fetch(`${url}/api/set-up`)).json()).toEqual({
    needsFirstLead: true,
    needsCode: true,
  });
  await start.interrupt();
});

test('says in words that a given database cannot be reached', async () => {
  const start = new Start({ DATABASE_URL: 'postgres://nobody@127.0.0.1:9/none' });
  expect(await start.end()).toBe(1);
  expect(start.printed).toContain('The database cannot be reached. Check DATABASE_URL');
  expect(start.printed).not.toMatch(/\n\s+at /);
  expect(existsSync(join(data, 'database'))).toBe(false);
});

test('takes over a database that a killed start left running', async () => {
  const killed = new Start();
  await killed.address();
  killed.child.kill('SIGKILL');
  await killed.end();
  expect(left()).toHaveLength(1);
  const next = new Start();
  await next.address();
  expect(next.printed).toContain('taking over the database');
  await next.interrupt();
  expect(left()).toEqual([]);
});

test('comes back by itself from five kills of its processes', async () => {
  const kills = spawn(process.execPath, ['scripts/kills.mjs', '5', '11'], { cwd: root });
  let printed = '';
  for (const stream of [kills.stdout, kills.stderr]) {
    stream.on('data', (chunk: Buffer) => (printed += chunk.toString()));
  }
  const [code] = (await once(kills, 'exit')) as [number | null];
  expect([printed, code]).toEqual([expect.stringContaining('5 of 5 came back'), 0]);
});

test('does not take its own number, given out again, for another start', async () => {
  // As a crash leaves it: the number is some living process's by now, and that one starts something as well.
  const other = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)', 'start.mjs']);
  writeFileSync(
    join(data, 'running.json'),
    JSON.stringify({ pid: other.pid, began: '1', url: 'http://127.0.0.1:1' }),
  );
  const start = new Start({}, '--empty');
  await start.address();
  await start.interrupt();
  other.kill();
});
