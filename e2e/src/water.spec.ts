import { expectNoFindings } from './axe';
import { closeVisit } from './closeVisit';
import { expect, signIn, test } from './ownServer';

test(
  'drains say how the dryer is, and what freezes tonight',
  { tag: ['@both', '@main'] },
  async ({ page, server }) => {
    await signIn(page, 'paula');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Gritter 18/ })
      .click();
    await page.getByRole('button', { name: 'Water', exact: true }).click();
    const drains = page.getByRole('list', { name: 'Drains' });
    const of = (tank: string) =>
      drains.getByRole('listitem').filter({
        has: page.getByRole('radiogroup', { name: `What came out of the ${tank}` }),
      });
    await of('supply tank').getByRole('radio', { name: 'cup' }).click();
    await of('supply tank').getByRole('checkbox', { name: 'milky' }).click();
    await expect(of('supply tank').getByRole('checkbox', { name: 'milky' })).toBeChecked();
    await of('primary tank').getByRole('radio', { name: 'spoonful' }).click();
    // Forty litres are a slip of the keys.
    await page.getByRole('button', { name: /photo: Supply tank/ }).click();
    await page.getByLabel('Measured, ml, if it was').fill('40000');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText(/^No brake tank gives over 5 litres/)).toBeVisible();
    await page.getByLabel('Measured, ml, if it was').fill('140');
    await page.getByRole('checkbox', { name: 'with secondary tank' }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(of('supply tank')).toContainText('140 ml');
    // One cord drains both: the other tank is not asked again, and a later touch does not forget it.
    const cord = of('secondary tank').getByText('Drained by the cord of the supply tank.');
    await expect(cord).toBeVisible();
    await of('supply tank').getByRole('checkbox', { name: 'rust' }).click();
    await expect(of('supply tank').getByRole('checkbox', { name: 'rust' })).toBeChecked();
    await of('supply tank').getByRole('checkbox', { name: 'rust' }).click();
    await expect(cord).toBeVisible();

    await page.getByRole('button', { name: 'Say the weather…' }).click();
    await page.getByLabel(/^Air/).fill('200');
    await page.getByLabel(/^Humidity/).fill('85');
    await page.getByLabel(/^Tonight/).fill('18');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText(/^Between −76 and 140 °F/)).toBeVisible();
    await page.getByLabel(/^Air/).fill('50');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    const dryer = page.getByRole('status', { name: 'How the dryer is' });
    await expect(dryer).toContainText(/cartridge is due|not dried at all/);
    await expect(page.getByRole('list', { name: 'Frost risk by line' })).toContainText('freezes');
    await expect(
      page.getByRole('list', { name: 'Applications with the engine off' }),
    ).toContainText('Primary');
    await expect(page.getByRole('heading', { name: 'Oil' })).toBeVisible();
    await expectNoFindings(page);
    await expect
      .poll(() =>
        server.query(
          `select distinct fact->'water'->>'with' from facts where fact->>'kind' = 'check' and fact->'water'->>'ml' = '140'`,
        ),
      )
      .toBe('["secondary-tank"]');
    await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
    await expect(page).toHaveURL(/\/visit\//);
    await closeVisit(page, server);
  },
);

test('the whole yard is drained by one list', async ({ page, server }) => {
  await signIn(page, 'paula');
  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await page.getByRole('link', { name: 'Drain round of the yard' }).click();
  const units = page.getByRole('list', { name: 'Units to drain' });
  const bus = units.getByRole('listitem').filter({ hasText: 'Tipper 04' });
  await expect(bus).toContainText('no drain is written down');
  await bus.getByRole('button', { name: 'All tanks of Tipper 04 are dry' }).click();
  await expect(bus).toContainText('drained today');
  await bus.getByRole('button', { name: 'Undo: Tipper 04 was not drained' }).click();
  await expect(bus).toContainText('no drain is written down');
  await bus.getByRole('button', { name: 'All tanks of Tipper 04 are dry' }).click();
  await expect(bus).toContainText('drained today');
  await expectNoFindings(page);
  await expect
    .poll(() =>
      server.query(`select count(*) from facts f join logs l on l.id = f.log_id
        where l.title like '%04%' and f.fact->>'checkId' like '0/drain/%' and l.closed_at_ms is not null and l.drained`),
    )
    .toBe('3');
  // Without network the round, the sheet of water and the start of a run say the same.
  await page.context().setOffline(true);
  const tipper = units.getByRole('listitem').filter({ hasText: 'Tipper 21' });
  await tipper.getByRole('button', { name: 'All tanks of Tipper 21 are dry' }).click();
  await expect(tipper).toContainText('drained today');
  await tipper.getByRole('link', { name: 'Water came out of Tipper 21' }).click();
  await expect(page.getByText('last drained today')).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('link', { name: 'Yard', exact: true }).click();
  await page
    .getByRole('list', { name: 'Units', exact: true })
    .getByRole('link', { name: /^Tipper 21\b/ })
    .click();
  await page.getByRole('button', { name: 'Start a run' }).click();
  await expect(page.getByText(/^Drained today/)).toBeVisible();
  await expect(page.getByRole('radio', { name: 'done today' })).toBeChecked();
});
