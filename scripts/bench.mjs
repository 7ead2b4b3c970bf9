/* Measures what is promised, side by side in one run, and prints it as a table. */
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { drawsAir } from './bench/drawsAir.mjs';
import { dragsJobs } from './bench/dragsJobs.mjs';
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

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Opens the app as a phone, and gives the script bytes until the yard stands and the work of each tap. */
async function inTheBrowser(url) {
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

  await page.getByRole('link', { name: /Gritter 18/ }).click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await page.getByRole('button', { name: 'Start the run' }).click();
  const pad = page.getByTestId('pad');
  await pad.waitFor();
  const cdp = await page.context().newCDPSession(page);
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.evaluate(() => {
    globalThis.taps = [];
    // The work of the press itself, as the browser measures it: from the first handler to the end of the last.
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) {
        if (entry.name === 'pointerdown')
          globalThis.taps.push({
            work: entry.processingEnd - entry.processingStart,
            shown: entry.duration,
          });
      }
    }).observe({ type: 'event', durationThreshold: 16, buffered: true });
    globalThis.long = [];
    new PerformanceObserver((list) =>
      globalThis.long.push(...list.getEntries().map((entry) => entry.duration)),
    ).observe({ type: 'longtask' });
  });
  const works = [];
  const felt = [];
  for (let tap = 0; tap < 6; tap += 1) {
    const before = await pad.textContent();
    const box = await pad.boundingBox();
    await page.waitForTimeout(700);
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const task = async () =>
      (await cdp.send('Performance.getMetrics')).metrics.find(
        (metric) => metric.name === 'ScriptDuration',
      ).value;
    await cdp.send('Performance.enable');
    const started = await task();
    // The pad's own look changes when the touch is felt; the mark is confirmed later, once it is kept.
    await page.evaluate(() => {
      const target = document.querySelector('[data-testid="pad"]');
      globalThis.felt = new Promise((resolve) => {
        const watch = new MutationObserver(() => {
          watch.disconnect();
          resolve(performance.now() - globalThis.touchedAt);
        });
        watch.observe(target, { attributes: true, attributeFilter: ['style', 'class'] });
        target.addEventListener('pointerdown', () => (globalThis.touchedAt = performance.now()), {
          once: true,
          capture: true,
        });
      });
    });
    await page.mouse.down();
    felt.push(await page.evaluate(() => globalThis.felt));
    await page.mouse.up();
    await page.waitForFunction(
      (old) => document.querySelector('[data-testid="pad"]').textContent !== old,
      before,
    );
    works.push(((await task()) - started) * 1000);
  }
  const { taps, long } = await page.evaluate(() => ({
    taps: globalThis.taps,
    long: globalThis.long,
  }));
  return { firstLoad, taps, long, works, felt };
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

await runMain(async () => {
  requireNode();
  await ensurePackages({ browser: true });
  await ensureNodeModules();
  await ensureValidators();
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
  const webFolder = await ensureWebBuild();
  const home = join(dataFolder(), `bench-${process.pid}`);
  const postgres = await startPostgres({ home });
  try {
    say('measuring the page');
    const server = await startServer({
      DATABASE_URL: postgres.url,
      SESSION_SECRET: 'bench',
      PORT: '0',
      WEB_FOLDER: webFolder,
      DEMO: '1',
      LOG_LEVEL: 'silent',
    });
    // Whatever goes wrong in the page, the server is not left running.
    const { firstLoad, taps, long, works, felt, traces, air, jobs, hunt } = await (async () => ({
      ...(await inTheBrowser(server.url)),
      traces: await readsTraces(server.url, [10_000, 100_000, 1_000_000]),
      air: await drawsAir(launchBrowser, server.url),
      jobs: await dragsJobs(launchBrowser, server.url),
      hunt: await huntWalks(launchBrowser, server.url),
    }))().finally(server.stop);
    const shell = await shellBytes();
    const kB = (bytes) => `${(bytes / 1000).toFixed(0)} kB`;
    console.log(
      `Dragging a marker on a board of ${jobs.shown} jobs: ${jobs.dragged.perSecond.toFixed(0)} frames/s, longest gap ${jobs.dragged.longestMs.toFixed(0)} ms (60 asked; left alone ${jobs.still.perSecond.toFixed(0)} frames/s, ${jobs.still.longestMs.toFixed(0)} ms)`,
    );
    console.log('First load until the yard stands, script, gzipped');
    console.log(
      `  ours ${kB(firstLoad)}   empty shell of the same stack ${kB(shell)}   ours/shell ${(firstLoad / shell).toFixed(2)}`,
    );
    console.log('A tap on the pad at 4 × CPU slow-down, 6 taps');
    const work = taps.map((tap) => tap.work);
    console.log(
      `  in the press itself: median ${median(work)?.toFixed(1)} ms, most ${Math.max(...work).toFixed(1)} ms (${work.length} measured)`,
    );
    console.log(
      `  from the touch to the pad that shows it: median ${median(felt).toFixed(1)} ms, most ${Math.max(...felt).toFixed(1)} ms`,
    );
    console.log(
      `  script from the press to the changed pad: median ${median(works).toFixed(1)} ms, most ${Math.max(...works).toFixed(1)} ms`,
    );
    console.log(
      `  tasks over 50 ms: ${long.length}${long.length ? ` (longest ${Math.max(...long).toFixed(0)} ms)` : ''}`,
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
