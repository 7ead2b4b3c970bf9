import { randomUUID } from 'node:crypto';
import { expectNoFindings } from './axe';
import {
  allSent,
  expect,
  finishRun,
  pad,
  press,
  runToHold,
  signIn,
  startRun,
  test,
} from './ownServer';

test('a lead copies a rule set, changes its order and a limit, and a run goes by it', async ({
  page,
  server,
}) => {
  await page.clock.install();
  await signIn(page, 'maren');
  await page.goto('/rules');
  await page.getByRole('button', { name: 'Copy Road-test examiner' }).click();
  await expect(page.getByRole('heading', { name: 'Road-test examiner, ours' })).toBeVisible();
  const name = `Ours ${Date.now() % 100_000}`;
  await page.getByLabel('Name of the rule set').fill(name);
  // The warning is not asked for, and nothing over 1.5 psi a minute is allowed.
  const needed = page.getByRole('radiogroup', { name: 'Low-air warning needed' });
  await needed.getByRole('radio', { name: 'off' }).click();
  await page.getByRole('button', { name: 'Change Static leak, alone' }).click();
  await page.getByLabel(/^At most/).fill('1.5');
  await page.getByRole('button', { name: 'Set limit' }).click();
  await expect(page.getByText('house: set by the shop’s lead')).toBeVisible();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();

  await page.goto('/');
  await expect(page.getByRole('list', { name: 'Units' })).toBeVisible();
  await startRun(page, 'Gritter 18', { ruleSet: name });
  await runToHold(page);
  await page.getByRole('button', { name: /^End the hold with a reading/ }).click();
  await page.clock.fastForward(240_000);
  // 12 psi in four minutes.
  for (let n = 0; n < 12; n += 1) {
    await page.getByRole('button', { name: /Move the reading down/ }).click();
  }
  await press(page, 'Now at 108 psi');
  await finishRun(page);
  await expect(
    page.getByText(/Static leak (3|2\.[5-9]) psi\/min, allowed at most 1\.5/),
  ).toBeVisible();
  await expect(page.getByText('Low-air warning')).toBeHidden();
  await allSent(page);
  const id = page.url().split('/').at(-1) ?? '';
  expect(
    server.query(`select header->'made'->'ruleSet'->>'title' from logs where id = '${id}'`),
  ).toBe(name);
});

test('a lead gives the shop a list of looks of its own, and a run asks them', async ({ page }) => {
  await page.clock.install();
  await signIn(page, 'maren');
  await page.goto('/rules');
  await page.getByRole('button', { name: 'Copy Periodic in-service inspection' }).click();
  const name = `Looks ${Date.now() % 100_000}`;
  await page.getByLabel('Name of the rule set').fill(name);
  await page.getByRole('button', { name: 'Add Steering play' }).click();
  await page.getByRole('button', { name: '+ Something else' }).click();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('What is looked at is missing')).toBeVisible();
  await page.getByLabel('Look at').nth(1).fill('Spray flaps');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await page.goto('/');
  await startRun(page, 'Gritter 15', { ruleSet: name });
  await press(page, 'All done, ready');
  await expect(page.getByRole('heading', { name: 'The shop’s own list' })).toBeVisible();
  await expect(page.getByText('Steering play: at most 2 in (50 mm) at the rim')).toBeVisible();
  await page.getByRole('button', { name: 'Spray flaps: other' }).click();
  await page.getByRole('radio', { name: 'not right' }).click();
  await press(page, 'Keep, 1 not right');
  await page.getByRole('button', { name: /^Stop here/ }).click();
  await page.getByRole('button', { name: 'Fault found, repair first' }).click();
  await expect(page.getByText('Spray flaps: not right').first()).toBeVisible();
});

test('a lead closes an open failure with a written reason', async ({ page, server }) => {
  await signIn(page, 'maren');
  const units = page.getByRole('list', { name: 'Units' });
  await units.getByRole('link', { name: /^Tipper 04/ }).click();
  const failures = page.getByRole('list', { name: 'Open failures' });
  await expect(failures).toContainText('Build-up');
  await failures.getByRole('button', { name: 'Close Build-up with a reason' }).click();
  const sheet = page.getByRole('dialog', { name: 'Close “Build-up”' });
  await sheet.getByRole('button', { name: 'Close it' }).click();
  await expect(sheet).toContainText('Write a word or two first.');
  await sheet.getByLabel('Why it is no failure').fill('Timed with a hose off, seen by me');
  await sheet.getByRole('button', { name: 'Close it' }).click();
  await expect(failures).toBeHidden();
  expect(server.query('select key, reason from failure_closings')).toBe(
    'figure:build-up-time|Timed with a hose off, seen by me',
  );
  await page.getByRole('link', { name: 'Yard' }).click();
  await expect(units.getByRole('link', { name: /^Tipper 04/ })).not.toContainText('retest owed');
});

test('a technician reads rule sets and is offered nothing to change', async ({ page }) => {
  await signIn(page, 'idris');
  await page.goto('/rules');
  await expect(page.getByRole('link', { name: /Road-test examiner/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Copy/ })).toBeHidden();
  await page.getByRole('link', { name: /Numbered ports, bar/ }).click();
  await expect(page.getByText('UN R13 annex 7: 0 to 65 % within 3 min')).toBeVisible();
  await expect(page.getByText(/house default, not a regulation/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save' })).toBeHidden();
});

test('a comparison with a master gauge puts a level right, and shrinks its doubt', async ({
  page,
}) => {
  await page.clock.install();
  await signIn(page, 'maren');
  const units = page.getByRole('list', { name: 'Units' });
  await units.getByRole('link', { name: /^Tractor 07/ }).click();
  await page.getByRole('button', { name: 'Compare a gauge' }).click();
  await page.getByLabel(/^Dash shows/).fill('100');
  await page.getByLabel(/^Master shows/).fill('180');
  await page.getByRole('button', { name: 'Keep comparison' }).click();
  await expect(page.getByRole('alert')).toContainText('read both again');
  await page.getByLabel(/^Master shows/).fill('104');
  await page.getByRole('button', { name: 'Keep comparison' }).click();
  await expect(page.getByText(/Primary: 100 psi where the master shows 104 psi/)).toBeVisible();
  await page.getByRole('link', { name: 'Yard' }).click();
  await startRun(page, 'Tractor 07');
  await press(page, 'All done, ready');
  await page.getByRole('button', { name: 'Skip Build up' }).click();
  await page.getByRole('button', { name: 'Not asked for today' }).click();
  await press(page, 'Stopped at 125 psi');
  await press(page, 'Climbs from 100 psi');
  await page.getByRole('button', { name: /^Stop here/ }).click();
  await page.getByRole('button', { name: 'Called away' }).click();
  // 100 on this dash is 104; and the governor cut in somewhere in the stroke before it.
  const cutIn = page
    .getByRole('list', { name: 'Figures' })
    .getByRole('listitem')
    .filter({ hasText: /^Cut-in/ });
  await expect(cutIn).toContainText('pass');
  await expect(cutIn).toContainText(/How sure: 10[5-9](\.5)? psi.*: pass/);
});

test('a lead follows a run that is made on another device, as its marks come in', async ({
  page,
  browser,
  server,
}) => {
  await page.clock.install();
  await signIn(page, 'paula');
  await startRun(page, 'Gritter 15');
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await allSent(page);
  const other = await browser.newContext({ baseURL: server.url });
  const lead = await other.newPage();
  await signIn(lead, 'maren');
  await lead.goto(new URL(page.url()).pathname);
  await expect(lead.getByText('Paula Quill is at “Build up”')).toBeVisible();
  await page.clock.fastForward(25_000);
  await press(page, 'Needle at 100 psi');
  await expect(lead.getByText('Paula Quill is at “Cut-out”')).toBeVisible();
  await expect(lead.getByRole('list', { name: 'Figures' })).toContainText('Build-up');
  // A second phone on the same unit is told, and its run does not touch the first.
  await lead.goto('/');
  await expect(lead.getByRole('list', { name: 'Units' })).toBeVisible();
  await lead
    .getByRole('list', { name: 'Units' })
    .getByRole('link', { name: /^Gritter 15/ })
    .click();
  await lead.getByRole('button', { name: 'Start a run' }).click();
  await expect(lead.getByRole('alert')).toContainText('Gritter 15 has a run open since today');
  await lead.getByRole('button', { name: 'Start the run' }).click();
  await expect(pad(lead)).toContainText('to answer');
  await allSent(lead);
  await page.getByRole('button', { name: /^Stop here/ }).click();
  await page.getByRole('button', { name: 'Called away' }).click();
  await allSent(page);
  const third = await browser.newContext({ baseURL: server.url });
  const viewer = await third.newPage();
  await signIn(viewer, 'joss');
  await viewer.goto(new URL(page.url()).pathname);
  await expect(
    viewer.getByText(/Another run of the same unit overlaps this one: Maren Osk/).first(),
  ).toBeVisible();
  await third.close();
  await other.close();
});

test('somebody changes their own password: the old one is asked, and one that is guessed at once is refused', async ({
  page,
  browser,
  server,
}) => {
  await signIn(page, 'maren');
  const made = await page.request.post('/api/people', {
    data: {
      id: randomUUID(),
      name: 'Wren Tarn',
      signInName: 'wren',
      role: 'technician',
      password: 'slate heron kettle door',
    },
  });
  expect(made.status()).toBe(201);
  const own = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' });
  const theirs = await own.newPage();
  await theirs.request.post('/api/sign-in', {
    data: { signInName: 'wren', password: 'slate heron kettle door' },
  });
  await theirs.goto('/shop');
  await theirs.getByRole('button', { name: 'Change my password' }).click();
  await theirs.getByLabel('Old password').fill('something else');
  await theirs.getByLabel(/^New password/).fill('rook lantern spade fog');
  await theirs.getByRole('button', { name: 'Change it' }).click();
  await expect(theirs.getByText('This is not your password now.')).toBeVisible();
  await theirs.getByLabel('Old password').fill('slate heron kettle door');
  await theirs.getByLabel(/^New password/).fill('Wren Tarn 2026');
  await theirs.getByRole('button', { name: 'Change it' }).click();
  await expect(theirs.getByText(/^This password is guessed at once/)).toBeVisible();
  await expectNoFindings(theirs);
  await theirs.getByLabel(/^New password/).fill('rook lantern spade fog');
  await theirs.getByRole('button', { name: 'Change it' }).click();
  await expect(theirs.getByText('Changed. Every other device was signed out.')).toBeVisible();
  const again = await page.request.post('/api/sign-in', {
    data: { signInName: 'wren', password: 'slate heron kettle door' },
  });
  expect(again.status()).toBe(401);
  await own.close();
});
