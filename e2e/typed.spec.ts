import { expect, openDrive, test } from './emery';

test('a tape, a count and a what-if that are being written outlive a stage change and a reload', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="alt"]').click();
  await page.getByLabel('Grooves', { exact: true }).fill('six');
  await page.getByText('Tapes', { exact: true }).click();
  const reading = page.getByLabel('Reading', { exact: true });
  await reading.fill('19 7/1');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  await page.getByRole('button', { name: 'Try changed parts' }).click();
  await expect(page.getByRole('heading', { name: 'What-if beside the present drive' })).toBeVisible();
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await expect(reading).toHaveValue('19 7/1');
  await page.reload();
  await expect(page.getByRole('heading', { name: 'What-if beside the present drive' })).toBeVisible();
  await page.getByText('Tapes', { exact: true }).click();
  await expect(reading).toHaveValue('19 7/1');
  await page.getByText('Pulleys', { exact: true }).click();
  await page.locator('[data-station="alt"]').click();
  await expect(page.getByLabel('Grooves', { exact: true })).toHaveValue('six');
  // Taken over, it is gone from the form.
  await page.getByRole('button', { name: 'Discard it' }).click();
  await page.getByText('Tapes', { exact: true }).click();
  await reading.fill('19 7/16');
  await page.getByRole('button', { name: 'Add reading' }).click();
  await expect(reading).toHaveValue('');
  await expect
    .poll(async () => (await emery.drive('Front drive')).document.survey!.readings!.at(-1)!.mm)
    .toBeCloseTo(493.7125, 4);
});

test('a vehicle that is being written outlives a reload; its save is tried again by itself, and makes one vehicle', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add vehicle' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Snow plough');
  await page.getByLabel('Notes').fill('Blade up before');
  await page.reload();
  await expect(page.getByLabel('Notes')).toHaveValue('Blade up before');
  await page.getByLabel('Notes').fill('Blade up before it is towed');
  // The first save arrives and its answer is lost.
  let lost = 0;
  await page.route('**/api/vehicles', async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.fallback();
    lost += 1;
    await route.fetch();
    return route.abort();
  });
  await page.getByRole('button', { name: 'Save vehicle' }).click();
  await expect(page.getByText('Not saved yet.')).toBeVisible();
  await expect(page.getByText('Blade up before it is towed')).toHaveCount(1);
  await expect(page.getByRole('dialog')).toBeHidden({ timeout: 20_000 });
  const { vehicles } = await emery.get<{ vehicles: { name: string; notes: string }[] }>('/vehicles?search=plough');
  expect(vehicles).toMatchObject([{ name: 'Snow plough', notes: 'Blade up before it is towed' }]);
});
