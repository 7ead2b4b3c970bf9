import {
  allSent,
  allAtHand,
  expect,
  finishRun,
  pad,
  press,
  runToHold,
  signIn,
  startRun,
  test,
} from './ownServer';

test.use({ serviceWorkers: 'allow' });

test(
  'a run started, reloaded and closed with no network at all reaches the server whole',
  { tag: '@main' },
  async ({ page, context, server }) => {
    await page.clock.install();
    await signIn(page, 'idris');
    await allAtHand(page);
    await context.setOffline(true);
    await startRun(page, 'Gritter 18');
    await runToHold(page);
    // A mark counts once the screen has said so: then it outlives the page.
    await expect(page.getByTestId('clock')).toBeVisible();
    await page.reload();
    // From nothing, on a machine that works out suspects beside it.
    await expect(page.getByTestId('clock')).toBeVisible({ timeout: 60_000 });
    await page.getByRole('button', { name: /^End the hold with a reading/ }).click();
    await page.clock.fastForward(226_000);
    await press(page, 'Now at 120 psi');
    await finishRun(page);
    await expect(page.getByText('All figures within their limits')).toBeVisible();
    const id = page.url().split('/').at(-1) ?? '';
    expect(server.query(`select count(*) from logs where id = '${id}'`)).toBe('0');
    await context.setOffline(false);
    await allSent(page);
    expect(server.query(`select verdict from logs where id = '${id}'`)).toBe('pass');
  },
);

test('the app opens cold with no network: yard, rig sheet, rules, and a run to the end of its hold', async ({
  page,
  context,
}) => {
  await signIn(page, 'idris');
  await allAtHand(page);
  await page.close();
  await context.setOffline(true);
  const cold = await context.newPage();
  await cold.clock.install();
  await cold.goto('/');
  await expect(cold.getByRole('list', { name: 'Units' })).toContainText('Gritter 18');
  await startRun(cold, 'Tractor 09', { ruleSet: 'Periodic in-service inspection' });
  await expect(cold.getByRole('heading', { name: 'Tractor 09 + Low-loader 31' })).toBeVisible();
  await press(cold, 'All done, ready');
  // What the law asks of them by when they were built comes first.
  await press(cold, 'Keep what was found');
  await press(cold, 'Needle at 85 psi');
  await expect(cold.getByTestId('outbox')).toContainText('not sent');
  // A mark is kept once the pad has gone on; before that a reload may come first.
  await expect(pad(cold)).toContainText('Needle at 100 psi');
  await cold.reload();
  await expect(pad(cold)).toContainText('Needle at 100 psi');
  await context.setOffline(false);
  await allSent(cold);
});
