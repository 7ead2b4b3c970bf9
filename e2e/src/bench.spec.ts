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
    await expect(status).toContainText('Opens at 10 psi');
    await expect(status).toContainText('fail');
    await expect(
      page.getByRole('img', { name: 'Out against in: 8 points up, 0 down' }),
    ).toBeVisible();
    // What was read before stands behind it.
    await expect(page.getByText(/^Thin lines: as it was read on/)).toBeVisible();
    await read('down', 40, '40', '31');
    await expect(status).toContainText('more going down');
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
