import { expectNoFindings } from './axe';
import { closeVisit } from './closeVisit';
import { expect, signIn, test } from './ownServer';

test(
  'a relay’s control against its delivery: what the readings come to stands beside them, and is kept',
  { tag: '@both' },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Gritter 12/ })
      .click();
    await page.getByRole('link', { name: 'See it drawn' }).click();
    await page
      .getByRole('group', { name: /from above/ })
      .getByRole('button', { name: 'Rear relay' })
      .first()
      .click();
    await page.getByRole('button', { name: /^More checks/ }).click();
    await page.getByRole('button', { name: /^Do it: Read in against out: rear relay/ }).click();
    const status = page.getByRole('status', { name: 'What they come to' });
    const read = async (way: string, psi: number, inPsi: string, outPsi: string) => {
      await page.getByLabel(`In, ${way} to ${psi} psi`).fill(inPsi);
      await page.getByLabel(`Out, ${way} to ${psi} psi`).fill(outPsi);
    };
    // One gauge alone is no point, and is not kept.
    await page.getByLabel('In, up to 4 psi').fill('4');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(status).toContainText('Up to 4 psi: read both gauges.');
    await page.getByRole('radio', { name: 'yes' }).click();
    for (const [psi, out] of [
      [4, '0'],
      [6, '0'],
      [8, '0'],
      [10, '0'],
      [15, '5'],
      [20, '10'],
      [40, '30'],
      [60, '50'],
    ] as const) {
      await read('up', psi, String(psi), out);
    }
    // It was written down for 4 psi; this one opens at ten.
    await expect(status.getByRole('listitem').filter({ hasText: 'Opens at' })).toContainText(
      /^Opens at3 psi to 5 psi: what it is made for, read off it10(\.\d)? psi ± .*fail$/,
    );
    await expect(
      page.getByRole('img', { name: 'Out against in: 8 points up, 0 down' }),
    ).toBeVisible();
    // What was read before stands behind it.
    await expect(page.getByText(/^Thin lines: as it was read on/)).toBeVisible();
    await read('down', 40, '40', '31');
    await expect(status).toContainText('More going down');
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect
      .poll(() =>
        server.query(
          `select count(*) from facts where fact->'answer'->>'kind' = 'points' and fact->'answer'->>'compared' = 'true' and fact->>'said' like 'Opens at 10 psi%'`,
        ),
      )
      .toBe('1');
    await expect(
      page.getByText(/Read in against out: rear relay: Opens at 10 psi/).first(),
    ).toBeVisible();
    await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
    await expect(page).toHaveURL(/\/visit\//);
    await closeVisit(page, server);
  },
);

test(
  'the bench: what each valve gave, beside its twin on the other axle and a sound rig, and a check read by its file',
  { tag: '@both' },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Tipper 21/ })
      .click();
    await page.getByRole('button', { name: 'Bench' }).click();
    const valves = page.getByRole('list', { name: 'Valves' });
    // The old flatbed's relay opens late: it says so beside the tipper's.
    const late = valves.getByRole('link', { name: /^Relay-emergency valve · 26/ });
    await expect(late).toContainText('unlike the rear relay of 21');
    await expectNoFindings(page);
    await late.click();
    await expect(page.getByText(/^Beside the rear relay of 21, unlike: opens at 4/)).toBeVisible();
    await expect(page.getByText(/^Beside a sound rig like this, /).first()).toBeVisible();
    await expectNoFindings(page);
    // A primary check by a logger's file of both sides: it holds.
    await page.goto(page.url().replace(/valve=.*$/, 'valve=0.primary-check'));
    await page.getByRole('button', { name: /^Read it: Read either side/ }).click();
    const rows = ['time_s,supply (psi),primary (psi)'];
    for (let n = 0; n < 240; n += 1) {
      const supply = [118, 90, 60, 30, 5, 0][Math.floor(n / 40)]!;
      rows.push(`${(n / 10).toFixed(1)},${supply},${(118 - n / 200).toFixed(1)}`);
    }
    await page.getByLabel('Logger’s file of both ports').setInputFiles({
      name: 'check.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(rows.join('\n')),
    });
    await page.getByRole('button', { name: 'Take its points' }).click();
    await expect(page.getByText('6 points from check.csv')).toBeVisible();
    const status = page.getByRole('status', { name: 'What they come to' });
    await expect(status).toContainText('Lost while the other side fell');
    await expect(status).toContainText('pass');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect
      .poll(() =>
        server.query(
          `select count(*) from facts where fact->>'checkId' = '0/compare/supply tank/primary tank/holds' and fact->>'said' like 'Lost while%'`,
        ),
      )
      .toBe('1');
    await expect(page.getByRole('list', { name: /^Figures: Read either side/ })).toContainText(
      'pass',
    );
    // It is taken back as anything is.
    await page.getByRole('button', { name: 'Take the last entry back' }).click();
    await expect(page.getByRole('button', { name: /^Read it: Read either side/ })).toBeVisible();
    await page.getByRole('button', { name: /^Read it: Read either side/ }).click();
    const row = page.getByLabel('1, down to 90 psi', { exact: true });
    await row.fill('90');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(status).toContainText('Down to 90 psi: read both gauges.');
    await page.getByRole('button', { name: 'Back' }).click();
    if (page.viewportSize()!.width < 900)
      await page.getByRole('link', { name: 'All valves' }).click();
    await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
    await closeVisit(page, server);
  },
);

test(
  'in the Bay the same walks are made on the twin: a watch and soap, a drain, a valve on the bench',
  { tag: '@both' },
  async ({ page }) => {
    await signIn(page, 'idris');
    await page.getByRole('link', { name: 'Bay', exact: true }).click();
    await page.getByLabel('Find a rig').fill('Gritter 18');
    await page.getByLabel('Rig', { exact: true }).selectOption({ label: 'Gritter 18' });
    await page
      .getByRole('radiogroup', { name: 'Faults' })
      .getByRole('radio', { name: 'none' })
      .click();
    await page.getByRole('button', { name: 'Start' }).click();
    await page.getByRole('button', { name: 'Walk round it' }).click();
    const stands = page.getByRole('status', { name: 'How the hunt stands' });
    await expect(stands).toContainText('No hold yet', { timeout: 60_000 });
    await page.getByRole('button', { name: /^Watch the primary gauge/ }).click();
    await expect(page.getByRole('list', { name: 'Air lost and found' })).toContainText(
      'Parked · primary',
      { timeout: 60_000 },
    );
    await page.getByRole('button', { name: 'Wet it: Supply tank' }).click();
    await expect(page.getByRole('button', { name: 'Wet it again: Supply tank' })).toBeVisible();
    await expectNoFindings(page);
    await page.getByRole('radio', { name: 'Water', exact: true }).click();
    await page.getByRole('button', { name: 'Drain it: Supply tank' }).click();
    await expect(page.getByRole('button', { name: 'Drain it again: Supply tank' })).toBeVisible();
    await expect(
      page.getByRole('list', { name: 'Applications with the engine off' }),
    ).toContainText('Primary');
    await page.getByRole('radio', { name: 'Bench', exact: true }).click();
    await page
      .getByLabel('Valve', { exact: true })
      .selectOption('Spring brake modulating valve · 18');
    await page.getByRole('button', { name: /^Read it: Read primary against hold-off/ }).click();
    // Nothing is wrong with it: it takes over where it should.
    await expect(
      page.getByRole('list', { name: /^Figures: Read primary against hold-off/ }),
    ).toContainText(/Takes over at, of primary.*pass/, { timeout: 60_000 });
    await expectNoFindings(page);
  },
);
