import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, signIn, test } from './ownServer';

const knob = (page: Page, group: string, value: string) =>
  page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: value, exact: true });

test(
  'a rig in the Bay is driven, seen through, hunted and told',
  { tag: '@both' },
  async ({ page }) => {
    await signIn(page, 'idris');
    await page.getByRole('link', { name: 'Bay' }).click();
    await page.getByLabel('Rig').selectOption({ label: 'Gritter 18' });
    await page.getByRole('radio', { name: 'one hidden' }).click();
    await page.getByRole('button', { name: 'Bring it in' }).click();
    const gauges = page.getByRole('img', { name: /^Gauges/ });
    const primary = async () =>
      Number(/prim\. (\d+)/.exec((await gauges.getAttribute('aria-label')) ?? '')?.[1]);
    await expect(gauges).toBeVisible();
    const before = await primary();
    await knob(page, 'Engine', '2,100').click();
    await knob(page, 'Time', '× 16').click();
    // In time of its own, in a worker: the needle climbs.
    await expect.poll(primary).toBeGreaterThan(before + 10);
    await knob(page, 'Park, yellow', 'in').click();
    await expect(knob(page, 'Park, yellow', 'in')).toBeChecked();
    await page.getByLabel('Soap on').selectOption('secondary tank');
    await page.getByRole('button', { name: 'Wet it' }).click();
    await expect(page.getByRole('log', { name: 'Found' })).toContainText('secondary tank');
    await page.getByRole('button', { name: 'See through the rig' }).click();
    await page.getByRole('button', { name: 'spring line', exact: true }).click();
    await expect(page.getByText('Air here holds the parking springs off.')).toBeVisible();
    const found = await new AxeBuilder({ page }).analyze();
    expect(found.violations).toEqual([]);
    await page.getByRole('button', { name: 'Say so, and see' }).click();
    await expect(page.getByText(/It was: .+\. 1 checks?, .+ minutes/)).toBeVisible();
    await page.getByRole('button', { name: 'Another rig' }).click();
    await expect(page.getByRole('button', { name: 'Bring it in' })).toBeVisible();
  },
);

test('a rig’s air is drawn on its sheet', async ({ page }) => {
  await signIn(page, 'joss');
  await page
    .getByRole('list', { name: 'Units' })
    .getByRole('link', { name: /^Tractor 09/ })
    .click();
  await page.getByRole('link', { name: 'See it drawn' }).click();
  await page.getByRole('button', { name: 'primary tank', exact: true }).click();
  await expect(page.getByText('Air for the rear axles.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Low-loader 31 tank/ })).toBeVisible();
});
