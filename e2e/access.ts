import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * What axe finds on the page, or in those parts of it, that stands in the way of somebody who reads it by ear or works
 * it by keyboard: the rule, and where. Of a whole page what is serious or critical; of a part whatever it is.
 */
async function faults(page: Page, parts: readonly string[]): Promise<string[]> {
  // Our pages have no frames, and what is sound is not told of: both together take two thirds of the time away.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
  for (const part of parts) axe.include(part);
  const { violations } = await axe.analyze();
  return violations
    .filter(({ impact }) => parts.length > 0 || impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}

export async function noFaultOfAccess(page: Page, ...parts: string[]): Promise<void> {
  expect(await faults(page, parts)).toEqual([]);
}
