/* Takes one picture of each main view from the demo world, always of the same day, into docs/screenshots; with names, those alone. */
import { mkdirSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { dataFolder } from './setup/dataFolder.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { chromiumPath, ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { runMain, say } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators, ensureWebBuild } from './setup/webBuild.mjs';

const TODAY = '2026-11-24T12:00:00Z';
const folder = join(root, 'docs/screenshots');
const asked = process.argv.slice(2);

/** Answers each line that waits for one as it should be. */
const answerAll = async (page) => {
  const pad = page.getByTestId('pad');
  for (;;) {
    const before = await pad.innerText();
    if (!before.includes('to answer')) return;
    await page.keyboard.press('g');
    await page.clock.runFor(50);
  }
};
const press = async (page, title) => {
  await page.getByTestId('pad').getByText(title).waitFor();
  await page.clock.runFor(400);
  await page.getByTestId('pad').click();
};
const nudge = async (page, direction, times) => {
  for (let n = 0; n < times; n += 1)
    await page.getByRole('button', { name: `Move the reading ${direction}` }).click();
};

async function toUnit(page, unit) {
  const units = page.getByRole('list', { name: 'Units' });
  await units.getByRole('link', { name: new RegExp(`^${unit}`) }).click();
  await page.getByText('Air system').waitFor();
}
async function toStart(page, unit) {
  await toUnit(page, unit);
  await page.getByRole('button', { name: 'Start a run' }).click();
  await page.getByRole('list', { name: 'Steps' }).waitFor();
}
async function toPrepare(page, unit) {
  await toStart(page, unit);
  await page.getByRole('button', { name: 'Start the run' }).click();
  await page.getByText('Make it safe').waitFor();
}
async function toCutOut(page, unit) {
  await toPrepare(page, unit);
  await answerAll(page);
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await page.getByTestId('pad').getByText('Needle at 100 psi').waitFor();
  await page.clock.runFor(26_000);
  await press(page, 'Needle at 100 psi');
  await page.getByTestId('pad').getByText('Stopped at').waitFor();
}
async function toLook(page, unit) {
  await toCutOut(page, unit);
  await nudge(page, 'up', 1);
  await press(page, 'Stopped at 126 psi');
  await page.getByTestId('pad').getByText('Climbs from').waitFor();
  await nudge(page, 'up', 6);
  await press(page, 'Climbs from 106 psi');
}
async function toHold(page, unit) {
  await toLook(page, unit);
  await page
    .getByTestId('pad')
    .getByText(/to answer|Engine off/)
    .waitFor();
  if ((await page.getByTestId('pad').innerText()).includes('to answer')) {
    await answerAll(page);
    await press(page, 'Keep what was found');
  }
  await page.getByTestId('pad').getByText('Engine off').waitFor();
  await nudge(page, 'down', 6);
  await press(page, 'Engine off, released, at 120 psi');
  await page.getByTestId('settling').waitFor();
  await page.clock.runFor(180_000);
  await nudge(page, 'down', 1);
  await nudge(page, 'up', 1);
  await press(page, 'Settled at 120 psi: start');
  await page.clock.runFor(61_000);
  await press(page, 'Needle on 118 psi');
  await page.clock.runFor(35_000);
}
/** The service stop, everything before it left aside, with a simulated stop under the phone’s own reading. */
async function toMeasuredStop(page, unit) {
  await toPrepare(page, unit);
  await answerAll(page);
  await press(page, 'All done, ready');
  const heading = page.getByRole('heading', { level: 2 }).first();
  for (;;) {
    const title = await heading.innerText();
    if (title.includes('Service stop')) break;
    await page.getByRole('button', { name: /^Skip/ }).first().click();
    await page.getByRole('button', { name: 'Not asked for today' }).click();
    await page.clock.runFor(400);
    await heading.filter({ hasNotText: title }).waitFor();
  }
  await page.getByRole('button', { name: /This phone/ }).click();
  await page.getByRole('button', { name: /Simulated stop/ }).click();
  await page.clock.runFor(400);
}
const knob = (page, group, value) =>
  page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: value, exact: true });
async function toBay(page, rig) {
  await page.getByRole('link', { name: 'Bay' }).click();
  await page.getByLabel('Find a rig').fill(rig);
  await page.getByLabel('Rig', { exact: true }).selectOption({ label: rig });
  await page.getByRole('button', { name: 'Start' }).click();
  await knob(page, 'Engine', '1,400').click();
  await knob(page, 'Park, yellow', 'in').click();
  await knob(page, 'Time', '× 16').click();
  // The worker's clock is the machine's own.
  await new Promise((resolve) => setTimeout(resolve, 4_000));
}

const onDrawing = (page, part) =>
  page
    .getByRole('group', { name: /from above/ })
    .getByRole('button', { name: part })
    .first();
async function toDrawing(page, unit) {
  await toUnit(page, unit);
  await page.getByRole('link', { name: 'See it drawn' }).click();
  await page.getByRole('radiogroup', { name: 'Circuit' }).waitFor();
}

/** A truck's test as a logger would have it, out of the twin. */
async function loggedTest() {
  const { register } = await import('tsx/esm/api');
  const unregister = register();
  const { makeLog } = await import('../server/src/demo/demoLog.ts');
  await unregister();
  return makeLog();
}
async function toRecord(page, unit) {
  await toUnit(page, unit);
  await page.getByRole('list', { name: 'Runs' }).getByRole('link').first().click();
  await page.getByText('The ladder').waitFor();
}

/** Suspects of a unit, once every fault is weighed and the next check is named. */
async function toSuspects(page, unit) {
  await toUnit(page, unit);
  await page.getByRole('button', { name: /^What is it/ }).click();
  await page.getByText(/^Next: parts these/).waitFor({ timeout: 180_000 });
  await page.getByText(/^working out/).waitFor({ state: 'hidden', timeout: 180_000 });
}

const views = [
  // First of all: those who come in for the others would fill it.
  {
    name: 'audit-wide-light',
    wide: true,
    light: true,
    go: async (page) => {
      await page.getByRole('link', { name: 'Shop', exact: true }).click();
      await page.getByRole('link', { name: /^Audit trail/ }).click();
      await page.getByRole('heading', { name: 'Audit trail', level: 1 }).waitFor();
    },
  },
  { name: 'yard-phone-light', light: true },
  { name: 'yard-wide-dark', wide: true },
  {
    name: 'rig-phone-dark',
    go: async (page) => {
      await toUnit(page, 'Tractor 07');
      await page.getByText('Cut-in').first().waitFor();
    },
  },
  { name: 'stop-phone-dark', as: 'idris', go: (page) => toMeasuredStop(page, 'Gritter 18') },
  {
    name: 'plan-wide-dark',
    as: 'idris',
    wide: true,
    go: async (page) => {
      await toDrawing(page, 'Tractor 11');
      await page.getByRole('radio', { name: '11', exact: true }).click();
      await onDrawing(page, 'Compressor').waitFor();
    },
  },
  {
    name: 'run-cut-out-phone-light',
    as: 'idris',
    light: true,
    go: (page) => toCutOut(page, 'Gritter 15'),
  },
  { name: 'run-hold-phone-dark', as: 'idris', go: (page) => toHold(page, 'Gritter 18') },
  {
    name: 'bench-wide-dark',
    as: 'idris',
    wide: true,
    go: async (page) => {
      await toUnit(page, 'Tipper 21');
      await page.getByRole('button', { name: 'Bench' }).click();
      await page.getByRole('link', { name: /^Relay-emergency valve/ }).click();
      await page
        .getByText(/^Beside a sound rig like this/)
        .first()
        .waitFor({ timeout: 60_000 });
      await page.getByRole('link', { name: /^Rear relay · 21/ }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'record-phone-light',
    light: true,
    go: async (page) => {
      await toRecord(page, 'Tractor 07');
      await page.getByRole('list', { name: 'Suspects' }).waitFor({ timeout: 180_000 });
      await page.getByText(/^Rough/).waitFor({ state: 'hidden', timeout: 180_000 });
    },
  },
  {
    name: 'hunt-phone-dark',
    as: 'idris',
    go: async (page) => {
      await toUnit(page, 'Gritter 12');
      await page.getByRole('button', { name: 'Leak hunt' }).click();
      await page.getByRole('list', { name: 'Air lost and found' }).waitFor({ timeout: 60_000 });
      await page.getByRole('radio', { name: 'Released', exact: true }).click();
      await page.getByRole('button', { name: /^Mended: / }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'water-phone-light',
    as: 'idris',
    light: true,
    go: async (page) => {
      await toUnit(page, 'Tractor 07');
      await page.getByRole('button', { name: 'Water', exact: true }).click();
      await page.getByRole('list', { name: 'Frost risk by line' }).scrollIntoViewIfNeeded();
    },
  },
  {
    name: 'visit-phone-light',
    as: 'idris',
    light: true,
    go: async (page) => {
      await page.getByRole('link', { name: 'Work', exact: true }).click();
      await page.getByRole('link', { name: /Visit.*Gritter 12/ }).click();
      await page.getByText('Hose rubs').waitFor();
    },
  },
  {
    name: 'jobs-wide-light',
    wide: true,
    light: true,
    go: async (page) => {
      await page.getByRole('link', { name: 'Jobs', exact: true }).click();
      await page.getByRole('list', { name: 'Open jobs' }).waitFor();
    },
  },
  {
    name: 'job-phone-dark',
    as: 'idris',
    go: async (page) => {
      await page.getByRole('link', { name: 'Jobs', exact: true }).click();
      await page
        .getByRole('list', { name: 'Open jobs' })
        .getByRole('link', { name: /Crew bus 02/ })
        .click();
      await page
        .getByText(/should read/)
        .first()
        .waitFor();
    },
  },
  { name: 'bay-phone-light', light: true, go: (page) => toBay(page, 'Gritter 18') },
  {
    name: 'bay-through-wide-dark',
    wide: true,
    go: async (page) => {
      await toBay(page, 'Tractor 09 + Low-loader 31');
      await knob(page, 'Trailer supply, red', 'in').click();
      await page.getByText('See the air in it').click();
      await onDrawing(page, 'Rear relay').waitFor();
    },
  },
  {
    name: 'trace-wide-light',
    wide: true,
    light: true,
    go: async (page) => {
      await page.goto('/trace');
      await page.locator('input[type=file]').setInputFiles({
        name: 'log.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(await loggedTest()),
      });
      await page.getByRole('button', { name: 'Read it' }).click();
      await page.getByRole('list', { name: 'Segments' }).waitFor();
    },
  },
  { name: 'suspects-phone-dark', as: 'idris', go: (page) => toSuspects(page, 'Tipper 04') },
];

await runMain(async () => {
  requireNode();
  await ensurePackages({ browser: true });
  await ensureNodeModules();
  await ensureValidators();
  const webFolder = await ensureWebBuild();
  const home = join(dataFolder(), `shots-${process.pid}`);
  const postgres = await startPostgres({ home, throwaway: true });
  try {
    const server = await startServer({
      DATABASE_URL: postgres.url,
      SESSION_SECRET: 'pictures only',
      PORT: '0',
      WEB_FOLDER: webFolder,
      DEMO: '1',
      DEMO_TODAY: TODAY,
    });
    const { chromium } = createRequire(join(root, 'e2e/package.json'))('@playwright/test');
    const browser = await chromium.launch({
      executablePath: chromiumPath,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
      ],
    });
    mkdirSync(folder, { recursive: true });
    try {
      const wanted = views.filter(({ name }) => asked.length === 0 || asked.includes(name));
      for (const { name, as = 'maren', wide = false, light = false, go } of wanted) {
        const context = await browser.newContext({
          baseURL: server.url,
          viewport: wide ? { width: 1280, height: 800 } : { width: 390, height: 844 },
          colorScheme: light ? 'light' : 'dark',
          timezoneId: 'UTC',
          serviceWorkers: 'block',
        });
        const page = await context.newPage();
        await page.clock.install({ time: new Date(TODAY) });
        if (as) {
          await page.request.post('/api/sign-in', {
            data: { signInName: as, password: 'grit-before-snow' },
          });
        }
        await page.goto('/');
        if (as) await page.getByRole('heading', { name: 'Yard', level: 1 }).waitFor();
        if (as) await page.getByRole('listitem').first().waitFor();
        await go?.(page);
        // What is still on its way is no picture of the view; before its script has come a view is nothing at all.
        await page
          .getByRole(as ? 'main' : 'heading')
          .first()
          .waitFor();
        const onItsWay = page.getByRole('progressbar', { name: 'Loading' });
        while ((await onItsWay.count()) > 0) await page.clock.runFor(50);
        await page.evaluate(() => document.fonts.ready);
        await page.clock.runFor(1_000);
        await page.screenshot({ path: join(folder, `${name}.png`) });
        say(name);
        await context.close();
      }
    } finally {
      // A view that fails must not leave a browser and a server behind.
      await browser.close();
      await server.stop();
    }
  } finally {
    await postgres.stop();
    rmSync(home, { recursive: true, force: true });
  }
});
