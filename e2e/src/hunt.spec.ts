import type { Page } from '@playwright/test';
import { expectNoFindings } from './axe';
import { closeVisit } from './closeVisit';
import { allSent, expect, signIn, test } from './ownServer';

/** Watches a needle for three minutes: the page is loaded anew in between, with the watch begun that much earlier. */
async function watch(page: Page, state: string, needle: string, from: string, to: string) {
  await page.getByRole('button', { name: 'Watch a needle' }).click();
  const sheet = page.getByRole('dialog', { name: 'Watch a needle' });
  await sheet.getByRole('radio', { name: state, exact: true }).click();
  await sheet.getByRole('radio', { name: needle, exact: true }).click();
  await page.getByLabel(/^The needle at first/).fill(from);
  await page.getByRole('button', { name: 'Start the watch' }).click();
  await expect(page.getByTestId('hold-clock')).toBeVisible();
  await page.evaluate(() => {
    const key = Object.keys(sessionStorage).find((each) => each.startsWith('keen-bleed.hold.'))!;
    const begun = JSON.parse(sessionStorage.getItem(key)!) as { atMs: number };
    sessionStorage.setItem(key, JSON.stringify({ ...begun, atMs: begun.atMs - 180_000 }));
  });
  await page.reload();
  // What a needle loses to each leak is worked out anew: only then does a hold teach what a grade is.
  await expect(page.getByRole('status', { name: 'How the hunt stands' })).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Go on with the watch' }).click();
  await expect(page.getByTestId('hold-clock')).toContainText('3:');
  await page.getByLabel(/^The needle now/).fill(to);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
}

test(
  'a leak is hunted: holds say where, soap finds it, the mend and the next hold close the budget',
  { tag: '@both' },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Gritter 18/ })
      .click();
    await page.getByRole('button', { name: 'Leak hunt' }).click();
    const status = page.getByRole('status', { name: 'How the hunt stands' });
    await expect(status).toBeVisible({ timeout: 60_000 });
    // A needle that rises is no hold.
    await watch(page, 'Released', 'primary', '118', '125');
    await expect(page.getByText(/^The needle rose/)).toBeVisible();
    await page.getByLabel(/^The needle now/).fill('103');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(status).toContainText(/still out there: [89]\d in 100/);
    await expect(page.getByRole('list', { name: 'Air lost and found' })).toContainText(
      'Released · primary',
    );
    // The next hold that is offered leaves a part of the rig out.
    await expect(page.getByText(/^Next: /)).toBeVisible();

    await page.getByRole('radio', { name: 'Released', exact: true }).click();
    const joints = page.getByRole('list', { name: 'Joints, Released' });
    const joint = (name: string) =>
      joints
        .getByRole('listitem')
        .filter({ has: page.getByRole('radiogroup', { name: `Soap on ${name}`, exact: true }) });
    // An open ear first: what it names weighs at once.
    await page.getByRole('button', { name: 'What I heard on a walk round, released' }).click();
    await page.getByLabel(/^Or where: find by a word/).fill('park line');
    await page.getByRole('radio', { name: 'Joints of the park line', exact: true }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('Heard: Joints of the park line.')).toBeVisible();
    await expect(joint('Park line')).toContainText('likely here');
    await joint('Spring line').getByRole('radio', { name: 'dry' }).click();
    // With no network it goes on all the same.
    await page.context().setOffline(true);
    await joint('Park line').getByRole('radio', { name: 'stream' }).click();
    await joint('Park line').getByRole('radio', { name: 'at what it screws into' }).click();
    await expect(status).not.toContainText(/still out there: [89]\d in 100/);
    await page.context().setOffline(false);

    await page.getByRole('button', { name: 'Mended: Park line' }).click();
    await page.getByRole('radio', { name: 'Capped' }).click();
    await expect(page.getByText(/its air by that|their air by that/)).toBeVisible();
    await expectNoFindings(page);
    await page.getByRole('radio', { name: /^Sealed again/ }).click();
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(joint('Park line')).toContainText('mended: wet it again');
    await joint('Park line').getByRole('radio', { name: 'dry' }).click();
    await expect(joint('Park line').getByRole('radio', { name: 'dry' })).toBeChecked();
    await watch(page, 'Released', 'primary', '119', '118');
    // What nobody has held yet stays open: the service side is under air with the pedal down alone.
    await expect(status).toContainText('in the pass pedal');
    await watch(page, 'Pedal held', 'primary', '106', '105');
    await watch(page, 'Pedal held', 'secondary', '106', '105');
    await expect(status).toContainText('The budget closes');

    await page.getByRole('button', { name: 'Something else seen…' }).click();
    await page.getByRole('radio', { name: 'Wiring' }).click();
    await page.getByLabel('What you saw').fill('Cable rubs on the frame');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('list', { name: 'Seen on the way' })).toContainText(
      'Cable rubs on the frame',
    );
    await page.getByRole('button', { name: 'Take the last entry back' }).click();
    await expect(page.getByRole('list', { name: 'Seen on the way' })).toHaveCount(0);
    await expectNoFindings(page);

    const kept = (what: string) =>
      server.query(`select count(*) from facts where fact->>'kind' = '${what}'
        and log_id = (select log_id from facts where fact->>'text' like 'Cable rubs on%' limit 1)`);
    await expect.poll(() => kept('held')).toBe('4');
    await expect.poll(() => kept('mended')).toBe('1');
    // The hold after the mend teaches what a stream is here.
    await expect
      .poll(() =>
        server.query(`select fact->'taught'->0->>'grade' from facts where fact ? 'taught'`),
      )
      .toBe('stream');
    await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
    await expect(page.getByRole('list', { name: 'Notes and findings' })).toContainText(
      'Park line, sealed again, paste or tape',
    );
    await closeVisit(page, server);
  },
);

test('a session that ends while a needle is watched is asked for once the watch is over', async ({
  page,
  server,
}) => {
  await signIn(page, 'idris');
  const id = server.query(`select id from units where number = '15'`);
  await page.goto(`/unit/${id}/hunt`);
  await page.getByRole('button', { name: 'Watch a needle' }).click({ timeout: 60_000 });
  await page.getByLabel(/^The needle at first/).fill('118');
  await page.getByRole('button', { name: 'Start the watch' }).click();
  await expect(page.getByTestId('hold-clock')).toBeVisible();
  await page.keyboard.press('Escape');
  server.query(
    `delete from sessions where person_id = (select id from people where sign_in_name = 'idris') returning 1`,
  );
  const soap = page.getByRole('radiogroup', { name: 'Soap on Supply tank', exact: true });
  await soap.getByRole('radio', { name: 'dry' }).click();
  const due = page.getByRole('status').filter({ hasText: 'Session ended. Go on' });
  await expect(due).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('button', { name: 'Go on with the watch' }).click();
  const again = page.getByRole('dialog', { name: 'Sign in again' });
  await expect(again).toBeHidden();
  await page.getByRole('button', { name: 'Drop it' }).click();
  await again.getByLabel('Password').fill('grit-before-snow');
  await again.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(again).toBeHidden();
  await expect(due).toBeHidden();
  await expect(soap.getByRole('radio', { name: 'dry' })).toBeChecked();
  await allSent(page);
});

test('who may only look sees a hunt and writes nothing in it', async ({ page, server }) => {
  await signIn(page, 'joss');
  const id = server.query(`select id from units where number = '15'`);
  await page.goto(`/unit/${id}/hunt`);
  await expect(page.getByRole('status', { name: 'How the hunt stands' })).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('list', { name: 'Joints, Parked' })).toContainText('Primary tank');
  await expect(page.getByRole('button', { name: 'Watch a needle' })).toHaveCount(0);
  await expect(page.getByRole('radiogroup', { name: /^Soap on/ })).toHaveCount(0);
});

test(
  'two hunt one rig without a network, and each finds what the other found once it is back',
  { tag: '@both' },
  async ({ page, browser, server }) => {
    const id = server.query(`select id from units where number = '07'`);
    const other = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' });
    const theirs = await other.newPage();
    await signIn(page, 'idris');
    await signIn(theirs, 'paula');
    const wetted = (on: Page, joint: string) =>
      on.getByRole('radiogroup', { name: `Soap on ${joint}`, exact: true });
    for (const on of [page, theirs]) {
      await on.goto(`/unit/${id}/hunt`);
      await expect(wetted(on, 'Primary tank').first()).toBeVisible({ timeout: 60_000 });
    }
    await page.context().setOffline(true);
    await other.setOffline(true);
    await wetted(page, 'Primary tank').getByRole('radio', { name: 'froth' }).click();
    await wetted(theirs, 'Secondary tank').getByRole('radio', { name: 'stream' }).click();
    // The same joint, by both: the later word stands.
    await wetted(page, 'Supply tank').getByRole('radio', { name: 'film' }).click();
    await expect(wetted(page, 'Supply tank').getByRole('radio', { name: 'film' })).toBeChecked();
    await wetted(theirs, 'Supply tank').getByRole('radio', { name: 'dry' }).click();
    await expect(wetted(theirs, 'Supply tank').getByRole('radio', { name: 'dry' })).toBeChecked();
    await page.context().setOffline(false);
    await other.setOffline(false);
    await expect
      .poll(() =>
        server.query(
          `select count(*) from facts f join logs l on l.id = f.log_id and l.shop_id = f.shop_id where l.unit_id = '${id}' and f.fact->>'checkId' like '0/wet/%'`,
        ),
      )
      .toBe('4');
    for (const on of [page, theirs]) {
      await on.reload();
      await expect(wetted(on, 'Primary tank').getByRole('radio', { name: 'froth' })).toBeChecked({
        timeout: 60_000,
      });
      await expect(
        wetted(on, 'Secondary tank').getByRole('radio', { name: 'stream' }),
      ).toBeChecked();
      await expect(wetted(on, 'Supply tank').getByRole('radio', { name: 'dry' })).toBeChecked();
    }
    for (const on of [page, theirs]) {
      await on.getByRole('link', { name: 'The visit in which this is kept' }).click();
      await closeVisit(on, server);
    }
    await other.close();
  },
);

test(
  'whoever holds the pedal has a phone that shows the call, and both are told when it has lost touch',
  { tag: '@both' },
  async ({ page, browser, server }) => {
    const id = server.query(`select id from units where number = '07'`);
    await signIn(page, 'idris');
    await page.goto(`/unit/${id}/hunt`);
    await page.getByRole('radio', { name: 'Pedal', exact: true }).click();
    await expect(page.getByText(/^No helper’s phone listens/)).toBeVisible();
    const other = await browser.newContext({
      baseURL: server.url,
      serviceWorkers: 'block',
      viewport: { width: 390, height: 844 },
    });
    const theirs = await other.newPage();
    // Who may only look may hold the pedal.
    await signIn(theirs, 'joss');
    await theirs.goto(`/unit/${id}/pedal`);
    await expect(theirs.getByText('Wait for the call')).toBeVisible();
    await expectNoFindings(theirs);
    await page.getByRole('button', { name: 'Call: press' }).click();
    await expect(theirs.getByText('Press and hold')).toBeVisible();
    await expect(page.getByText('The helper’s phone shows it.')).toBeVisible();
    await expectNoFindings(theirs);
    await page.getByRole('button', { name: 'Call: release' }).click();
    await expect(theirs.getByText('Release', { exact: true })).toBeVisible();
    // A phone without a network says so, and so does the caller's.
    await other.setOffline(true);
    await expect(page.getByText(/has lost touch: call it out/)).toBeVisible({ timeout: 20_000 });
    await expect(theirs.getByText('Lost touch')).toBeVisible({ timeout: 20_000 });
    await expect(theirs.getByText(/^Listen for the voice/)).toBeVisible();
    await other.setOffline(false);
    await page.getByRole('button', { name: 'Call: press' }).click();
    await expect(theirs.getByText('Press and hold')).toBeVisible({ timeout: 20_000 });
    await expect(page.getByText('The helper’s phone shows it.')).toBeVisible({ timeout: 20_000 });
    // A caller who leaves is not waited for in silence.
    await page.goto('/');
    await expect(theirs.getByText('Lost touch')).toBeVisible({ timeout: 20_000 });
    await other.close();
  },
);
