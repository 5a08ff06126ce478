import type { Page } from '@playwright/test';
import { expect, saved, shownLength, test } from './emery';

/** Presses Tab until what has the focus answers to `name`. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 60; presses += 1) {
    await page.keyboard.press('Tab');
    const reached = await page.evaluate(() => {
      const at = document.activeElement;
      if (!at) return '';
      const label = at.id ? document.querySelector(`label[for="${CSS.escape(at.id)}"]`)?.textContent : '';
      return at.getAttribute('aria-label') ?? (label || at.textContent || '');
    });
    if (name.test(reached)) return;
  }
  throw new Error(`Tab never reached ${name}`);
}

test('the whole task without a mouse', async ({ page, emery }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ })).toBeVisible();
  await tabTo(page, /^Open Front drive of Rescue truck 2/);
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  const start = await shownLength(page);

  await tabTo(page, /^Alternator, number 5 on the belt/);
  for (let n = 0; n < 3; n += 1) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowUp');
  await saved(page);
  const station = (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'alt')!;
  expect([station.x, station.y]).toEqual([189, 342]);
  expect(await shownLength(page)).toBeGreaterThan(start);
  // A run of arrow keys is one step back.
  await page.keyboard.press('Control+z');
  expect(await shownLength(page)).toBeCloseTo(start, 9);

  await page.keyboard.press('Enter');
  await page.keyboard.press('f');
  await expect(page.getByText('no length', { exact: true })).toBeVisible();
  await page.keyboard.press('f');
  expect(await shownLength(page)).toBeCloseTo(start, 9);

  await page.keyboard.press('1');
  await tabTo(page, /^Diameter over ribs/);
  await page.keyboard.type('2 1/2');
  // Keys that move the bench move nothing while a field is being written in.
  await page.keyboard.press('Tab');
  await page.keyboard.press('Escape');
  await saved(page);
  expect(
    (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'alt')!.pulleys[0]!.diameter,
  ).toBeCloseTo(63.5, 9);

  await tabTo(page, /^Duplicate/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeHidden();
});

test('a route tapped with Enter', async ({ page, emery }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^Open Front drive, being measured/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^2 Route/ })).toBeVisible();
  await page.keyboard.press('2');
  await tabTo(page, /^Tap the route/);
  await page.keyboard.press('Enter');
  for (const name of [/^Crank/, /^Alternator/, /^Water pump/]) {
    await page.locator('.wordmark').focus();
    await tabTo(page, name);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Escape');
  await saved(page);
  expect(
    (await emery.drive('Front drive, being measured')).document.belts[0]!.route.map(({ pulley }) => pulley),
  ).toEqual(['crank-1', 'alt-1', 'pump-1']);
});
