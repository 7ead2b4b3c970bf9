import { allSent, expect, fillSignIn, pad, runToHold, startRun, test } from './ownServer';

/* As on a shop's own network: a plain address with a name, which no browser takes for a secure one. */
test.use({
  baseURL: async ({ server }, use) => {
    await use(server.url.replace('127.0.0.1', 'depot.test'));
  },
});

test('without HTTPS the app says what that costs, and marks are kept and sent all the same', async ({
  page,
}) => {
  await page.clock.install();
  await page.goto('/');
  expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
  await fillSignIn(page, 'idris');
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Shop' }).click();
  const notice = page.getByRole('alert').filter({ hasText: 'This address is not HTTPS' });
  await expect(notice).toContainText('“HTTPS” in docs/RUNNING.md says how');
  await page.getByRole('link', { name: 'Yard' }).click();
  await startRun(page, 'Gritter 18');
  await runToHold(page);
  await allSent(page);
  await page.reload();
  await expect(pad(page)).toContainText('Needle on');
});
