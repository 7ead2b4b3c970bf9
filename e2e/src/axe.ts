import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './ownServer';

/** Axe finds nothing on the page as it stands. */
export async function expectNoFindings(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(
    violations.map((each) => `${each.id}: ${each.nodes.map((node) => node.html).join(' | ')}`),
  ).toEqual([]);
}
