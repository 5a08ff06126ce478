import { coreLength, expect, saved, shownLength, test } from './emery';
import type { Page } from '@playwright/test';

async function addPulley(page: Page, role: string, x: string, y: string, diameter: string) {
  await page.getByRole('button', { name: 'Add pulley' }).click();
  await page.getByRole('dialog').getByRole('button', { name: role, exact: true }).click();
  await write(page, 'Right of crank (x)', x);
  await write(page, 'Above crank (y)', y);
  await write(page, 'Diameter over rim', diameter);
}

async function write(page: Page, label: string, text: string) {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
  await expect(field).not.toHaveAttribute('aria-invalid', 'true');
}

async function addSheave(page: Page, diameter: string, plane: string) {
  await page.getByRole('button', { name: 'Sheave on this shaft' }).click();
  await write(page, 'Diameter over rim', diameter);
  await write(page, "Plane, out from crank's", plane);
}

test('a two-belt V drive from nothing, by hand', async ({ page, emery }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add vehicle' }).click();
  await page.getByLabel('Name').fill('Yard loader');
  await page.getByLabel('Plate or fleet number').fill('Y 4');
  await page.getByLabel('Odometer', { exact: true }).fill('12,450');
  await page.getByRole('button', { name: 'Save vehicle' }).click();
  await page.getByRole('region', { name: 'Yard loader' }).getByRole('button', { name: 'New drive' }).click();
  await page.getByLabel('Name').fill('Two belts');
  await page.getByRole('combobox', { name: 'Belt section' }).click();
  await page.getByTitle('AV13, V-belt').click();
  await page.getByRole('button', { name: 'Open it on the bench' }).click();
  // The crank is in place, and one thing is asked for.
  await expect(page.getByRole('region', { name: 'Next' })).toContainText('Add the next pulley');
  await page.locator('[data-station^="crank-1"]').click();
  await write(page, 'Diameter over rim', '200 mm');
  await addSheave(page, '7 7/8', '5/8');
  await addPulley(page, 'Alternator', '400 mm', '0', '80mm');
  await addPulley(page, 'Water pump', '0', '15 3/4"', '5"');
  await write(page, "Plane, out from crank's", '5/8');
  await addPulley(page, 'Steering pump', '-14"', '6"', '4 1/2');
  await write(page, "Plane, out from crank's", '5/8');

  await page.getByRole('button', { name: /^2 Route/ }).click();
  await page.getByRole('button', { name: 'Tap the route' }).click();
  await page.locator('[data-station^="crank-1"]').click();
  await page.locator('[data-station^="alternator-1"]').click();
  await page.locator('[data-station^="crank-1"]').click();
  // The textbook open belt on 200 and 80 mm rims, 400 mm apart.
  const lean = Math.asin(60 / 400);
  expect(await shownLength(page)).toBeCloseTo(800 * Math.cos(lean) + Math.PI * 140 + 2 * lean * 60, 6);

  await page.getByRole('button', { name: 'Add another belt' }).click();
  await page.locator('[data-station^="crank-1"]').click();
  await page.locator('[data-station^="power-steering-1"]').click();
  await page.locator('[data-station^="water-pump-1"]').click();
  await page.getByRole('button', { name: 'Done' }).click();
  await saved(page);
  const { document } = await emery.drive('Two belts');
  expect(document.belts.map(({ route }) => route.map(({ pulley }) => pulley.replace(/-[0-9a-f]{4}$/, '')))).toEqual([
    ['crank-1-1', 'alternator-1-1'],
    ['crank-1-2', 'power-steering-1-1', 'water-pump-1-1'],
  ]);
  expect(await shownLength(page)).toBeCloseTo(coreLength(document, 1), 9);
  await expect(page.getByText('This route works.').or(page.getByText('of wrap.'))).toBeVisible();

  await page.getByRole('link', { name: 'Emery' }).click();
  await expect(page.getByRole('region', { name: 'Yard loader' })).toContainText('12,450 km');
});

test('a wrong side is seen, named and flipped back; a pulley taken off is put on again where it was', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ }).click();
  const good = await shownLength(page);
  await page.getByRole('row', { name: /Alternator/ }).click();
  await page.getByRole('button', { name: 'Flip side' }).click();
  await expect(page.getByText('no length', { exact: true })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('The belt does not close.');
  await expect(page.locator('[data-station="alt"]')).toHaveClass(/is-fault/);
  await page.getByRole('button', { name: 'Flip side' }).click();
  expect(await shownLength(page)).toBeCloseTo(good, 9);
  await page.getByRole('button', { name: 'Remove from belt' }).click();
  await page.getByRole('button', { name: 'Add to belt Alternator' }).click();
  expect(await shownLength(page)).toBeCloseTo(good, 9);
});

test('what cannot be read stays in the field with the reason, and nothing is changed', async ({ page, emery }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ }).click();
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="crank"]').click();
  const diameter = page.getByLabel('Diameter over ribs', { exact: true });
  await diameter.fill('6 15/61');
  await page.getByLabel('Above crank (y)', { exact: true }).click();
  await expect(page.getByText('15/61 is on no tape.')).toBeVisible();
  await expect(diameter).toHaveValue('6 15/61');
  await diameter.fill('-3');
  await diameter.press('Enter');
  await expect(page.getByText('Diameter over ribs cannot be below zero.')).toBeVisible();
  expect((await emery.drive('Front drive')).document.stations[0]!.pulleys[0]!.diameter).toBe(168);
  const grooves = page.getByLabel('Grooves');
  await grooves.fill('six');
  await grooves.press('Enter');
  await expect(page.getByText('Grooves: enter a whole number from 1 to 60, or leave it empty.')).toBeVisible();
});
