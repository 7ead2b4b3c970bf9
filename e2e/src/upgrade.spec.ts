import { test as base, expect } from '@playwright/test';
import { appendFileSync, cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expectNoFindings } from './axe';
import { emptyDatabase, press, signIn, startRun, startServer } from './ownServer';

/** A server whose web build can be replaced while it runs, as an upgrade does. */
const test = base.extend<object, { upgraded: { url: string; folder: string } }>({
  upgraded: [
    // eslint-disable-next-line no-empty-pattern -- Playwright reads the names of what is asked for
    async ({}, use, info) => {
      const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-web-'));
      cpSync(process.env.WEB_FOLDER ?? '', folder, { recursive: true });
      const { port, stop } = await startServer({
        DATABASE_URL: emptyDatabase(`e2e_upgrade_${process.pid}_${info.workerIndex}`),
        SESSION_SECRET: 'browser tests only',
        DEMO: '1',
        WEB_FOLDER: folder,
      });
      await use({ url: `http://127.0.0.1:${port}`, folder });
      await stop();
      rmSync(folder, { recursive: true });
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ upgraded }, use) => {
    await use(upgraded.url);
  },
});

test('a part that is gone from the server is said, and reloading goes on', async ({ page }) => {
  await signIn(page, 'idris');
  let isGone = true;
  await page.route(/\/_expo\/static\/js\/web\/beyondYard.*\.js/, (route) =>
    isGone ? route.fulfill({ status: 404, body: '' }) : route.continue(),
  );
  await page.getByRole('link', { name: 'Bay' }).click();
  await expect(page.getByText('This page is older than the server')).toBeVisible();
  await expect(page.getByText(/Every mark you made is kept on this device/)).toBeVisible();
  await expectNoFindings(page);
  isGone = false;
  await page.getByRole('button', { name: 'Reload' }).click();
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Bay' }).click();
  await expect(page.getByRole('heading', { name: 'Bay', level: 1 })).toBeVisible();
});

test.describe('a newer version', () => {
  test.use({ serviceWorkers: 'allow' });

  test('waits while something is recorded, and takes over when it is told to', async ({
    page,
    context,
    upgraded,
  }) => {
    await signIn(page, 'idris');
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const run = await context.newPage();
    await run.goto('/');
    await startRun(run, 'Gritter 18');
    await press(run, 'All done, ready');
    appendFileSync(join(upgraded.folder, 'service-worker.js'), '\n// a newer version\n');
    await page.evaluate(async () => {
      await (await navigator.serviceWorker.ready).update();
    });
    await expect(page.getByText('A newer version is ready.')).toBeVisible();
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Take it' }).click();
    await expect(page.getByText(/finish it first, then take the newer version/)).toBeVisible();
    // The run goes on, in its own version.
    await press(run, 'Needle at 85 psi');
    await run.close();
    const loaded = page.waitForEvent('load');
    await page.getByRole('button', { name: 'Take it' }).click();
    await loaded;
    await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
    await expect(page.getByText('A newer version is ready.')).toBeHidden();
    expect(
      await page.evaluate(async () => (await navigator.serviceWorker.ready).waiting === null),
    ).toBe(true);
  });
});
