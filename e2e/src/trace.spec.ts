import { readFileSync } from 'node:fs';
import { closeVisit } from './closeVisit';
import { expectNoFindings } from './axe';
import { expect, pad, press, signIn, test } from './ownServer';

/** A made-up truck: built up, held, a step at the pedal and a hold again; in kPa, ten readings a second. */
function logged(): string {
  const rows = ['time_s,Primary (kPa),remark'];
  const psiAt = (s: number) => {
    if (s < 10) return 76;
    if (s < 80) return Math.min(125, 76 + 0.7 * (s - 10));
    if (s < 100) return 125;
    if (s < 110) return 125 - 2.6 * (s - 100);
    if (s < 170) return Math.min(125, 99 + 0.7 * (s - 110));
    if (s < 300) return 125 - ((s - 170) / 60) * 1.2;
    return 114 - ((s - 300) / 60) * 1.5;
  };
  for (let n = 0; n < 4_200; n += 1) {
    const s = n / 10;
    rows.push(
      s > 172 && s < 178
        ? `${s.toFixed(1)},,no signal`
        : `${s.toFixed(1)},${(psiAt(s) * 6.894757).toFixed(2)},`,
    );
  }
  return rows.join('\n');
}

test('a logger’s file is taken apart, looked at closely, and made into a run', async ({
  page,
  server,
}) => {
  await signIn(page, 'paula');
  await page.getByRole('link', { name: 'Work', exact: true }).click();
  await page.getByRole('link', { name: 'Read a recorded trace' }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'log.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(logged()),
  });
  await expect(page.getByLabel('Column of pressures')).toHaveValue('Primary (kPa)');
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText(/4,14\d readings, 5\d rows left out/)).toBeVisible();
  const segments = page.getByRole('list', { name: 'Segments' });
  for (const kind of ['Build-up', 'Cut-out', 'Cut-in', 'Hold', 'Nothing recorded']) {
    await expect(
      segments.getByRole('button', { name: new RegExp(`^${kind}`) }).first(),
    ).toBeVisible();
  }
  await segments
    .getByRole('button', { name: /^Build-up/ })
    .first()
    .click();
  await expect(page.getByRole('img', { name: 'What the line leaves' })).toBeVisible();
  await expectNoFindings(page);

  await page.getByLabel('Run of', { exact: true }).selectOption('Gritter 15');
  await page.getByRole('button', { name: 'Make a run of it' }).click();
  await expect(page.getByRole('heading', { name: /Gritter 15/ })).toBeVisible();
  await expect(
    page
      .getByText('all steps')
      .or(page.getByText(/\d+ of \d+/))
      .first(),
  ).toBeVisible();
  const id = page.url().split('/').at(-1) ?? '';
  const cutOut = () =>
    server.query(
      `select round((fact->>'readingPsi')::numeric) from facts where log_id = '${id}' and fact->>'key' = 'cut-out'`,
    );
  await expect.poll(cutOut).toBe('125');
});

test('several columns are drawn, looked at by hand, and played to a run for practice', async ({
  page,
}) => {
  await page.clock.install();
  await signIn(page, 'joss');
  await page.goto('/trace');
  const rows = logged().split('\n');
  // The dryer is let down at the cut-out, as it is purged.
  const withDryer = rows.map((row, n) =>
    n === 0 ? `${row},Dryer (bar)` : `${row},${n > 800 && n < 1_100 ? '0.1' : '8.6'}`,
  );
  await page.locator('input[type=file]').setInputFiles({
    name: 'two.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(withDryer.join('\n')),
  });
  await expect(page.getByRole('checkbox', { name: 'Dryer (bar)' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'remark' })).not.toBeChecked();
  await page.getByRole('button', { name: 'Read it' }).click();
  const segments = page.getByRole('list', { name: 'Segments' });
  await expect(segments.getByRole('button', { name: /^Purge 1:\d\d to/ })).toBeVisible();
  const chart = page.getByRole('img', { name: 'Recorded pressure' });
  await chart.scrollIntoViewIfNeeded();
  const box = await chart.boundingBox();
  if (!box) throw new Error('the chart has no place');
  await page.mouse.move(box.x + box.width * 0.5, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.8, box.y + 60);
  await page.mouse.up();
  await expect(page.getByRole('button', { name: 'Farther' })).toBeEnabled();
  await page.getByRole('button', { name: 'Earlier' }).click();
  await page.getByRole('button', { name: 'Farther' }).click();
  await expectNoFindings(page);
  await page.getByRole('button', { name: 'Whole trace' }).click();
  await expect(page.getByRole('button', { name: 'Farther' })).toBeDisabled();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const text = readFileSync(await (await saved).path(), 'utf8');
  expect(text.split(/\r?\n/)[0]).toBe('time_s,Primary (psi),Dryer (psi)');

  await page.getByLabel('Run of', { exact: true }).selectOption('Gritter 15');
  await page.getByRole('button', { name: 'Play it to a run for practice' }).click();
  await press(page, 'All done, ready');
  await page.getByRole('radio', { name: '× 16' }).click();
  for (const level of ['85', '100']) {
    await expect(pad(page)).toContainText('the gauge saw it: confirm');
    await press(page, `Needle at ${level} psi`);
  }
  await page.getByRole('radio', { name: 'stopped' }).click();
  await page.getByRole('button', { name: 'Trace', exact: true }).click();
  await expect(segments).toBeVisible();
});

test('a file that is none is said so', async ({ page }) => {
  await signIn(page, 'paula');
  await page.goto('/trace');
  await page.locator('input[type=file]').setInputFiles({
    name: 'notes.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('shopping,list\nbread,milk\n'),
  });
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('alert')).toContainText('Nothing could be read in those columns');
});

/** A brake line stamped and let go, a reading every 5 ms: on to 60 psi in 0.24 s, off from 95 to 5 psi in 0.74 s. */
function stamped(): string {
  const rows = ['time_ms,Service line (psi)'];
  for (let ms = 0; ms < 7_000; ms += 5) {
    const s = ms / 1_000;
    const psi =
      s < 1 ? 0 : s < 4 ? 110 * (1 - Math.exp(-(s - 1) / 0.31)) : 110 * Math.exp(-(s - 4) / 0.25);
    rows.push(`${ms},${psi.toFixed(2)}`);
  }
  return rows.join('\n');
}

test('a timed stamp is kept for the chamber it was recorded at, and stands on the bench', async ({
  page,
  server,
}) => {
  await signIn(page, 'paula');
  const id = server.query(`select id from units where number = '07'`);
  await page.goto(`/unit/${id}/bench?valve=0.rear-chambers`);
  await page
    .getByRole('link', { name: 'Time the rear left chamber on, from a logger’s file' })
    .click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'line.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(stamped()),
  });
  await page.getByRole('button', { name: 'Read it' }).click();
  await page.getByRole('button', { name: /^Keep for a chamber: on,/ }).click();
  // Where it was recorded has to be said.
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Say where it was recorded.')).toBeVisible();
  await page.getByRole('radio', { name: 'rear left chamber' }).click();
  await expectNoFindings(page);
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const figures = page.getByRole('list', { name: 'Figures: Time the rear left chamber on' });
  await expect(figures).toContainText('0.24 s');
  await expect(figures).toContainText('0.45 s at most');
  await expect(figures).toContainText('pass');
  await expect
    .poll(() =>
      server.query(
        `select fact->>'note' from facts where fact->>'checkId' = '0/time/rear left/down'`,
      ),
    )
    .toBe('timed from line.csv');
  await page.getByRole('link', { name: 'The visit in which this is kept' }).click();
  await closeVisit(page, server);
});

test('a recorded line says how fast the brakes go on and off, by what it was recorded on', async ({
  page,
}) => {
  await signIn(page, 'paula');
  await page.goto('/trace');
  await page.locator('input[type=file]').setInputFiles({
    name: 'line.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(stamped()),
  });
  await page.getByRole('button', { name: 'Read it' }).click();
  const moves = page.getByRole('list', { name: 'Brakes on and off' }).getByRole('listitem');
  await expect(moves).toHaveCount(2);
  await expect(moves.first()).toContainText('0.24 ± 0.01 s');
  await expect(moves.first()).toContainText('pass');
  await expect(moves.last()).toContainText('0.74 ± 0.01 s');
  await expect(moves.last()).toContainText('fail');
  // A trailer is allowed a second.
  await page.getByRole('radio', { name: 'trailer', exact: true }).click();
  await expect(moves.last()).toContainText('pass');
  await expectNoFindings(page);
});
