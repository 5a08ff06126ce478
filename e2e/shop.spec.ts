import { readFileSync } from 'node:fs';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';

test('search, delete with undo, duplicate', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('Search the shop').fill('light mast');
  await expect(page.locator('.vehicle')).toHaveCount(1);
  await page.getByLabel('Search the shop').fill('');
  await expect(page.locator('.vehicle')).toHaveCount(6);

  await page.getByRole('button', { name: 'More for Front drive of Rescue truck 2' }).click();
  await page.getByRole('menuitem', { name: 'Delete drive' }).click();
  await expect(page.getByRole('link', { name: /^Open Front drive of Rescue/ })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /^Open Front drive of Rescue/ })).toBeVisible();

  await page.getByRole('button', { name: 'More for Snow groomer' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate vehicle' }).click();
  await expect(page.getByRole('region', { name: 'Snow groomer copy' })).toContainText('Auxiliary drive');
  await page.getByRole('button', { name: 'More for Snow groomer copy' }).click();
  await page.getByRole('menuitem', { name: 'Delete vehicle' }).click();
  await expect(page.getByRole('region', { name: 'Snow groomer copy' })).toBeHidden();
  await page.getByRole('button', { name: 'Deleted vehicles and drives' }).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Snow groomer copy' })
    .getByRole('button', { name: 'Restore' })
    .click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('region', { name: 'Snow groomer copy' })).toBeVisible();
});

test('a drive goes out as a file and comes in again; a bad file is refused by file and field', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'More for Blower drive of Hill-climb car' }).click();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Export drive' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('hill-climb-car-blower-drive.emery.json');
  const text = readFileSync(await download.path(), 'utf8');
  const file = (name: string, content: string) => ({
    name,
    mimeType: 'application/json',
    buffer: Buffer.from(content),
  });

  const input = page.locator('input[type=file]');
  await input.setInputFiles([file('again.emery.json', text)]);
  await expect(page.getByText('1 drive')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Open Blower drive of Hill-climb car/ })).toHaveCount(2);

  await input.setInputFiles([file('bad.emery.json', text.replace('"teeth": 42', '"teeth": "many"'))]);
  await expect(
    page.getByText('bad.emery.json: stations[0].pulleys[0].teeth must be a whole number of teeth'),
  ).toBeVisible();

  const [archive] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Export all' }).click(),
  ]);
  await input.setInputFiles([
    { name: 'all.zip', mimeType: 'application/zip', buffer: readFileSync(await archive.path()) },
  ]);
  await expect(page.getByText('7 drives')).toBeVisible();
});

test('a vehicle without a name is refused under the field, and what was written stays', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add vehicle' }).click();
  await page.getByLabel('Notes').fill('Came in on a trailer');
  await page.getByLabel('Odometer', { exact: true }).fill('lots');
  await page.getByRole('button', { name: 'Save vehicle' }).click();
  await expect(page.getByText('Name: enter the shop’s name for the vehicle.')).toBeVisible();
  await expect(page.getByText('Odometer: write a whole number, or leave it empty.')).toBeVisible();
  await expect(page.getByLabel('Notes')).toHaveValue('Came in on a trailer');
});

test('a field that is touched while its sheet is still coming in keeps the hand', async ({ page }) => {
  await page.goto('/');
  await page.evaluate(() =>
    new MutationObserver((_, watch) => {
      const notes = document.querySelector<HTMLElement>('[role=dialog] textarea');
      notes?.focus();
      if (document.activeElement === notes) watch.disconnect();
    }).observe(document.body, { childList: true, subtree: true }),
  );
  await page.getByRole('button', { name: 'Add vehicle' }).click();
  await expect(page.locator('[role=dialog][class*="-appear"]')).toHaveCount(0);
  await page.getByLabel('Notes').waitFor();
  await page.evaluate(() => new Promise((done) => setTimeout(done, 300)));
  await expect(page.getByLabel('Notes')).toBeFocused();
});

test('a vehicle saved elsewhere meanwhile is shown before it is replaced', async ({ page, emery }) => {
  await page.goto('/');
  await page.getByRole('region', { name: 'Hill farm pickup' }).getByRole('button', { name: 'Edit' }).click();
  await page.getByLabel('Plate or fleet number').fill('Lower Scar Farm');
  const { vehicles } = await emery.get<{ vehicles: { id: string; name: string; revision: number }[] }>(
    '/vehicles?search=pickup',
  );
  const { id, name, revision } = vehicles[0]!;
  const other = { name, plate: 'Sold', odometer: 96410, odometerUnit: 'mi', notes: '', revision, saveId: 'other' };
  await fetch(`${emery.address()}/api/vehicles/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(other),
  });
  await page.getByRole('button', { name: 'Save vehicle' }).click();
  await expect(page.getByText('Changed somewhere else, to plate "Sold", notes "".')).toBeVisible();
  await expect(page.getByLabel('Plate or fleet number')).toHaveValue('Lower Scar Farm');
  await page.getByRole('button', { name: 'Save vehicle' }).click();
  await expect(page.getByRole('region', { name: 'Hill farm pickup' })).toContainText('Lower Scar Farm');
});

test('a button that says nothing and words that can hardly be seen are found, where they are looked for', async ({
  page,
}) => {
  await page.setContent(`<html lang="en"><title>T</title><main><button></button><p style="color:#ccc">Pale</p></main>`);
  for (const parts of [[], ['main']])
    await expect(noFaultOfAccess(page, ...parts)).rejects.toThrow(/button-name[^]*color-contrast/);
  await noFaultOfAccess(page, 'title');
});

test('no serious accessibility fault on any screen', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('.vehicle')).toHaveCount(6);
  await noFaultOfAccess(page);
  await page.getByRole('button', { name: 'Add vehicle' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await noFaultOfAccess(page);
  await page.keyboard.press('Escape');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('row', { name: /Alternator/ }).click();
  await noFaultOfAccess(page);
  await page.getByRole('button', { name: 'Flip side' }).click();
  await noFaultOfAccess(page);
  await toStage(page, 'Survey');
  await noFaultOfAccess(page);
});

for (const [width, height] of [
  [768, 1024],
  [390, 844],
] as const) {
  test(`at ${width} px nothing runs off the side, and a finger can draw and read`, async ({ browser, emery }) => {
    const context = await browser.newContext({
      baseURL: emery.address(),
      viewport: { width, height },
      hasTouch: true,
      isMobile: true,
    });
    const page = await context.newPage();
    const fits = async () =>
      expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(
        0,
      );
    await page.goto('/');
    await expect(page.locator('.vehicle')).toHaveCount(6);
    await fits();
    await page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ }).tap();
    await expect(page.locator('[data-length-mm]')).toBeVisible();
    await fits();
    await page.locator('[data-station="alt"]').tap();
    await page.getByRole('button', { name: 'Remove from belt' }).tap();
    await expect(page.getByRole('row', { name: /Alternator/ })).toBeHidden();
    await toStage(page, 'Survey');
    await page.locator('[data-station="alt"]').tap();
    // One thumb on the tape pad: whole inches, then the sixteenth on the strip.
    const diameter = page.getByLabel('Diameter over ribs', { exact: true });
    await diameter.tap();
    await page.getByRole('button', { name: '2', exact: true }).tap();
    const strip = (await page.getByRole('slider', { name: 'Sixteenths of an inch' }).boundingBox())!;
    await page.touchscreen.tap(strip.x + (strip.width * (14 + (292 * 6) / 16)) / 320, strip.y + 20);
    await expect(diameter).toHaveValue('2 6/16"');
    await page.getByRole('button', { name: 'Enter' }).tap();
    await saved(page);
    expect(
      (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'alt')!.pulleys[0]!.diameter,
    ).toBeCloseTo(60.325, 6);
    await fits();
    const small = await page.locator('button:visible, a:visible, input:visible').evaluateAll((all) =>
      all
        .filter(
          (at) =>
            !at.closest('[hidden], .visually-hidden') &&
            at.getAttribute('type') !== 'radio' &&
            at.getAttribute('role') !== 'combobox',
        )
        .map((at) => ({
          height: (at.closest('.line-input.has-suffix') ?? at).getBoundingClientRect().height,
          html: at.outerHTML.slice(0, 90),
        }))
        .filter(({ height: tall }) => tall > 0 && tall < 39.5),
    );
    expect(small).toEqual([]);
    await context.close();
  });
}
