import { expectNoFindings } from './axe';
import { allAtHand, expect, signIn, test } from './ownServer';

test.use({ serviceWorkers: 'allow' });

test(
  'parts are confirmed by a tap with no network, and stand in the unit once it is back',
  { tag: '@both' },
  async ({ page, context }) => {
    await signIn(page, 'idris');
    await allAtHand(page);
    await context.setOffline(true);
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Gritter 18/ })
      .click();
    await page.getByRole('link', { name: /^Parts: \d+ confirmed/ }).click();
    const list = page.getByRole('list', { name: 'Parts' });
    const line = (title: string) =>
      list
        .getByRole('listitem')
        .filter({ has: page.getByRole('button', { name: `${title}: say more`, exact: true }) });
    await page.getByRole('button', { name: 'Foot valve: seen, it is fitted' }).click();
    await expect(line('Foot valve')).toContainText('fitted, ');
    await page.getByRole('button', { name: 'Rear relay: say more', exact: true }).click();
    await page.getByLabel(/^Crack or set pressure/).fill('4');
    await page.getByLabel('Fitted on').fill('last week');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('such as 2026-11-24')).toBeVisible();
    await page.getByLabel('Fitted on').fill('2026-10-02');
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(line('Rear relay')).toContainText('set to 4 psi · fitted on 2026-10-02');
    await page.getByRole('button', { name: 'Spring brake modulating valve: say more' }).click();
    await page.getByRole('radio', { name: 'not fitted' }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(line('Spring brake modulating valve')).toContainText('not fitted, ');
    await expectNoFindings(page);
    await context.setOffline(false);
    await page.getByRole('link', { name: /^Rig sheet of/ }).click();
    await expect(page.getByRole('link', { name: 'Parts: 4 confirmed' })).toBeVisible();
    await expect(page.getByText('no modulating valve')).toBeVisible();
  },
);
