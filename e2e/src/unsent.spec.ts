import { expectNoFindings } from './axe';
import { expect, press, signIn, startRun, test } from './ownServer';

test(
  'a note the server will not take is shown, corrected, and goes out; nothing else is held up',
  { tag: ['@both', '@main'] },
  async ({ page, server }) => {
    await signIn(page, 'paula');
    await startRun(page, 'Tipper 04');
    const id = page.url().split('/').at(-1) ?? '';
    await press(page, 'All done, ready');
    const held = () =>
      server.query(`select count(*) from facts where log_id = '${id}' and fact->>'kind' <> 'look'`);
    await expect.poll(held).toBe('1');
    // Half an emoji, as some keyboards leave it: straight into the device's store, past what the field lets through.
    await page.getByRole('button', { name: 'Add a note' }).click();
    await page.getByLabel('What you saw, heard or did').fill('cold');
    await page.getByRole('button', { name: 'Keep note' }).click();
    await expect.poll(held).toBe('2');
    await page.evaluate(async (logId) => {
      const db = await new Promise<IDBDatabase>((resolve) => {
        const opening = indexedDB.open('keen-bleed');
        opening.onsuccess = () => resolve(opening.result);
      });
      const store = db.transaction('facts', 'readwrite').objectStore('facts');
      const all = await new Promise<{ fact: { kind: string; text?: string; seq: number } }[]>(
        (resolve) => {
          const asking = store.index('by-log').getAll(logId);
          asking.onsuccess = () => resolve(asking.result as never);
        },
      );
      const last = all.sort((a, b) => a.fact.seq - b.fact.seq).at(-1)!;
      const seq = last.fact.seq + 1;
      const fresh = crypto.randomUUID();
      store.put({
        ...last,
        id: fresh,
        seq,
        sent: 0,
        fact: { ...last.fact, id: fresh, seq, text: 'cold \ud83e' },
      });
      await new Promise((resolve) => (store.transaction.oncomplete = resolve));
      db.close();
    }, id);
    await page.goto('/work');
    await page.getByRole('link', { name: /1 record is not sent/ }).click();
    await expect(page.getByRole('alert')).toContainText('half a character');
    await expect(page.getByRole('alert')).toContainText('The note');
    await expectNoFindings(page);
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as a file' }).click(),
    ]);
    expect(file.suggestedFilename()).toBe(`run-${id}.json`);
    await page.getByRole('button', { name: 'Correct it' }).click();
    await page.getByLabel('Words').fill('cold hands');
    await page.getByRole('button', { name: 'Keep, and send' }).click();
    await expect(page.getByText('All is sent')).toBeVisible();
    expect(
      server.query(
        `select fact->>'text' from facts where log_id = '${id}' and fact->>'kind' = 'note' order by seq desc limit 1`,
      ),
    ).toBe('cold hands');
  },
);

test('a record that was made by a clock that was set since asks when it was', async ({
  page,
  server,
}) => {
  await signIn(page, 'idris');
  await startRun(page, 'Tractor 11', { alone: true });
  const id = page.url().split('/').at(-1) ?? '';
  await page.route('**/api/v1/logs/**', (route) => route.abort());
  await press(page, 'All done, ready');
  await page.getByRole('button', { name: 'Stop here and keep the run as not finished' }).click();
  await page.getByRole('button', { name: 'Called away' }).click();
  await expect(page.getByRole('heading', { name: 'The ladder' })).toBeVisible();
  // The clock is set back by a day before anything is sent: what was measured before no longer holds.
  await page.clock.setSystemTime(Date.now() - 86_400_000);
  await page.unroute('**/api/v1/logs/**');
  await page.reload();
  await expect(page.getByText('The clock of the device was changed')).toBeVisible();
  await expect
    .poll(() => server.query(`select time_unsure from logs where id = '${id}'`))
    .toBe('t');
  await expectNoFindings(page);
  await page.getByLabel(/When did it really begin/).fill('yesterday');
  await page.getByRole('button', { name: 'That is when it began' }).click();
  await expect(page.getByText(/Give it as year-month-day/)).toBeVisible();
  // Just now by the right time, which this device takes for tomorrow.
  const justNow = new Date().toISOString().slice(0, 16).replace('T', ' ');
  await page.getByLabel(/When did it really begin/).fill(justNow);
  await page.getByRole('button', { name: 'That is when it began' }).click();
  await expect(page.getByText('The clock of the device was changed')).toHaveCount(0);
  await expect
    .poll(() => server.query(`select time_unsure from logs where id = '${id}'`))
    .toBe('f');
  await page.goto('/work');
  await expect(page.getByRole('heading', { name: 'Work', level: 1 })).toBeVisible();
  await expect(page.getByText(/This device’s clock is 24 hours behind/)).toBeVisible();
  await expectNoFindings(page);
});

test('two tabs write in one run without taking each other’s place', async ({
  page,
  context,
  server,
}) => {
  await signIn(page, 'maren');
  await startRun(page, 'Old gritter 03');
  const id = page.url().split('/').at(-1) ?? '';
  const second = await context.newPage();
  await second.goto(`/run/${id}`);
  await press(page, 'All done, ready');
  // The other tab follows, and marks the next.
  await press(second, 'Needle at 50 psi');
  await press(page, /Needle at/);
  await expect
    .poll(() =>
      server.query(
        `select count(*) = max(seq) and count(*) >= 3 from facts where log_id = '${id}'`,
      ),
    )
    .toBe('t');
  await expect(page.getByText('all sent')).toBeVisible();
});
