import { expectNoFindings } from './axe';
import { expect, runToHold, signIn, startRun, test, walkRun } from './ownServer';

// The phone is dark and the wide screen light, so that each screen is looked at in either theme.
test('every screen is clean to axe', { tag: '@both' }, async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Keen Bleed' })).toBeVisible();
  await expectNoFindings(page);
  await signIn(page, 'maren');
  await expect(page.getByRole('listitem').first()).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('link', { name: /Gritter 12/ }).click();
  await expect(page.getByRole('heading', { name: 'Air system' })).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('list', { name: 'Runs' }).getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'The ladder' })).toBeVisible();
  await expectNoFindings(page);
  await page.goto('/unit/new');
  await expect(page.getByLabel('Unit number')).toBeVisible();
  await expectNoFindings(page);
  await page.goto('/shop');
  await expect(page.getByText('Idris Fenn', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await expectNoFindings(page);
  await page.goto('/run');
  await expect(page.getByRole('heading', { name: 'Work', level: 1 })).toBeVisible();
  await expectNoFindings(page);
  await page.goto('/words');
  await expect(page.getByRole('list', { name: 'Figures' })).toBeVisible();
  await expectNoFindings(page);
  await page.goto('/couple');
  await expect(page.getByRole('list', { name: 'Units to couple' })).toBeVisible();
  await expectNoFindings(page);
  await page.goto('/rules');
  await expect(page.getByRole('list', { name: 'Rule sets' })).toBeVisible();
  await expectNoFindings(page);
  await page.getByRole('link', { name: /Road-test examiner/ }).click();
  await expect(page.getByRole('list', { name: 'Limits' })).toBeVisible();
  await expectNoFindings(page);
});

test(
  'the run screen is clean to axe from its start to its end',
  { tag: '@both' },
  async ({ page }) => {
    await page.clock.install();
    await signIn(page, 'paula');
    await startRun(page, 'Gritter 18');
    await expectNoFindings(page);
    await runToHold(page);
    await expect(page.getByTestId('clock')).toBeVisible();
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Add a note' }).click();
    await expectNoFindings(page);
    await page.getByRole('button', { name: 'Back' }).click();
    await page.clock.fastForward(60_000);
    await walkRun(page);
    await expectNoFindings(page);
  },
);

test(
  'a unit is added, checked against the tank rule, edited and retired',
  { tag: ['@both', '@main'] },
  async ({ page }) => {
    await signIn(page, 'maren');
    await page.getByRole('link', { name: 'Add a unit' }).click();
    await page.getByRole('button', { name: 'Add to the yard' }).click();
    await expect(page.getByText('Unit number is missing.')).toBeVisible();
    const number = `T${Date.now() % 100_000}`;
    await page.getByLabel('What it is').fill('Loader');
    await page.getByLabel('Unit number').fill('12');
    await page.getByLabel('Governor cut-in').fill('130');
    await page.getByRole('button', { name: 'Add to the yard' }).click();
    await expect(
      page.getByText('Cut-in must be below cut-out; 130 is not below 125 psi.').first(),
    ).toBeVisible();
    await page.getByLabel('Governor cut-in').fill('105');
    await page.getByRole('button', { name: 'Add to the yard' }).click();
    await expect(page.getByText(/Number 12 is taken/).first()).toBeVisible();
    await page.getByLabel('Unit number').fill(number);
    await page.getByRole('button', { name: 'Add to the yard' }).click();
    await expect(page.getByRole('heading', { name: `Loader ${number}` })).toBeVisible();
    // 1400 + 2100 + 2100 = 5600 in³ against 12 × 464 = 5568.
    await expect(page.getByText('5,600 in³ of 5,568 in³ needed')).toBeVisible();

    await page.getByRole('button', { name: 'Edit' }).click();
    await page.getByLabel('Volume, in³').first().fill('1200');
    await page.getByLabel('Displacement').fill('900');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(
      page.getByText(/Compressor displacement \(L a turn\) must be at most 2/).first(),
    ).toBeVisible();
    await page.getByLabel('Displacement').fill('19.5');
    await page
      .getByRole('radiogroup', { name: 'Spring brake modulating valve' })
      .getByRole('radio', { name: 'none' })
      .click();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('5,400 in³ of 5,568 in³ needed')).toBeVisible();
    await expect(page.getByText('compressor of 19.5 in³, 0.32 L a turn')).toBeVisible();
    await expect(page.getByText('no modulating valve')).toBeVisible();
    // What was told is there when the form is opened again.
    await page.getByRole('button', { name: 'Edit' }).click();
    await expect(page.getByLabel('Displacement')).toHaveValue('19.5');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('no modulating valve')).toBeVisible();
    await page.getByRole('button', { name: 'Retire' }).click();
    await expect(page.getByRole('button', { name: 'Back in service' })).toBeVisible();
    await page.getByRole('link', { name: 'Yard' }).click();
    await expect(page.getByRole('list', { name: 'Units' })).toBeVisible();
    await expect(page.getByText(`Loader ${number}`)).toBeHidden();
  },
);

test(
  'a viewer reads everything and is offered nothing to change',
  { tag: ['@both', '@main'] },
  async ({ page }) => {
    await signIn(page, 'joss');
    await expect(page.getByRole('link', { name: 'Add a unit' })).toBeHidden();
    await page.getByRole('link', { name: /Gritter 12/ }).click();
    await expect(page.getByRole('heading', { name: 'Air system' })).toBeVisible();
    for (const name of ['Start a run', 'Edit', 'Retire'])
      await expect(page.getByRole('button', { name })).toBeHidden();
    await page.getByRole('link', { name: 'Shop' }).click();
    await expect(page.getByText('Idris Fenn', { exact: true })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Add a person' })).toBeHidden();
  },
);

test('pressures are shown in the unit the reader chose', async ({ page }) => {
  await signIn(page, 'joss');
  await page.getByRole('link', { name: 'Shop' }).click();
  // The people stand above on a phone: once they are there, nothing moves any more.
  await expect(page.getByText('Idris Fenn', { exact: true })).toBeVisible();
  await page.getByRole('radio', { name: 'bar' }).click();
  await expect(page.getByRole('radio', { name: 'bar' })).toBeChecked();
  await page.getByRole('link', { name: 'Yard' }).click();
  const units = page.getByRole('list', { name: 'Units' });
  await expect(units).toContainText(/\d\.\d\d bar(\/min)?, allowed at (most|least) \d\.\d\d/);
  await expect(units).not.toContainText('psi');
});

test('a run is taken out as JSON, CSV and a report', { tag: '@main' }, async ({ page }) => {
  await signIn(page, 'joss');
  await page.getByRole('link', { name: /Gritter 12/ }).click();
  await page.getByRole('list', { name: 'Runs' }).getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'The ladder' })).toBeVisible();
  for (const [kind, title] of [
    ['JSON', 'Export as JSON'],
    ['CSV', 'Export as CSV'],
    ['PDF', 'Report as PDF'],
  ] as const) {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: title }).click();
    expect((await download).suggestedFilename()).toMatch(
      new RegExp(`^run-12-.*\\.${kind.toLowerCase()}$`),
    );
  }
});

test('nothing of the page breaks the content policy', async ({ page }) => {
  const complaints: string[] = [];
  page.on('console', (message) => {
    if (/content security policy|refused to/i.test(message.text())) complaints.push(message.text());
  });
  page.on('pageerror', (error) => complaints.push(error.message));
  await signIn(page, 'joss');
  await page.getByRole('link', { name: /Gritter 12/ }).click();
  await expect(page.getByRole('heading', { name: 'Air system' })).toBeVisible();
  expect(complaints).toEqual([]);
});
