import { expectNoFindings } from './axe';
import { expect, signIn, test } from './ownServer';

test(
  'from what the driver says to the part: the next check is made, the ranking moves, and it is taken back',
  { tag: ['@both', '@main'] },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    const facts = (kind: string) =>
      server.query(`select count(*) from facts where fact->>'kind' = '${kind}'`);
    const before = facts('complaint');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Plant trailer 33/ })
      .click();
    await page.getByRole('button', { name: /^What is it\?/ }).click();
    await expect(page.getByRole('heading', { name: 'What is it?' })).toBeVisible();
    const suspects = page.getByRole('list', { name: 'Suspects' });
    await expect(suspects).toBeVisible({ timeout: 30_000 });
    await page.getByRole('button', { name: 'The driver says…' }).click();
    await page.getByLabel(/^Find/).fill('smoke');
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'The trailer drags' }).click();
    await expect(page.getByText(/Weighed: .*what the driver says/)).toBeVisible();
    await expect(
      suspects.getByRole('button', { name: /relay: its exhaust is blocked/ }),
    ).toBeVisible();
    await expect.poll(() => facts('complaint')).not.toBe(before);
    // Its suspect opens: what speaks for it, and where it sits.
    const blocked = suspects.getByRole('button', { name: /relay: its exhaust is blocked/ });
    await blocked.click();
    await expect(suspects.getByText('+ the driver says: the trailer drags').first()).toBeVisible();
    await expectNoFindings(page);
    // "I know it is this" is evidence too: it moves the ranking, and says from where.
    await page
      .getByRole('button', { name: /^I know it is this: .*its exhaust is blocked/ })
      .click();
    await expect(suspects.getByText('+ somebody who knows the rig names it')).toBeVisible();
    await expect(suspects.getByText(/^was \d+$/).first()).toBeVisible();
    await page.getByRole('button', { name: 'Take the last entry back' }).click();
    await expect(suspects.getByText('+ somebody who knows the rig names it')).toBeHidden();
    // The next check is answered where it stands.
    const next = page.getByRole('region', { name: 'What to do next' });
    await expect(next.getByRole('heading')).toBeVisible();
    const title = await next.getByRole('heading').innerText();
    const atOnce = next.getByRole('group', { name: 'What did you find?' });
    if (await atOnce.isVisible()) {
      await atOnce.getByRole('button').first().click();
    } else if (await next.getByRole('button', { name: 'Say what you found' }).isVisible()) {
      await next.getByRole('button', { name: 'Say what you found' }).click();
      await page
        .getByRole('radiogroup', { name: 'What did you find?', exact: true })
        .getByRole('radio')
        .click();
      await page.getByRole('button', { name: 'Keep', exact: true }).click();
    } else {
      await next.getByRole('button', { name: 'Give what you read' }).click();
      await page.getByLabel('What did you read?').fill('1');
      await page.getByRole('button', { name: 'Keep', exact: true }).click();
    }
    await expect(page.getByText(/^Last: /)).toContainText(title);
    await expect(page.getByText(/Weighed: .*1 check/)).toBeVisible();
    await expect.poll(() => next.getByRole('heading').innerText()).not.toBe(title);
    await page.getByRole('button', { name: 'Keep this ranking in the visit' }).click();
    await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
    await expect(page.getByText('The driver says')).toBeVisible();
    await expect(page.getByText('Suspects', { exact: true })).toBeVisible();
  },
);
