import { coreLength, dragBy, expect, openDrive, saved, shownLength, test } from './emery';

test('first open: drag a pulley, the length follows as core says, write a tape reading, reload, kept', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Tarnside Field Workshop' })).toBeVisible();
  await openDrive(page, 'Front drive of Rescue truck 2');
  const before = await shownLength(page);
  expect(before).toBeCloseTo(coreLength((await emery.drive('Front drive')).document), 6);

  await dragBy(page, 'alt', 40, -30);
  const dragged = await shownLength(page);
  expect(Math.abs(dragged - before)).toBeGreaterThan(10);
  await saved(page);
  const stored = await emery.drive('Front drive');
  expect(stored.revision).toBeGreaterThan(1);
  expect(coreLength(stored.document)).toBeCloseTo(dragged, 6);

  await page.getByRole('button', { name: /Survey/ }).click();
  await page.locator('[data-station="alt"]').click();
  const diameter = page.getByLabel('Diameter over ribs', { exact: true });
  await diameter.fill('2 7/16');
  await expect(page.getByText('reads 2 7/16" · 61.9 mm')).toBeVisible();
  await diameter.press('Enter');
  await saved(page);
  expect(
    (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'alt')!.pulleys[0]!.diameter,
  ).toBeCloseTo(61.9125, 6);

  await page.getByRole('button', { name: /Route/ }).click();
  const measured = await shownLength(page);
  expect(measured).not.toBeCloseTo(dragged, 3);
  await page.reload();
  await expect.poll(() => shownLength(page)).toBeCloseTo(measured, 9);
});

test('undo and redo walk through whole steps: a drag is one', async ({ page }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  const start = await shownLength(page);
  await dragBy(page, 'steer', -30, 20);
  const moved = await shownLength(page);
  await page.getByRole('button', { name: 'Undo' }).click();
  expect(await shownLength(page)).toBeCloseTo(start, 9);
  await page.keyboard.press('Control+Shift+z');
  expect(await shownLength(page)).toBeCloseTo(moved, 9);
  await page.keyboard.press('Control+z');
  expect(await shownLength(page)).toBeCloseTo(start, 9);
});

test('pointing at a pulley lights it in all three parts', async ({ page }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.locator('[data-station="ac"]').click();
  await expect(page.locator('[data-station="ac"]')).toHaveClass(/is-selected/);
  await expect(page.locator('.piece.is-selected')).toHaveCount(1);
  await expect(page.getByRole('row', { name: /Compressor/ })).toHaveClass(/is-selected/);
});
