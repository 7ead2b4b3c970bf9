/* Measures what is promised, side by side in one run, and prints it as a table; `-- --only page` for a part of it. */
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { gzipSync } from 'node:zlib';
import { median } from 'simple-statistics';
import { drawsAir } from './bench/drawsAir.mjs';
import { dragsJobs } from './bench/dragsJobs.mjs';
import { padTaps } from './bench/padTaps.mjs';
import { huntWalks } from './bench/huntWalks.mjs';
import { dataFolder } from './setup/dataFolder.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { chromiumPath, ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { run } from './setup/run.mjs';
import { runMain, say } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators, ensureWebBuild } from './setup/webBuild.mjs';

const KEPT_LOGS = 2_000;

const { values: options } = parseArgs({
  options: { only: { type: 'string', default: 'models,pad,page,api' } },
});
const parts = options.only.split(',');

const gzipped = (folder) =>
  readdirSync(folder, { recursive: true })
    .filter((file) => file.endsWith('.js'))
    .reduce(
      (sum, file) => sum + gzipSync(readFileSync(join(folder, file)), { level: 6 }).length,
      0,
    );

async function shellBytes() {
  const out = mkdtempSync(join(tmpdir(), 'keen-bleed-shell-'));
  await run('npx', ['--no-install', 'expo', 'export', '-p', 'web', '--output-dir', out], {
    cwd: join(root, 'app/bench-shell'),
    env: {
      ...process.env,
      EXPO_NO_TELEMETRY: '1',
      EXPO_OFFLINE: '1',
      CI: '1',
      NODE_ENV: 'production',
    },
  });
  const bytes = gzipped(join(out, '_expo'));
  rmSync(out, { recursive: true });
  return bytes;
}

/** Opens the app as a phone, and gives the script bytes until the yard stands. */
async function firstLoadOf(url) {
  const browser = await launchBrowser();
  try {
    return await measured(browser, url);
  } finally {
    await browser.close();
  }
}

async function launchBrowser() {
  const { chromium } = createRequire(join(root, 'e2e/package.json'))('@playwright/test');
  return chromium.launch({
    executablePath: chromiumPath,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
}

async function measured(browser, url) {
  const page = await browser.newPage({
    viewport: { width: 390, height: 844 },
    serviceWorkers: 'block',
  });
  const scripts = new Map();
  page.on('response', async (response) => {
    if (!/\.js(\?|$)/.test(response.url())) return;
    const body = await response.body().catch(() => null);
    if (body) scripts.set(response.url(), gzipSync(body, { level: 6 }).length);
  });
  await page.request.post(`${url}/api/sign-in`, {
    data: { signInName: 'idris', password: 'grit-before-snow' },
  });
  await page.goto(url);
  await page.getByRole('heading', { name: 'Yard' }).waitFor();
  await page.waitForLoadState('networkidle');
  const firstLoad = [...scripts.values()].reduce((sum, bytes) => sum + bytes, 0);

  return firstLoad;
}

/** A logger's file of so many rows: a tank that is built up and held again and again. */
function loggedRows(count) {
  const rows = ['time_s,Primary (psi),Dryer (psi)'];
  for (let n = 0; n < count; n += 1) {
    const s = n / 20;
    const phase = s % 600;
    const psi = phase < 60 ? 85 + (phase / 60) * 40 : 125 - ((phase - 60) / 540) * 40;
    rows.push(`${s.toFixed(2)},${psi.toFixed(2)},${(phase < 60 ? psi : 0).toFixed(2)}`);
  }
  return Buffer.from(rows.join('\n'));
}

/** Reads files of growing length in the page's worker: how long each takes, and the page's longest task meanwhile. */
async function readsTraces(url, counts) {
  const browser = await launchBrowser();
  const found = [];
  try {
    const page = await browser.newPage({ serviceWorkers: 'block' });
    await page.request.post(`${url}/api/sign-in`, {
      data: { signInName: 'idris', password: 'grit-before-snow' },
    });
    for (const count of counts) {
      await page.goto(`${url}/trace`);
      const buffer = loggedRows(count);
      await page
        .locator('input[type=file]')
        .setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer });
      const read = page.getByRole('button', { name: 'Read it' });
      await read.waitFor();
      await page.evaluate(() => {
        globalThis.long = [];
        new PerformanceObserver((list) =>
          globalThis.long.push(...list.getEntries().map((entry) => entry.duration)),
        ).observe({ type: 'longtask' });
      });
      const startedMs = performance.now();
      await read.click();
      await page.getByRole('list', { name: 'Segments' }).waitFor({ timeout: 120_000 });
      const tookMs = performance.now() - startedMs;
      const long = await page.evaluate(() => globalThis.long);
      found.push({ count, tookMs, megabytes: buffer.length / 1e6, long });
    }
  } finally {
    await browser.close();
  }
  return found;
}

async function models() {
  say('judging made-up trucks');
  console.log(
    await run(process.execPath, ['--import', 'tsx', 'server/bench/verdicts.bench.ts'], {
      cwd: root,
    }),
  );
  say('doing every check on every demo rig with each of its faults');
  console.log(
    await run(process.execPath, ['--import', 'tsx', 'server/bench/checks.bench.ts'], { cwd: root }),
  );
  say('weighing suspects on made-up rigs');
  for (const args of [
    ['server/bench/suspectsSpeed.bench.ts', '12,09+31'],
    ['server/bench/suspects.bench.ts', '--cases', '60', '--rigs', '12'],
  ]) {
    console.log(await run(process.execPath, ['--import', 'tsx', ...args], { cwd: root }));
  }
  say('weighing a hunt');
  console.log(
    await run(process.execPath, ['--import', 'tsx', 'server/bench/huntSpeed.bench.ts'], {
      cwd: root,
    }),
  );
  say('running the twin');
  console.log(
    await run(process.execPath, ['--import', 'tsx', 'server/bench/twin.bench.ts'], { cwd: root }),
  );
}

/** A server with the demo world; whatever goes wrong in the page, it is not left running. */
async function withServer(postgres, webFolder, work) {
  const server = await startServer({
    DATABASE_URL: postgres.url,
    SESSION_SECRET: 'bench',
    PORT: '0',
    WEB_FOLDER: webFolder,
    DEMO: '1',
    LOG_LEVEL: 'silent',
  });
  return work(server.url).finally(server.stop);
}

async function pad(postgres, webFolder) {
  say('measuring the first load and the pad');
  const { firstLoad, pads } = await withServer(postgres, webFolder, async (url) => ({
    firstLoad: await firstLoadOf(url),
    pads: await padsOf(url),
  }));
  const shell = await shellBytes();
  const kB = (bytes) => `${(bytes / 1000).toFixed(0)} kB`;
  console.log('First load until the yard stands, script, gzipped');
  console.log(
    `  ours ${kB(firstLoad)}   empty shell of the same stack ${kB(shell)}   ours/shell ${(firstLoad / shell).toFixed(2)}`,
  );
  for (const each of pads) sayPad(each);
}

async function page(postgres, webFolder) {
  say('measuring the page');
  const { traces, air, jobs, hunt } = await withServer(postgres, webFolder, async (url) => ({
    traces: await readsTraces(url, [10_000, 100_000, 1_000_000]),
    air: await drawsAir(launchBrowser, url),
    jobs: await dragsJobs(launchBrowser, url),
    hunt: await huntWalks(launchBrowser, url),
  }));
  console.log(
    `Dragging a marker on a board of ${jobs.shown} jobs: ${jobs.dragged.perSecond.toFixed(0)} frames/s, longest gap ${jobs.dragged.longestMs.toFixed(0)} ms (60 asked; left alone ${jobs.still.perSecond.toFixed(0)} frames/s, ${jobs.still.longestMs.toFixed(0)} ms)`,
  );
  console.log(
    'Live air on the drawing of a tractor and trailer at 4 × CPU slow-down, main thread a frame',
  );
  for (const { title, seen, still, yardstickMs } of air) {
    console.log(
      `  ${title}: air seen ${seen.ms.toFixed(1)} ms at ${seen.perSecond.toFixed(0)} frames/s, drawing still ${still.ms.toFixed(1)} ms at ${still.perSecond.toFixed(0)}; yardstick (2,000,000 roots) ${yardstickMs.toFixed(0)} ms`,
    );
  }
  console.log(
    `A leak hunt of ${hunt.joints} joints in one pass at 4 × CPU slow-down, yardstick (2,000,000 roots) ${hunt.yardstickMs.toFixed(0)} ms`,
  );
  console.log(
    `  scrolled ${hunt.scrolled.perSecond.toFixed(0)} frames/s, ${hunt.scrolled.late} of ${hunt.scrolled.frames} late, longest gap ${hunt.scrolled.longestMs.toFixed(0)} ms; left alone ${hunt.still.perSecond.toFixed(0)} frames/s (60 asked)`,
  );
  console.log(
    `  a mark until it is shown: median ${median(hunt.marks).toFixed(0)} ms, most ${Math.max(...hunt.marks).toFixed(0)} ms`,
  );
  console.log('A trace read and taken apart in its worker');
  for (const { count, tookMs, megabytes, long: tasks } of traces) {
    console.log(
      `  ${count.toLocaleString('en-GB').padStart(9)} rows, ${megabytes.toFixed(1)} MB: ${(tookMs / 1000).toFixed(1)} s, ${((tookMs * 1000) / count).toFixed(1)} µs a row; tasks of the page over 50 ms: ${tasks.length}`,
    );
  }
}

/** Phones that keep nothing, and ones that keep years of runs, in turn: what the machine does beside it meets both. */
const padsOf = async (url) => [
  await padTaps(launchBrowser, url, 0, /Gritter 18/),
  await padTaps(launchBrowser, url, KEPT_LOGS, /Crew bus 02/),
];

function sayPad({ keptLogs, presses, long, works, felt, kept, yardstickMs }) {
  const most = (values) => (values.length === 0 ? 0 : Math.max(...values));
  const said = (values) =>
    `median ${median(values).toFixed(1)} ms, most ${most(values).toFixed(1)} ms`;
  console.log(
    `A tap on the pad at 4 × CPU slow-down, ${works.length} taps, ${keptLogs} logs kept; yardstick (2,000,000 roots) ${yardstickMs.toFixed(0)} ms`,
  );
  console.log(`  in the press itself: ${said(presses)}`);
  console.log(`  from the touch to the pad that shows it: ${said(felt)}`);
  console.log(`  script from the press to the changed pad: ${said(works)}`);
  console.log(`  from the press to the mark that is kept and shown: ${said(kept)}`);
  console.log(
    `  tasks over 50 ms: ${long.length}${long.length ? ` (longest ${most(long).toFixed(0)} ms)` : ''}`,
  );
}

await runMain(async () => {
  requireNode();
  await ensurePackages({ browser: true });
  await ensureNodeModules();
  await ensureValidators();
  if (parts.includes('models')) await models();
  if (!parts.some((part) => part !== 'models')) return;
  const webFolder = await ensureWebBuild();
  const home = join(dataFolder(), `bench-${process.pid}`);
  const postgres = await startPostgres({ home });
  try {
    if (parts.includes('pad')) await pad(postgres, webFolder);
    if (parts.includes('page')) await page(postgres, webFolder);
    if (!parts.includes('api')) return;
    say('filling a yard of 500 units and 20,000 runs, then measuring the API');
    console.log(
      await run(process.execPath, ['--import', 'tsx', 'server/bench/bench.ts'], {
        cwd: root,
        env: { ...process.env, DATABASE_URL: postgres.url },
      }),
    );
  } finally {
    await postgres.stop();
    rmSync(home, { recursive: true, force: true });
  }
});
