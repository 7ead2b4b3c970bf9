import { randomUUID } from 'node:crypto';
import type { Page } from '@playwright/test';
import { expectNoFindings } from './axe';
import { expect, pad, press, signIn, test } from './ownServer';

const knob = (page: Page, group: string, value: string) =>
  page.getByRole('radiogroup', { name: group }).getByRole('radio', { name: value, exact: true });

/** Sets a rig up in the Bay by a letter or two of its name. */
async function setUp(page: Page, rig: string, faults: string) {
  await page.getByRole('link', { name: 'Bay' }).click();
  await page.getByLabel('Find a rig').fill(rig);
  await page.getByLabel('Rig', { exact: true }).selectOption({ label: rig });
  await page.getByRole('radio', { name: faults, exact: true }).click();
  await page.getByRole('button', { name: 'Start' }).click();
}

/** Walks round to the drawing: beside the cab on a wide screen, one swipe away on a phone. */
async function walkRound(page: Page) {
  const turn = page.getByRole('radio', { name: 'Around the rig' });
  await expect(page.getByRole('img', { name: /^Gauges/ })).toBeVisible();
  if (await turn.isVisible()) await turn.click();
}

async function backToCab(page: Page) {
  const turn = page.getByRole('radio', { name: 'In the cab' });
  if (await turn.isVisible()) await turn.click();
}

/** A part on the drawing, by its name. */
const onDrawing = (page: Page, part: string | RegExp) =>
  page
    .getByRole('group', { name: /from above/ })
    .getByRole('button', { name: part })
    .first();

test(
  'a rig in the Bay is driven, walked round, hunted and told, by tapping alone',
  { tag: ['@both', '@main'] },
  async ({ page }) => {
    await signIn(page, 'idris');
    await setUp(page, 'Gritter 18', 'one hidden');
    const gauges = page.getByRole('img', { name: /^Gauges/ });
    const primary = async () =>
      Number(/prim\. (\d+)/.exec((await gauges.getAttribute('aria-label')) ?? '')?.[1]);
    await expect(gauges).toBeVisible();
    const before = await primary();
    await knob(page, 'Engine', '2,100').click();
    await knob(page, 'Time', '× 16').click();
    // In time of its own, in a worker: the needle climbs.
    await expect.poll(primary).toBeGreaterThan(before + 10);
    await knob(page, 'Park, yellow', 'in').click();
    await expect(knob(page, 'Park, yellow', 'in')).toBeChecked();
    await walkRound(page);
    await onDrawing(page, /^Secondary tank/).click();
    await page
      .getByRole('button', { name: /^Do it: Wet the joints of the secondary tank/ })
      .click();
    await expect(page.getByRole('status').filter({ hasText: 'Wet the joints' })).toBeVisible();
    await page.getByText('See the air in it').click();
    await expect(page.getByText(/^Now \d+/)).toBeVisible();
    await expectNoFindings(page);
    // A drain is opened where it is.
    await page.getByRole('button', { name: 'Secondary tank drain', exact: true }).click();
    await knob(page, 'secondary drain', 'open').click();
    await expect(knob(page, 'secondary drain', 'open')).toBeChecked();
    await page
      .getByRole('button', { name: /^It is this: secondary tank drain: does not close/ })
      .click();
    // No list of it is longer than a hand can scan.
    for (const list of await page.getByRole('list').all()) {
      expect(await list.getByRole('listitem').count()).toBeLessThanOrEqual(8);
    }
    for (const select of await page.locator('select').all()) {
      expect(await select.locator('option').count()).toBeLessThanOrEqual(8);
    }
    // A gauge teed in stays on the cab's ladder until it is taken off.
    await onDrawing(page, /^Secondary tank/).click();
    await page.getByRole('button', { name: 'Tee a gauge in, to stay' }).click();
    await expect(page.getByRole('button', { name: 'Take the gauge off' })).toBeVisible();
    await backToCab(page);
    await expect(gauges).toHaveAttribute('aria-label', /, A \d+/);
    await expect(page.getByText('A: Secondary tank')).toBeVisible();
    await expect(page.getByRole('log', { name: 'Done so far' })).toContainText('secondary tank');
    await page.getByRole('button', { name: 'I know what it is' }).click();
    await expect(page.getByText(/It was: .+\. 1 check, .+ minutes of work/)).toBeVisible({
      timeout: 20_000,
    });
    await expect(page.getByText(/^(The shortest way: |No single check tells it)/)).toBeVisible();
    await page.getByRole('button', { name: 'Another rig' }).click();
    // Kept on this device under Practice, to be read or deleted.
    const kept = page.getByRole('list', { name: 'Practice' });
    await expect(kept).toContainText('Gritter 18');
    await kept.getByRole('button', { name: 'Read the practice on Gritter 18' }).click();
    await expect(page.getByRole('list', { name: 'What was done' })).toContainText('Wet the joints');
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Delete' }).click();
    await expect(page.getByRole('button', { name: 'Start' })).toBeVisible();
    await expect(kept).toBeHidden();
  },
);

test(
  'a rig is drawn on its sheet: a part is confirmed, checked and found again on the drawing',
  { tag: '@both' },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    const facts = () => server.query("select count(*) from facts where fact->>'kind' = 'check'");
    const before = facts();
    await page
      .getByRole('list', { name: 'Units' })
      .getByRole('link', { name: /^Tractor 09/ })
      .click();
    await page.getByRole('link', { name: 'See it drawn' }).click();
    await expect(page.getByRole('radiogroup', { name: 'Circuit' })).toBeVisible();
    const relay = onDrawing(page, /Rear relay/);
    await relay.click();
    const card = page.getByRole('region', { name: 'Rear relay' });
    await expect(card).toContainText('Fills chambers from a tank close by');
    // What it does on this rig, by the twin.
    await expect(card.getByRole('list', { name: 'What it does, step by step' })).toContainText(
      'delivery 30',
      {
        timeout: 20_000,
      },
    );
    await expect(card).toContainText('without the relay');
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Rear relay: seen, it is fitted' }).click();
    await expect(page.getByText(/1 of \d+ parts confirmed/)).toBeVisible();
    await card
      .getByRole('button', { name: /^Do it: Listen at the rear relay’s exhaust, Charged, brakes/ })
      .click();
    await expect(page.getByRole('note', { name: 'Caution' })).toContainText('eye protection');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('Say what you found.')).toBeVisible();
    await page.getByRole('radio', { name: 'a hiss' }).click();
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(card.getByRole('list', { name: /^What was found at/ })).toContainText('a hiss');
    // What was found reaches the server as a fact of the visit.
    await expect.poll(facts).not.toBe(before);
    // The list says the same as the drawing, in walking order.
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('radio', { name: 'list', exact: true }).click();
    const list = page.getByRole('list', { name: 'Parts in walking order' });
    await expect(list.getByRole('listitem').first()).toBeVisible();
    await expect(list).toContainText('Rear relay');
    await expectNoFindings(page);
  },
);

test('a line on a wrong port is kept as it was found, told in words and marked on the drawing', async ({
  page,
}) => {
  await signIn(page, 'idris');
  // On a unit of its own: a rig whose relay is plumbed wrongly bleeds its primary tank away, in the Bay as well.
  const { units } = await page.evaluate(async () => ({
    units: (await (await fetch('/api/units')).json()) as Record<string, unknown>[],
  }));
  const like = units.find(({ number }) => number === '18')!;
  const draft = Object.fromEntries(
    Object.entries(like).filter(
      ([key]) => !['id', 'revision', 'retiredAtMs', 'parts'].includes(key),
    ),
  );
  const id = randomUUID();
  const made = await page.request.post('/api/units', {
    data: { id, draft: { ...draft, number: '97', name: 'Gritter' } },
  });
  expect(made.ok()).toBe(true);
  await page.goto(`/unit/${id}`);
  await page.getByRole('link', { name: 'See it drawn' }).click();
  await page.getByRole('radio', { name: 'Every part' }).click();
  await onDrawing(page, /^Rear relay$/).click();
  await page.getByRole('button', { name: 'Line: Rear relay supply' }).click();
  await page.getByLabel('To', { exact: true }).selectOption('Rear relay: control');
  await page.getByRole('button', { name: 'Keep' }).click();
  const wrong = page.getByRole('list', { name: 'What cannot be as it was said' });
  await expect(wrong).toContainText('2 lines are on one port, control of rear relay');
  await expectNoFindings(page);
});

test(
  'a run by the book is made on a rig in the Bay, by its own clock, and kept nowhere',
  { tag: '@both' },
  async ({ page, server }) => {
    await page.clock.install();
    await signIn(page, 'idris');
    const runs = () => server.query('select count(*) from logs');
    const before = runs();
    await setUp(page, 'Gritter 18', 'none');
    await page.getByRole('button', { name: 'Make a run by the book on it' }).click();
    await expect(page.getByText('practice, not kept')).toBeVisible();
    await expectNoFindings(page);
    await press(page, 'All done, ready');
    await knob(page, 'Engine', '2,100').click();
    await expect(knob(page, 'Engine', '2,100')).toBeChecked();
    await knob(page, 'Time', '× 16').click();
    await expect(knob(page, 'Time', '× 16')).toBeChecked();
    // The set in it sees the levels passed; the technician only confirms, when there is time.
    for (const level of ['85', '100']) {
      await expect(pad(page)).toContainText(`Needle at ${level} psi`);
      await expect(pad(page)).toContainText('the gauge saw it: confirm');
      await press(page, `Needle at ${level} psi`);
    }
    await expect(page.getByRole('heading', { name: 'Cut-out', level: 2 })).toBeVisible();
    await expect(pad(page)).toContainText('the gauge saw it: confirm', { timeout: 30_000 });
    // Left for the cab and come back to, it is where it was.
    await page.getByRole('button', { name: 'Cab', exact: true }).click();
    await expect(page.getByRole('img', { name: /^Gauges/ })).toBeVisible();
    await page.getByRole('button', { name: 'Back to the run' }).click();
    await expect(page.getByRole('heading', { name: 'Cut-out', level: 2 })).toBeVisible();
    await page.getByRole('button', { name: /^Stop here/ }).click();
    await page.getByRole('button', { name: 'Called away' }).click();
    await expect(page.getByRole('heading', { name: 'The run by the book' })).toBeVisible();
    await expect(page.getByText('A run for practice: it is in no record.')).toBeVisible();
    expect(runs()).toBe(before);
    await page.getByRole('button', { name: 'Cab', exact: true }).click();
    await expect(page.getByRole('img', { name: /^Gauges/ })).toBeVisible();
  },
);

test('a fault is set openly on a rig with numbered ports, and its hand brake tested', async ({
  page,
}) => {
  await signIn(page, 'joss');
  await page.getByRole('link', { name: 'Bay' }).click();
  await page.getByLabel('Find a rig').fill('Tipper 21');
  await page.getByLabel('Rig', { exact: true }).selectOption({ label: 'Tipper 21' });
  await page.getByRole('radio', { name: 'half', exact: true }).click();
  await page.getByRole('radio', { name: 'set openly' }).click();
  await page.getByRole('button', { name: 'Start' }).click();
  await walkRound(page);
  await onDrawing(page, /^Primary tank/).click();
  const said = page.getByRole('status').filter({ hasText: 'Wet the joints' });
  const wet = page.getByRole('button', { name: /^Do it: Wet the joints of the primary tank/ });
  await knob(page, 'How bad', 'bad').click();
  await page.getByRole('button', { name: 'Set it now: primary tank: leaks at a joint' }).click();
  await expect(
    page.getByRole('button', { name: 'Set: primary tank: leaks at a joint' }),
  ).toBeDisabled();
  // Soap misses now and then.
  await expect(async () => {
    await wet.click();
    await expect(said).toContainText(/a stream|froth|blown off/, { timeout: 1_000 });
  }).toPass();
  await backToCab(page);
  await knob(page, 'Hand brake', 'released').click();
  await expect(knob(page, 'Hand brake', 'released')).toBeChecked();
  await knob(page, 'Pedal, bar asked', '1.5').click();
  await walkRound(page);
  await onDrawing(page, /^Rear relay/).click();
  await page.getByRole('button', { name: 'Rear load-sensing valve', exact: true }).click();
  await expect(page.getByText(/^Now (.+, )?(on|hold)\.$/)).toBeVisible();
});

test('couplers that come apart pop the trailer supply out, and a drain empties its tank', async ({
  page,
}) => {
  await signIn(page, 'idris');
  await setUp(page, 'Tractor 09 + Low-loader 31', 'none');
  await knob(page, 'Time', '× 16').click();
  await knob(page, 'Engine', '2,100').click();
  await expect(page.getByText('no warning')).toBeVisible();
  await knob(page, 'Trailer supply, red', 'in').click();
  await expect(knob(page, 'Trailer supply, red', 'in')).toBeChecked();
  await knob(page, 'Engine', 'off').click();
  await walkRound(page);
  await onDrawing(page, /Supply coupler/).click();
  await knob(page, 'Couplers', 'apart').click();
  // It loses air through the open hose until the valve protects what the truck has left.
  await expect(knob(page, 'Trailer supply, red', 'out')).toBeChecked();
  const gauges = page.getByRole('img', { name: /^Gauges/ });
  const primary = async () =>
    Number(/prim\. (\d+)/.exec((await gauges.getAttribute('aria-label')) ?? '')?.[1]);
  expect(await primary()).toBeGreaterThan(18);
  await onDrawing(page, /: Primary tank/).click();
  await page.getByRole('button', { name: 'Primary tank drain', exact: true }).click();
  await knob(page, 'primary drain', 'open').click();
  await expect.poll(primary).toBeLessThan(5);
  await page.getByRole('button', { name: 'I say nothing is wrong' }).click();
  await expect(page.getByText(/It was: nothing is wrong/)).toBeVisible();
  await expect(
    page.getByText(/The compressor loaded \d+ % of the time the engine ran; \d+ purges?, 0 app/),
  ).toBeVisible();
});

test('a trailer alone is worked from the shop', async ({ page }) => {
  await signIn(page, 'idris');
  await setUp(page, 'Low-loader 31', 'none');
  await knob(page, 'Time', '× 16').click();
  await knob(page, 'Shop air', 'on').click();
  const gauges = page.getByRole('img', { name: /^Gauges/ });
  const shows = async (title: string) =>
    Number(
      new RegExp(`${title} (-?\\d+)`).exec((await gauges.getAttribute('aria-label')) ?? '')?.[1],
    );
  await expect.poll(() => shows('tank')).toBeGreaterThan(100);
  await knob(page, 'Service, psi asked', '60').click();
  await expect.poll(() => shows('service')).toBeGreaterThan(50);
  await walkRound(page);
  await onDrawing(page, /^Relay/).click();
  await expect(page.getByText(/^Now \d+ psi, (on|hold)\.$/)).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('button', { name: 'Make a run by the book on it' }).click();
  await expect(pad(page)).toBeVisible();
  await expect(page.getByRole('region', { name: 'The cab' })).toContainText(/service [56]\d/);
});
