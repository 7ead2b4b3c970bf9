import { answerAll, expect, pad, signIn, startRun, test } from './ownServer';

test(
  'a linked gauge set moves the needle, catches the marks, and is only confirmed',
  { tag: '@main' },
  async ({ page, server }) => {
    await signIn(page, 'idris');
    await startRun(page, 'Gritter 15');
    await page.getByRole('radio', { name: 'by a simulated gauge set' }).click();
    await expect(page.getByText('simulated gauge set linked')).toBeVisible();
    await answerAll(page);
    await pad(page).click();
    await expect(pad(page)).toContainText('Needle at 85 psi');
    await expect(pad(page)).toContainText('the gauge saw it: confirm', { timeout: 60_000 });
    await pad(page).click();
    await expect(pad(page)).toContainText('Needle at 100 psi');
    const id = page.url().split('/').at(-1) ?? '';
    const mark = () =>
      server.query(
        `select fact->>'readingPsi' || ' ' || (fact->>'resolutionPsi') from facts where log_id = '${id}' and fact->>'kind' = 'mark'`,
      );
    // Timed by the gauge, and as fine as it sends.
    await expect.poll(mark).toMatch(/^85 0\.[01]\d*$/);
    expect(
      server.query(
        `select fact->>'gauge' from facts where log_id = '${id}' and fact->>'kind' = 'ready'`,
      ),
    ).toBe('simulated');
  },
);
