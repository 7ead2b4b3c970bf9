import { expectNoFindings } from './axe';
import { expect, pad, press, signIn, startRun, test } from './ownServer';

test('a run is gone on with on another device, the first one says so, and can take it back', async ({
  page,
  browser,
  server,
}) => {
  await page.clock.install();
  await signIn(page, 'idris');
  await startRun(page, 'Gritter 18');
  await press(page, 'All done, ready');
  await press(page, 'Needle at 85 psi');
  await expect(page.getByTestId('outbox')).toContainText('sent');
  const path = new URL(page.url()).pathname;

  // Another technician may look and add a note; the lead may go on with it.
  const joining = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' });
  const lead = await joining.newPage();
  await lead.clock.install();
  await signIn(lead, 'maren');
  await lead.goto(path);
  await expect(lead.getByText('Idris Fenn is at “Build up”')).toBeVisible();
  await expectNoFindings(lead);
  await lead.getByRole('button', { name: /^Take this run over/ }).click();
  await expect(pad(lead)).toContainText('Needle at 100 psi');

  await expect(page.getByText('Maren Osk is at “Build up”')).toBeVisible();
  await expect(page.getByText(/^Taken over at/)).toBeVisible();
  await press(lead, 'Needle at 100 psi');
  await expect(page.getByText('Maren Osk is at “Cut-out”')).toBeVisible();
  await page.getByRole('button', { name: /^Take this run over/ }).click();
  await press(page, 'Stopped at 125 psi');
  await expect(lead.getByText(/Idris Fenn is at “/)).toBeVisible();

  // Closed from the other device, without having been at it.
  await lead.getByRole('button', { name: /^Take this run over/ }).click();
  await lead.getByRole('button', { name: /^Stop here/ }).click();
  await lead.getByRole('button', { name: 'Called away' }).click();
  await expect(lead.getByText('not finished').first()).toBeVisible();
  await expect(page.getByText('not finished').first()).toBeVisible();

  // What was recorded stays; a note stands beside it.
  await page.getByRole('button', { name: 'Add a note' }).click();
  await page.getByLabel('Note on this run').fill('Hose found off afterwards');
  await page.getByRole('button', { name: 'Keep note' }).click();
  await expect(page.getByText('On the run: Hose found off afterwards')).toBeVisible();
  await joining.close();
});
