import { TOTP } from 'otpauth';
import { expectNoFindings } from './axe';
import { allAtHand, expect, fillSignIn, pad, press, signIn, startRun, test } from './ownServer';

test('codes are turned on, asked for at the next sign-in, and a spare one lets in @both', async ({
  page,
  server,
}) => {
  // Somebody of this test's own: codes change how others sign in.
  const name = `ola${Date.now()}`;
  await signIn(page, 'maren');
  const id = await page.evaluate(() => crypto.randomUUID());
  const made = await page.request.post('/api/people', {
    data: { id, name: 'Ola Brand', signInName: name, role: 'lead', password: 'grit-before-snow' },
  });
  expect(made.status()).toBe(201);
  await page.goto('/shop');
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await fillSignIn(page, name);
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Shop' }).click();
  await page.getByRole('button', { name: 'Turn codes on' }).click();
  await page.getByLabel('Your password').fill('not this one');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('This is not your password now.')).toBeVisible();
  await page.getByLabel('Your password').fill('grit-before-snow');
  const offered = page.waitForResponse(/second-factor$/);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('img', { name: 'QR code for your app' })).toBeVisible();
  await expectNoFindings(page);
  const { secret } = (await (await offered).json()) as { secret: string };
  expect(server.query(`select secret from second_factors where person_id = '${id}'`)).not.toContain(
    secret,
  );
  const totp = new TOTP({ secret });
  const code = totp.generate();
  await page.getByLabel(/^Code/).fill(code);
  await page.getByRole('button', { name: 'Turn on' }).click();
  const shown = page.getByRole('list', { name: 'Spare codes' }).getByRole('listitem');
  await expect(shown).toHaveCount(8);
  const spare = await shown.allInnerTexts();
  await page.getByRole('button', { name: 'I have written them down' }).click();
  await expect(page.getByText('On: your sign-in asks for a code')).toBeVisible();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await fillSignIn(page, name);
  await expect(page.getByText('Give the code from your app, or a spare one.')).toBeVisible();
  await page.getByLabel(/^Code/).fill(code);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByText('This code is not right, or was used before.')).toBeVisible();
  await page.getByLabel(/^Code/).fill(spare[0] ?? '');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
});

test('a device is signed out from another, and the trail of it is a lead’s to read @both', async ({
  page,
  browser,
  server,
}) => {
  await signIn(page, 'maren');
  const other = await browser.newContext({ baseURL: server.url });
  const second = await other.newPage();
  await signIn(second, 'maren');
  await page.goto('/shop');
  const devices = page.getByRole('list', { name: 'My devices' });
  await expect(devices.getByText(/^this device/)).toBeVisible();
  await expectNoFindings(page);
  const out = devices.getByRole('button', { name: /^Sign out/ });
  for (let left = await out.count(); left > 0; left -= 1) {
    await out.first().click();
    await expect(out).toHaveCount(left - 1);
  }
  await second.reload();
  await expect(second.getByRole('button', { name: 'Sign in', exact: true })).toBeVisible();
  await page.getByRole('link', { name: /^Audit trail/ }).click();
  const trail = page.getByRole('list', { name: 'Audit trail' });
  await expect(trail.getByText('Maren Osk signed a device out').first()).toBeVisible();
  await page.getByRole('radio', { name: 'people' }).click();
  await expect(trail.getByText('Maren Osk signed a device out')).toBeHidden();
  await expectNoFindings(page);
  await other.close();
  await signIn(page, 'idris');
  await page.goto('/audit');
  await expect(page.getByText('A lead reads the audit trail')).toBeVisible();
});

test('a device that lay idle is signed out; what it recorded meanwhile goes out once its person is back @both', async ({
  page,
  server,
}) => {
  await signIn(page, 'paula');
  await startRun(page, 'Gritter 15');
  const id = page.url().split('/').at(-1) ?? '';
  await press(page, 'All done, ready');
  const kept = () => server.query(`select count(*) from facts where log_id = '${id}'`);
  await expect.poll(kept).toBe('2');
  server.query(
    `update sessions set last_at = now() - interval '4 days' where person_id = (select id from people where sign_in_name = 'paula') returning 1`,
  );
  await press(page, 'Needle at 85 psi');
  await expect(page.getByTestId('outbox')).toContainText('sign in');
  // The run goes on meanwhile, and a page that is loaded anew lets nobody in.
  await expect(pad(page)).toContainText('Needle at 100 psi');
  await page.reload();
  await expect(page.getByText('1 entry waits on this device.')).toBeVisible();
  await expectNoFindings(page);
  expect(kept()).toBe('2');
  await fillSignIn(page, 'paula');
  await expect(pad(page)).toContainText('Needle at 100 psi');
  await expect.poll(kept).toBe('3');
});

test('a session that ends in a run does not stand in its way, and signing in there sends what waited @both', async ({
  page,
  server,
}) => {
  await page.clock.install();
  await signIn(page, 'paula');
  await startRun(page, 'Gritter 15');
  const id = page.url().split('/').at(-1) ?? '';
  const kept = () => server.query(`select count(*) from facts where log_id = '${id}'`);
  await press(page, 'All done, ready');
  await expect.poll(kept).toBe('2');
  server.query(
    `delete from sessions where person_id = (select id from people where sign_in_name = 'paula') returning 1`,
  );
  await press(page, 'Needle at 85 psi');
  const due = page.getByRole('status').filter({ hasText: 'Session ended. Go on' });
  await expect(due).toBeVisible();
  await expectNoFindings(page);
  await press(page, 'Needle at 100 psi');
  await due.getByRole('button', { name: 'Sign in' }).click();
  const dialog = page.getByRole('dialog', { name: 'Sign in again' });
  await expectNoFindings(page);
  // Keys are the form's, not the run's.
  await dialog.getByRole('heading').click();
  await page.keyboard.press('u');
  await dialog.getByRole('button', { name: 'Later' }).click();
  await expect(dialog).toBeHidden();
  await press(page, 'Stopped at');
  await due.getByRole('button', { name: 'Sign in' }).click();
  await dialog.getByLabel('Password').fill('grit-before-snow');
  await dialog.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(due).toBeHidden();
  await expect.poll(kept).toBe('5');
  // Where nothing is timed it is asked for at once.
  server.query(
    `delete from sessions where person_id = (select id from people where sign_in_name = 'paula') returning 1`,
  );
  await page.getByRole('link', { name: 'Leave; the run stays open' }).click();
  await expect(dialog).toBeVisible();
});

test(
  'a viewer is told before anything is filled in, whatever the address',
  { tag: '@main' },
  async ({ page, server }) => {
    await signIn(page, 'joss');
    const id = server.query(`select id from units where number = '18'`);
    for (const path of [`/unit/${id}/start`, `/unit/${id}/edit`, '/unit/new', '/couple']) {
      await page.goto(path);
      await expect(page.getByText('You may look at this, not change it')).toBeVisible();
      await expect(page.getByRole('textbox')).toHaveCount(0);
    }
  },
);

test('the focus goes to the heading of each page, and an unknown address has a page of ours', async ({
  page,
}) => {
  const refused: string[] = [];
  page.on('response', (answer) => {
    if (answer.status() === 403) refused.push(answer.url());
  });
  await signIn(page, 'joss');
  const heading = (name: string) => page.getByRole('heading', { name, level: 1 });
  for (const place of ['Work', 'Jobs', 'Bay', 'Yard']) {
    await page.getByRole('link', { name: place, exact: true }).click();
    await expect(heading(place)).toBeFocused();
  }
  await page
    .getByRole('list', { name: 'Units', exact: true })
    .getByRole('link', { name: /^Gritter 18/ })
    .click();
  await expect(heading('Gritter 18')).toBeFocused();
  await page.goBack();
  await expect(heading('Yard')).toBeFocused();
  await page.goto('/nowhere/at-all');
  await expect(heading('No such page')).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('link', { name: 'To the yard' }).click();
  await expect(heading('Yard')).toBeFocused();
  // Nobody is asked for what a viewer may not have.
  expect(refused).toEqual([]);
});

test.describe('without network', () => {
  test.use({ serviceWorkers: 'allow' });

  test('signing out holds: nothing opens again, and the server is told once it is there', async ({
    page,
    context,
    server,
  }) => {
    await signIn(page, 'paula');
    await allAtHand(page);
    const sessions = () =>
      Number(
        server.query(
          `select count(*) from sessions s join people p on p.id = s.person_id where p.sign_in_name = 'paula'`,
        ),
      );
    const before = sessions();
    await page.getByRole('link', { name: 'Shop' }).click();
    await expect(page.getByRole('list', { name: 'My devices' })).toContainText('this device');
    await context.setOffline(true);
    await page.getByRole('button', { name: 'Sign out everywhere' }).click();
    await expect(page.getByText(/No answer from the shop’s server/)).toBeVisible();
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(page.getByLabel('Sign-in name')).toBeVisible();
    await page.reload();
    await expect(page.getByLabel('Sign-in name')).toBeVisible();
    expect(sessions()).toBe(before);
    await context.setOffline(false);
    await page.reload();
    await expect.poll(sessions).toBe(before - 1);
    await expect(page.getByLabel('Sign-in name')).toBeVisible();
  });

  test('the phone of somebody who was let go does not open the yard', async ({
    page,
    context,
    browser,
    server,
  }) => {
    const name = `tam${Date.now()}`;
    const lead = await browser.newContext({ baseURL: server.url });
    const leads = await lead.newPage();
    await signIn(leads, 'maren');
    const id = await leads.evaluate(() => crypto.randomUUID());
    const person = { id, name: 'Tam Roe', signInName: name, role: 'technician' };
    await leads.request.post('/api/people', {
      data: { ...person, password: 'grit-before-snow' },
    });
    await page.goto('/');
    await fillSignIn(page, name);
    await expect(page.getByRole('heading', { name: 'Yard', level: 1 })).toBeVisible();
    await allAtHand(page);
    await leads.request.patch(`/api/people/${id}`, { data: { active: false } });
    await lead.close();
    await page.reload();
    await expect(page.getByLabel('Sign-in name')).toBeVisible();
    await context.setOffline(true);
    await page.reload();
    await expect(page.getByText('Gritter 18')).toBeHidden();
    await expect(page.getByText(/No answer from the shop’s server/)).toBeVisible();
  });
});
