import type { Browser, Page } from '@playwright/test';
import { coreLength, dragBy, expect, openDrive, saved, shownLength, test, type Emery } from './emery';

async function tablet(browser: Browser, address: string): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: address })).newPage();
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  return page;
}

/** Two tablets with the same drive open; the first saves a change, then the second tries to. */
async function collide(browser: Browser, emery: Emery) {
  const address = emery.address();
  const [first, second] = [await tablet(browser, address), await tablet(browser, address)];
  await dragBy(first, 'alt', 30, 0);
  // A slow machine saves more than once during one drag; the last save is the one the second tablet is to meet.
  await expect
    .poll(async () => coreLength((await emery.drive('Front drive')).document))
    .toBeCloseTo(await shownLength(first), 9);
  await saved(first);
  const { revision } = await emery.drive('Front drive');
  await dragBy(second, 'ac', 0, 30);
  await expect(second.getByRole('alertdialog')).toContainText('This drive was saved somewhere else');
  return { theirs: await shownLength(first), mine: await shownLength(second), second, revision };
}

test('neither overwrites the other: both are shown, and keeping both makes a copy', async ({ browser, emery }) => {
  const { theirs, mine, second, revision } = await collide(browser, emery);
  const panel = second.getByRole('alertdialog');
  await expect(panel.getByRole('img')).toHaveCount(2);
  await expect(panel).toContainText('Compressor: above the crank');
  await expect(panel).toContainText('Alternator: right of the crank');
  await panel.getByRole('button', { name: /Keep both/ }).click();
  await expect(panel).toBeHidden();
  await saved(second);
  expect(await shownLength(second)).toBeCloseTo(theirs, 9);
  expect((await emery.drive('Front drive')).revision).toBe(revision);
  const copy = await emery.drive('Front drive (mine)');
  await second.goto(`/drives/${copy.id}`);
  await expect.poll(() => shownLength(second)).toBeCloseTo(mine, 9);
});

test('replacing theirs is possible once it has been seen', async ({ browser, emery }) => {
  const { mine, second, revision } = await collide(browser, emery);
  await second.getByRole('button', { name: 'Replace theirs with mine' }).click();
  await saved(second);
  expect((await emery.drive('Front drive')).revision).toBe(revision + 1);
  await second.reload();
  await expect.poll(() => shownLength(second)).toBeCloseTo(mine, 9);
});

test('taking theirs leaves nothing to save, and the page goes on from there', async ({ browser, emery }) => {
  const { theirs, second, revision } = await collide(browser, emery);
  await second.getByRole('button', { name: 'Take theirs' }).click();
  await expect.poll(() => shownLength(second)).toBeCloseTo(theirs, 9);
  expect((await emery.drive('Front drive')).revision).toBe(revision);
  await dragBy(second, 'steer', -20, 0);
  await expect.poll(async () => (await emery.drive('Front drive')).revision).toBeGreaterThan(revision);
});
