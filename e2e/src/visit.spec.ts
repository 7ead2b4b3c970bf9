import { expectNoFindings } from './axe';
import { allAtHand, expect, signIn, test } from './ownServer';
import type { Page } from '@playwright/test';

/** Opens a unit's sheet from the yard and starts a visit on it. */
async function startVisit(page: Page, unit: string, why: string): Promise<string> {
  const units = page.getByRole('list', { name: 'Units' });
  await units.getByRole('link', { name: new RegExp(`^${unit}\\b`) }).click();
  await page.getByRole('button', { name: 'Start a visit' }).click();
  await page.getByLabel('Why').fill(why);
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByText('Nothing noted yet')).toBeVisible();
  return page.url().split('/').at(-1) ?? '';
}

/** Says how a part is. */
async function add(page: Page, where: string, how: string, words: string): Promise<void> {
  await page.getByLabel('Where').selectOption(where);
  await page.getByRole('radio', { name: how }).click();
  await page.getByLabel('In a few words').fill(words);
  await page.getByRole('button', { name: 'Add what I saw' }).click();
  await expect(page.getByRole('list', { name: 'Notes and findings' })).toContainText(words);
}

test(
  'two people write in one visit, each sees the other’s, and it stands on the sheet',
  { tag: ['@both', '@main'] },
  async ({ page, browser, server }, { project }) => {
    const unit = project.name === 'wide' ? 'Tractor 09' : 'Gritter 18';
    await signIn(page, 'idris');
    const id = await startVisit(page, unit, 'Drags after release');
    // How a part is has to be said: nothing is chosen beforehand.
    await page.getByLabel('Where').selectOption('Rear relay');
    await page.getByLabel('In a few words').fill('Hiss at the exhaust');
    await page.getByRole('button', { name: 'Add what I saw' }).click();
    await expect(page.getByText('Say how it is: good, worth noting, or not right.')).toBeVisible();
    await add(page, 'Rear relay', 'Not right', 'Hiss at the exhaust');
    await expectNoFindings(page);
    await expect
      .poll(() => server.query(`select count(*) from facts where log_id = '${id}'`))
      .toBe('1');

    const other = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' });
    const theirs = await other.newPage();
    await signIn(theirs, 'paula');
    await theirs.goto('/work');
    await theirs
      .getByRole('link', { name: new RegExp(`Visit.*${unit}`) })
      .first()
      .click();
    await expect(theirs.getByText('Hiss at the exhaust')).toBeVisible();
    await expect(theirs.getByText(/Idris Fenn/).first()).toBeVisible();
    await add(theirs, 'Park relay', 'Good', 'Quiet, parked and released');
    // It comes in by itself on the first phone, which can only put right what it wrote itself.
    await expect(page.getByText('Quiet, parked and released')).toBeVisible();
    await expect(page.getByText(/Paula Quill/).first()).toBeVisible();
    await expect(page.getByRole('button', { name: /^Correct: Quiet/ })).toHaveCount(0);
    await other.close();

    await page.getByRole('button', { name: 'Correct: Hiss at the exhaust' }).click();
    await page.getByLabel('In a few words').fill('Hiss at the exhaust, released');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByRole('list', { name: 'Notes and findings' })).toContainText(
      'Hiss at the exhaust, released',
    );
    await expect(page.getByText('Hiss at the exhaust', { exact: true })).toHaveCount(0);
    await page.getByRole('button', { name: 'Close the visit' }).click();
    await expect(page.getByRole('button', { name: 'Close the visit' })).toHaveCount(0);
    await expect
      .poll(() => server.query(`select closed_at_ms is not null from logs where id = '${id}'`))
      .toBe('t');
    await page.getByRole('link', { name: `Sheet of ${unit}` }).click();
    await expect(page.getByRole('list', { name: 'Visits' })).toContainText(
      '1 thing is not right: Hiss at the exhaust, released',
    );
  },
);

test.describe('without network', () => {
  test.use({ serviceWorkers: 'allow' });

  test('a visit is started and written, and reaches the server once it is back', async ({
    page,
    context,
    server,
  }) => {
    await signIn(page, 'idris');
    await allAtHand(page);
    await context.setOffline(true);
    const id = await startVisit(page, 'Tipper 04', 'Squeals');
    await add(page, 'Compressor', 'Worth noting', 'Belt is glazed');
    await page.reload();
    await expect(page.getByText('Belt is glazed')).toBeVisible();
    await page.getByRole('button', { name: 'Take back: Belt is glazed' }).click();
    await expect(page.getByText('Nothing noted yet')).toBeVisible();
    await context.setOffline(false);
    await expect
      .poll(() => server.query(`select count(*) from facts where log_id = '${id}'`))
      .toBe('2');
  });
});

test('a viewer reads a visit and is offered nothing to write', async ({ page }) => {
  await signIn(page, 'joss');
  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await page.getByRole('link', { name: /Visit.*Gritter 12/ }).click();
  await expect(page.getByRole('list', { name: 'Notes and findings' })).toContainText('Hose rubs');
  await expect(page.getByRole('button', { name: /Close the visit|Add|Correct/ })).toHaveCount(0);
});
