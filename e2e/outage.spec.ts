import { dragBy, expect, openDrive, saved, shownLength, test, coreLength } from './emery';

test('server killed in mid-edit and started again: nothing is lost', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  await emery.kill();
  await dragBy(page, 'ac', 10, 30);
  await dragBy(page, 'steer', -20, -10);
  const drawn = await shownLength(page);
  await expect(page.getByText('Kept on this device. Server away, trying again')).toBeVisible();
  await emery.start();
  await expect(page.locator('[data-save="saved"]')).toBeVisible({ timeout: 20_000 });
  expect(coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(drawn, 9);
});

test('server killed, page closed, both opened again: the drawing is taken up from this browser and saved', async ({ context, emery }) => {
  const page = await context.newPage();
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  const address = page.url();
  await emery.kill();
  await dragBy(page, 'ac', 10, 40);
  const drawn = await shownLength(page);
  await page.close();
  await emery.start();
  const again = await context.newPage();
  await again.goto(address);
  await expect.poll(() => shownLength(again)).toBeCloseTo(drawn, 9);
  await expect.poll(async () => coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(drawn, 9);
});

test('what is typed but not entered survives a reload', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="ac"]').click();
  await page.getByLabel('Diameter over ribs', { exact: true }).fill('4 7/8');
  await page.reload();
  await expect.poll(async () => (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'ac')!.pulleys[0]!.diameter).toBeCloseTo(123.825, 6);
});

test('database killed right after an acknowledged save: the save is there, and the next one goes through', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  const acknowledged = await shownLength(page);
  process.kill(emery.databasePid(), 'SIGKILL');
  await expect.poll(async () => emery.drive('Front drive').then(({ document }) => coreLength(document), () => 0), { timeout: 30_000 }).toBeCloseTo(acknowledged, 9);
  await dragBy(page, 'ac', 0, 25);
  await expect.poll(async () => coreLength((await emery.drive('Front drive')).document), { timeout: 30_000 }).toBeCloseTo(await shownLength(page), 9);
});
