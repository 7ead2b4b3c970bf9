import type { Page } from '@playwright/test';
import { expect } from './ownServer';

/** Closes the visit on the screen, and waits until the server knows: tests of one worker share its database. */
export async function closeVisit(page: Page, server: { query: (sql: string) => string }) {
  const id = page.url().split('/').at(-1) ?? '';
  await page.getByRole('button', { name: 'Close the visit' }).click();
  await expect(page.getByRole('button', { name: 'Close the visit' })).toHaveCount(0);
  await expect
    .poll(() =>
      server.query(`select count(*) from logs where id = '${id}' and closed_at_ms is not null`),
    )
    .toBe('1');
}
