import type { Page } from '@playwright/test';
import {
  allSent,
  expect,
  fillSignIn,
  nudge,
  pad,
  press,
  runToHold,
  signIn,
  startRun,
  test,
  type OwnServer,
} from './ownServer';

test.beforeEach(async ({ page }) => {
  await page.clock.install();
});

/** How many facts of a run the server has. */
const countEvents = (server: OwnServer, runId: string): string =>
  server.query(`select count(*) from facts where log_id = '${runId}'`);

/** What a 2-psi dial and a limit of 2 psi/min ask a hold to last, s. */
const HELD_S = 225;

/** How far the clock on the screen is from what the start mark and the device's time make of it, s. */
async function clockIsOffBy(page: Page, startedAtMs: number): Promise<number> {
  const { shown, nowMs } = await page.evaluate(() => ({
    shown: document.querySelector('[data-testid="clock"]')?.textContent ?? '',
    nowMs: Date.now(),
  }));
  const [minutes = NaN, seconds = NaN] = shown.split(':').map(Number);
  return Math.abs(minutes * 60 + seconds - (HELD_S - (nowMs - startedAtMs) / 1000));
}

test(
  'a reload in the middle of a hold goes on at the same place with the clock right',
  { tag: ['@both', '@main'] },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    await startRun(page, 'Gritter 18');
    const id = page.url().split('/').at(-1) ?? '';
    await runToHold(page);
    await expect(page.getByTestId('clock')).toBeVisible();
    const startedAt = () =>
      server.query(
        `select fact->>'atMs' from facts where log_id = '${id}' and fact->>'key' = 'start'`,
      );
    // The sign still says so of the time before the press: the server is asked.
    await expect.poll(startedAt).not.toBe('');
    const started = startedAt();
    await page.clock.fastForward(20_000);
    await expect.poll(() => clockIsOffBy(page, Number(started))).toBeLessThan(1.5);
    await page.reload();
    await expect(page.getByTestId('clock')).toBeVisible();
    await page.clock.fastForward(10_000);
    await expect.poll(() => clockIsOffBy(page, Number(started))).toBeLessThan(1.5);
    // Both turns of the device's clock count: without them the same place would be no proof.
    const passedMs = await page.evaluate(() => Date.now());
    expect(passedMs - Number(started)).toBeGreaterThanOrEqual(30_000);
  },
);

test('a phone that slept through the end wakes to a hold that is over', async ({ page }) => {
  await signIn(page, 'idris');
  await startRun(page, 'Gritter 15');
  await runToHold(page);
  await expect(page.getByTestId('clock')).toHaveText(/^3:4[0-5]$/);
  // Jumps the clock without running the timers between, as a locked phone does.
  await page.clock.fastForward(600_000);
  await expect(page.getByTestId('clock')).toHaveText('0:00');
  await expect(pad(page)).toContainText('Now at 120 psi');
});

test(
  'marks made without network are kept, shown as not sent, and sent once when it is back',
  { tag: '@main' },
  async ({ page, context, server }) => {
    await signIn(page, 'paula');
    await startRun(page, 'Tractor 07');
    const id = page.url().split('/').at(-1) ?? '';
    await press(page, 'All done, ready');
    // The sign still says so of the time before the press: the server is asked.
    await expect.poll(() => countEvents(server, id)).toBe('2');
    await allSent(page);
    await context.setOffline(true);
    await press(page, 'Needle at 85 psi');
    await expect(page.getByTestId('outbox')).toContainText('1 not sent · no network');
    await page.clock.fastForward(30_000);
    await press(page, 'Needle at 100 psi');
    await expect(page.getByTestId('outbox')).toContainText('2 not sent');
    expect(server.query(`select count(*) from facts where log_id = '${id}'`)).toBe('2');
    await context.setOffline(false);
    await allSent(page);
    expect(
      server.query(`select count(*), count(distinct id) from facts where log_id = '${id}'`),
    ).toBe('4|4');
  },
);

test('a closed tab finds its run again under Run', async ({ page, context }) => {
  await signIn(page, 'maren');
  await startRun(page, 'Tipper 04');
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await expect(pad(page)).toContainText('Needle at 100 psi');
  await page.close();
  const again = await context.newPage();
  await again.goto('/run');
  await again.getByRole('link', { name: /Tipper 04/ }).click();
  await expect(pad(again)).toContainText('Needle at 100 psi');
});

test('with the database down it says so, keeps the marks, and sends them later', async ({
  page,
  server,
}) => {
  await signIn(page, 'maren');
  await startRun(page, 'Old gritter 03');
  const id = page.url().split('/').at(-1) ?? '';
  await press(page, 'All done, ready');
  // The sign still says so of the time before the press: the server is asked.
  await expect.poll(() => countEvents(server, id)).toBe('2');
  await allSent(page);
  server.shutDatabase(true);
  await press(page, 'Needle at 50 psi');
  await expect(page.getByTestId('outbox')).toContainText('database down: 1 waits');
  server.shutDatabase(false);
  await page.clock.fastForward(5_000);
  await allSent(page);
  expect(server.query(`select count(*) from facts where log_id = '${id}'`)).toBe('3');
});

test('a clock that is set back in the middle of a run stops nothing', async ({ page }) => {
  await signIn(page, 'maren');
  await startRun(page, 'Tipper 21', { alone: true, ruleSet: 'Road-test examiner' });
  await press(page, 'All done, ready');
  await expect(pad(page)).toContainText('Needle at 5.9 bar');
  // A press that follows too soon is taken for a glove that bounced.
  await page.clock.fastForward(3_000);
  await pad(page).click();
  await expect(pad(page)).not.toContainText('Needle at 5.9 bar');
  const before = await pad(page).textContent();
  await page.clock.setSystemTime(Date.now() - 598_000);
  await pad(page).click();
  await expect(pad(page)).not.toHaveText(before!);
  await expect(page.getByText('went back')).toHaveCount(0);
  // And after the page was opened anew, which did not see the clock being set.
  const second = await pad(page).textContent();
  await page.reload();
  await expect(pad(page)).toHaveText(second!);
  await pad(page).click();
  await expect(pad(page)).not.toHaveText(second!);
  await page.getByRole('button', { name: /^Stop here/ }).click();
  await page.getByRole('button', { name: 'Called away' }).click();
  await expect(page.getByText('Cut short: Called away')).toBeVisible();
  await allSent(page);
});

test('a session that ended while a form was open loses nothing that was typed', async ({
  page,
  server,
}) => {
  await signIn(page, 'maren');
  await page.getByRole('link', { name: 'Add a unit' }).click();
  await page.getByLabel('What it is').fill('Sweeper');
  const number = `S${Date.now() % 100_000}`;
  await page.getByLabel('Unit number').fill(number);
  server.query('delete from sessions');
  await page.getByRole('button', { name: 'Add to the yard' }).click();
  const dialog = page.getByRole('dialog', { name: 'Sign in again' });
  await expect(dialog).toContainText('What you were doing is still here');
  await dialog.getByLabel('Password').fill('grit-before-snow');
  await dialog.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel('What it is')).toHaveValue('Sweeper');
  await page.getByRole('button', { name: 'Add to the yard' }).click();
  await expect(page.getByRole('heading', { name: `Sweeper ${number}` })).toBeVisible();
});

test(
  'a form left half filled is there again after the tab was closed',
  { tag: '@main' },
  async ({ page, context }) => {
    await signIn(page, 'maren');
    await page.getByRole('link', { name: 'Add a unit' }).click();
    await page.getByLabel('What it is').fill('Half a plough');
    await page.close();
    const again = await context.newPage();
    await again.goto('/unit/new');
    await expect(again.getByLabel('What it is')).toHaveValue('Half a plough');
    await expect(again.getByText('Found again as you left it')).toBeVisible();
    await again.getByRole('button', { name: 'Start over' }).click();
    await expect(again.getByLabel('What it is')).toHaveValue('');
  },
);

test('a mark far off the gauge cannot be reached from the pad', async ({ page }) => {
  await signIn(page, 'idris');
  await startRun(page, 'Tractor 11', { alone: true });
  await press(page, 'All done, ready');
  await page.getByRole('button', { name: 'Skip Build up' }).click();
  await page.getByRole('button', { name: 'Not asked for today' }).click();
  await expect(pad(page)).toContainText('Stopped at');
  await nudge(page, 'up', 27);
  await expect(pad(page)).toContainText('Stopped at 150 psi');
});

test('the wrong password is refused in words, and the right one then taken', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('Sign-in name').fill('maren');
  await page.getByLabel('Password').fill('not this one');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Name and password do not fit together.');
  await fillSignIn(page, 'maren');
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
});
