/*
 * A storm over the whole of it, bounded: `npm run storm`, or `npm run storm -- --sequences 500 --minutes 20 --requests 20000`.
 *
 *   1. 500 open streams and 500 sockets that send a byte now and then, reports being printed beside: how long /api/health takes.
 *   2. 100,000 requests: whether memory stays flat.
 *   3. Random sequences of two phones, two tabs, network, clocks, disks, quotas, roles, old pages, kills and restores over the
 *      app's own store and the real server: nothing acknowledged is lost or doubled. As many as are asked for, or as fit
 *      the minutes.
 */
import autocannon from 'autocannon';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { parseArgs } from 'node:util';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { run } from './setup/run.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators } from './setup/webBuild.mjs';

const STREAMS = 500;
const SLOW = 500;
const ASKED = 200;
const BOUND_MS = 200;
const BLOCKS = 10;
/** Memory may differ by so much between the third block and the last: a collector's own breath. */
const FLAT = 1.15;
const TOKEN = 'storm';

const { values: options } = parseArgs({
  options: {
    sequences: { type: 'string', default: '10000' },
    minutes: { type: 'string', default: '60' },
    requests: { type: 'string', default: '100000' },
    only: { type: 'string', default: 'load,memory,sequences' },
  },
});

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];

async function signedIn(url) {
  const answer = await fetch(`${url}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ signInName: 'idris', password: 'grit-before-snow' }),
  });
  if (!answer.ok) throw new Trouble(`Nobody can sign in: ${answer.status}`);
  return answer.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
}

/** How long health takes, asked again and again, ms. */
async function healthMs(url, times) {
  const took = [];
  for (let n = 0; n < times; n += 1) {
    const startedMs = performance.now();
    const answer = await fetch(`${url}/api/health`);
    await answer.text();
    if (!answer.ok) throw new Trouble(`health answers ${answer.status}`);
    took.push(performance.now() - startedMs);
  }
  return took;
}

const sayTimes = (what, took) =>
  say(
    `${what.padEnd(52)} median ${quantile(took, 0.5).toFixed(1)} ms, 99 of 100 under ${quantile(took, 0.99).toFixed(1)}, longest ${quantile(took, 1).toFixed(1)} (${BOUND_MS} asked)`,
  );

async function load(url) {
  const cookie = await signedIn(url);
  const headers = { cookie };
  const units = await (await fetch(`${url}/api/units`, { headers })).json();
  sayTimes('health of a server at rest', await healthMs(url, ASKED));
  const stop = new AbortController();
  const streams = await Promise.all(
    Array.from({ length: STREAMS }, (_, n) =>
      fetch(`${url}/api/units/${units[n % units.length].id}/pedal/live`, {
        headers,
        signal: stop.signal,
      }),
    ),
  );
  const open = streams.filter(({ status }) => status === 200).length;
  if (open < STREAMS) throw new Trouble(`only ${open} of ${STREAMS} streams opened`);
  const { port } = new URL(url);
  const sockets = Array.from({ length: SLOW }, () => connect(Number(port), '127.0.0.1'));
  let isOver = false;
  for (const socket of sockets) {
    socket.on('error', () => undefined);
    socket.write('POST /api/sign-in HTTP/1.1\r\nHost: x\r\nContent-Length: 1000\r\n');
    const drip = setInterval(() => {
      if (isOver || socket.destroyed) clearInterval(drip);
      else socket.write('X');
    }, 500);
  }
  const held = await healthMs(url, ASKED);
  sayTimes(`with ${open} streams and ${SLOW} slow sockets`, held);
  const runs = await (await fetch(`${url}/api/units/${units[0].id}/runs`, { headers })).json();
  const closed = runs.find(({ closedAtMs }) => closedAtMs !== null);
  const reports = Array.from({ length: 12 }, async () =>
    (await fetch(`${url}/api/runs/${closed.id}/report.pdf`, { headers })).arrayBuffer(),
  );
  const printing = [];
  let isPrinted = false;
  const all = Promise.all(reports).then(() => (isPrinted = true));
  while (!isPrinted) printing.push(...(await healthMs(url, 5)));
  await all;
  sayTimes(`and 12 reports being printed (${printing.length} asked)`, printing);
  isOver = true;
  for (const socket of sockets) socket.destroy();
  stop.abort();
  const worst = Math.max(quantile(held, 1), quantile(printing, 1));
  if (worst > BOUND_MS) throw new Trouble(`health took ${worst.toFixed(0)} ms`);
}

/** Memory of the server as it says of itself, MB. */
async function memoryMb(url) {
  const text = await (
    await fetch(`${url}/metrics`, { headers: { authorization: `Bearer ${TOKEN}` } })
  ).text();
  const of = (name) => Number(new RegExp(`^${name} (\\S+)$`, 'm').exec(text)?.[1]) / 1024 / 1024;
  return { heap: of('nodejs_heap_size_used_bytes'), all: of('process_resident_memory_bytes') };
}

async function memory(url, requests) {
  const cookie = await signedIn(url);
  const units = await (await fetch(`${url}/api/units`, { headers: { cookie } })).json();
  const paths = [
    `/api/units/${units[0].id}`,
    `/api/units/${units[1].id}/found`,
    '/api/rigs',
    '/api/me',
    `/api/units/${units[2].id}`,
    '/api/logs/open',
    '/api/nothing-here',
  ];
  const seen = [];
  for (let block = 1; block <= BLOCKS; block += 1) {
    await autocannon({
      url,
      connections: 16,
      amount: Math.floor(requests / BLOCKS),
      requests: paths.map((path) => ({ path, headers: { cookie } })),
    });
    seen.push(await memoryMb(url));
    const { heap, all } = seen.at(-1);
    say(
      `after ${String((block * requests) / BLOCKS).padStart(7)} requests: heap ${heap.toFixed(0)} MB, process ${all.toFixed(0)} MB`,
    );
  }
  const early = seen[2].all;
  const late = seen.at(-1).all;
  if (late > early * FLAT) {
    throw new Trouble(`memory grows: ${early.toFixed(0)} to ${late.toFixed(0)} MB`);
  }
}

/** A process is made anew after so many: each page that was ever opened stays in its memory. */
const A_PROCESS = 500;

/** Runs random sequences in as many processes as there are cores, each by a seed and over a database of its own. */
async function sequences(databaseUrl, count, minutes) {
  const untilMs = Date.now() + minutes * 60_000;
  const seed = Number(process.env.STORM_SEED ?? Date.now() % 1_000_000);
  const lots = Array.from({ length: Math.ceil(count / A_PROCESS) }, (_, n) => ({
    seed: seed + n,
    count: Math.min(A_PROCESS, count - n * A_PROCESS),
  }));
  say(`up to ${count} sequences within ${minutes} minutes, seeds ${seed} to ${lots.at(-1).seed}`);
  const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-storm-told-'));
  const sum = { sequences: 0, marks: 0, photos: 0 };
  const drawn = {};
  const one = async (lot) => {
    const out = join(folder, `${lot.seed}.json`);
    await run(
      'npx',
      ['--no-install', 'jest', '--selectProjects', 'e2e', '--testTimeout', '36000000', '--silent'],
      {
        cwd: root,
        env: {
          ...process.env,
          TEST_DATABASE_URL: databaseUrl,
          STORM_SEED: String(lot.seed),
          STORM_SEQUENCES: String(lot.count),
          STORM_MINUTES: String(Math.max(1, (untilMs - Date.now()) / 60_000)),
          STORM_OUT: out,
        },
      },
    );
    const told = JSON.parse(readFileSync(out, 'utf8'));
    sum.sequences += told.sequences;
    sum.marks += told.marks;
    sum.photos += told.photos;
    for (const [name, times] of Object.entries(told.drawn))
      drawn[name] = (drawn[name] ?? 0) + times;
    say(
      `${sum.sequences} sequences, ${sum.marks} marks, ${sum.photos} photos, none lost or doubled`,
    );
  };
  await Promise.all(
    cpus().map(async () => {
      for (let lot = lots.shift(); lot && Date.now() < untilMs; lot = lots.shift()) await one(lot);
    }),
  );
  rmSync(folder, { recursive: true, force: true });
  const names = Object.entries(drawn).map(([name, times]) => `${name} ${times}`);
  say(`${sum.sequences} sequences in all: ${names.join(', ')}`);
}

await runMain(async () => {
  await ensureValidators();
  const home = mkdtempSync(join(tmpdir(), 'keen-bleed-storm-'));
  const postgres = await startPostgres({ home, throwaway: true });
  const parts = options.only.split(',');
  try {
    if (parts.includes('load') || parts.includes('memory')) {
      const server = await startServer({
        DATABASE_URL: postgres.url,
        SESSION_SECRET: 'storm',
        PORT: '0',
        DEMO: '1',
        METRICS_TOKEN: TOKEN,
        SIGN_IN_TRIES: '1000',
      });
      try {
        if (parts.includes('load')) await load(server.url);
        if (parts.includes('memory')) await memory(server.url, Number(options.requests));
      } finally {
        await server.stop();
      }
    }
    if (parts.includes('sequences')) {
      await sequences(postgres.url, Number(options.sequences), Number(options.minutes));
    }
  } finally {
    await postgres.stop();
    rmSync(home, { recursive: true, force: true });
  }
});
