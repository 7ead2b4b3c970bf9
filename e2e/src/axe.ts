import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './ownServer';

/** What is in order is not told, and no style sheet is fetched again: most of the time goes there. */
const FINDINGS_ONLY = { resultTypes: ['violations' as const], preload: false };

/** Axe finds nothing on the page as it stands. */
export async function expectNoFindings(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).options(FINDINGS_ONLY).analyze();
  expect(
    violations.map((each) => `${each.id}: ${each.nodes.map((node) => node.html).join(' | ')}`),
  ).toEqual([]);
}
