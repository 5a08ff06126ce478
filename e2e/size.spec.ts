import type { Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, type Emery } from './emery';
import { type Drive, pulleyLabel } from '@emery/core/drive';
import { puttingOn, sizeBelt } from '@emery/core/seating';
import { answerFor, measuredLength, releaseWords } from '@emery/core/size';

/** The answer core gives with the shop's own belts. */
async function answerWith(emery: Emery, document: Drive, beltId: string) {
  const belt = document.belts.find(({ id }) => id === beltId)!;
  const { lengths } = await emery.get<{ lengths: { lengthMm: number }[] }>(
    `/stock/lengths?section=${belt.section}&ribs=${belt.ribs ?? ''}`,
  );
  return answerFor(document, beltId, { stock: lengths.map(({ lengthMm }) => lengthMm) })!;
}
const best = async (page: Page) => Number(await page.locator('[data-best-mm]').getAttribute('data-best-mm'));

test('a string laid on the truck changes which belt to bring home; one is taken and kept', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.locator('[data-best-mm]')).toBeVisible();
  const { document } = await emery.drive('Front drive');
  const plain = await answerWith(emery, document, 'main');
  expect(await best(page)).toBe(plain.candidates[plain.best!]!.lengthMm);
  // How it goes on is what the card says too: core's one answer.
  const { lastOn, release } = puttingOn(document, 'main')!;
  await expect(page.getByTestId('size-answer')).toContainText(
    `Fit it over ${pulleyLabel(document, lastOn!.pulley)} last. ${releaseWords(document, release!)}`,
  );

  // A string that says the engine is some 14 mm longer round than it was drawn.
  await page.getByRole('button', { name: 'Measure with a string or the old belt' }).click();
  await page.getByRole('combobox', { name: 'Adjuster position' }).click();
  await page.getByTitle('at the short mark').click();
  await page.getByLabel('Reading').fill('1795 mm');
  await page.getByRole('button', { name: 'Add measurement' }).click();
  await expect(page.getByText(/Together with the drawing/)).toBeVisible();
  // Nobody said how it lay, and on the rims it would agree with the drawing: so it is taken, and asked.
  await expect(page.getByText(/Taken as on top of the ribs or rims/)).toBeVisible();
  await page.getByRole('button', { name: 'It lay down in the grooves' }).click();
  await expect(page.getByText(/Entered as down in the grooves/)).toBeVisible();
  await page.getByRole('button', { name: /^Why/ }).click();
  await expect(page.getByRole('row', { name: /Water pump/ }).first()).toBeVisible();
  await expect(page.getByRole('row', { name: /Plus an inch, by rule of thumb/ })).toBeVisible();
  await saved(page);
  const measured = (await emery.drive('Front drive')).document;
  const answer = await answerWith(emery, measured, 'main');
  expect(answer.measured.measured).toHaveLength(1);
  await expect.poll(() => best(page)).toBe(answer.candidates[answer.best!]!.lengthMm);

  // Pointing at a belt moves the front view to it; the drive itself stays.
  const place = () => page.locator('[data-station="ten"]').getAttribute('transform');
  const before = await place();
  await page.locator('.size-mark.is-fits:not(.is-best)').last().click();
  await expect.poll(place).not.toBe(before);
  await page.keyboard.press('Escape');
  const { lengthMm } = answer.candidates[answer.best!]!;
  await page.locator('.size-mark.is-best').click();
  await page.getByRole('button', { name: 'Use this length' }).click();
  await saved(page);
  const after = (await emery.drive('Front drive')).document;
  expect(after.belts[0]!.length).toBe(lengthMm);
  expect(after.stations).toEqual(document.stations);
  await expect(page.getByRole('button', { name: /^3 Size/ })).toContainText('settled');
});

test('two belts on one slot: each is sized, a marking is looked at, and the slot is dragged along its arc', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Fan and alternator belts');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  await expect(page.locator('[data-best-mm]')).toBeVisible();
  const { document } = await emery.drive('Fan and alternator belts');
  for (const [k, belt] of document.belts.entries()) {
    await page.getByText(`Belt ${k + 1} ·`).click();
    const answer = await answerWith(emery, document, belt.id);
    await expect.poll(() => best(page)).toBe(answer.candidates[answer.best!]!.lengthMm);
  }
  await page.getByText('Belt 1 ·').click();
  // Both belts come right at one position, or as nearly as the stock allows.
  await page.getByRole('region', { name: 'Both belts together' }).getByRole('button', { name: /^Use/ }).first().click();
  await saved(page);
  const taken = (await emery.drive('Fan and alternator belts')).document.belts.map(({ length }) => length!);
  for (const [k, belt] of document.belts.entries())
    expect(sizeBelt(document, belt.id, { lengths: [taken[k]!] })!.candidates[0]!.verdict).toBe('fits');
  await page.getByRole('button', { name: 'Measure with a string or the old belt' }).click();
  await page.getByRole('switch', { name: 'Measured flat, as a doubled loop' }).click();
  await page.getByRole('combobox', { name: 'How it lay on grooved pulleys' }).click();
  await page.getByTitle('down in the grooves', { exact: true }).click();
  const drawn = sizeBelt(document, document.belts[0]!.id)!;
  const string = measuredLength(document, document.belts[0]!, drawn.curve, {
    id: 's',
    tool: 'string',
    mm: 500,
    doubled: true,
    state: 'slack',
    lay: 'groove',
  })!;
  // Half of what a string would read if the belt at the slack end were just as drawn.
  const half = (1000 - (string.markedMm - drawn.window.slackEnd!) / 1.003) / 2;
  await page.getByLabel('Reading').fill(`${half.toFixed(2)} mm`);
  await page.getByRole('button', { name: 'Add measurement' }).click();
  await expect(page.getByText('Together with the drawing: as drawn')).toBeVisible();
  await saved(page);
  await page.getByLabel(/^Marking on the old belt/).fill(`${document.belts[0]!.section}x1150`);
  await page.getByRole('button', { name: 'Show it' }).click();
  await expect(page.getByRole('button', { name: /45.*1\/4|1150/ }).first()).toBeVisible();

  // Dragged anywhere, the alternator stays on its circle about the pivot.
  const alt = document.stations.find(({ id }) => id === 'alt')!;
  const { adjuster } = alt;
  if (!adjuster || !('pivot' in adjuster)) throw new Error('the alternator swings about no pivot');
  const { pivot } = adjuster;
  const box = (await page.locator('[data-station="alt"] .pulley-disc').first().boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2 + 60, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  const moved = (await emery.drive('Fan and alternator belts')).document.stations.find(({ id }) => id === 'alt')!;
  expect(moved.x).not.toBe(alt.x);
  expect(Math.hypot(moved.x - pivot.x, moved.y - pivot.y)).toBeCloseTo(Math.hypot(alt.x - pivot.x, alt.y - pivot.y), 1);
});

test('an adjuster is said and measured where there was none; nonsense in a field stays with the reason', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Auxiliary drive');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  await page.getByText('Belt 2 ·').click();
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(
    'No adjuster given yet, so no length can be chosen.',
  );
  await expect(page.getByText('Choose how the belt is tightened')).toBeVisible();
  // On fixed centres the lengths stand by the tension that they make.
  await page.getByRole('combobox', { name: 'By' }).click();
  await page.getByTitle('Fixed centres', { exact: true }).click();
  const chart = page.getByRole('group', { name: 'Static tension against length' });
  await expect(chart).toContainText('a new belt');
  const mark = chart.getByRole('button').first();
  await mark.press('Enter');
  await expect(mark).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('combobox', { name: 'By' }).click();
  await page.getByTitle('Slide', { exact: true }).click();
  await expect(page.getByText('No adjuster given yet, so no length can be chosen.')).toBeHidden();
  await page.getByLabel(/^Direction of travel/).fill('up');
  await page.getByLabel(/^Direction of travel/).press('Enter');
  await expect(page.getByRole('alert')).toContainText('Direction of travel: enter a number');
  await page.getByLabel(/^Direction of travel/).fill('45');
  await page.getByLabel(/^Direction of travel/).press('Enter');
  await saved(page);
  expect(
    (await emery.drive('Auxiliary drive')).document.stations.some(
      ({ adjuster }) => adjuster?.kind === 'slide' && adjuster.direction === 45,
    ),
  ).toBe(true);
  await noFaultOfAccess(page);
});

test('a list of belts comes in with its bad rows shown, is filtered, and Size looks at what it holds', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Belts in stock' }).click();
  await expect(page.getByText(/^\d+ belts$/)).toBeVisible();
  const csv =
    'section;ribs;length;code;price;shelf\nPK;6;1803;OWN-1803;11,20;3\nPK;;1806;no ribs;;\nPK;6;ninety;bad;;\n';
  await page
    .getByLabel('CSV file of belts')
    .setInputFiles({ name: 'own.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByRole('heading', { name: 'own.csv: 1 belt, 2 rows not understood' })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Rows not understood' })).toContainText('Line 4:');
  await page.getByRole('switch').click();
  await page.getByRole('button', { name: 'Import 1 belt' }).click();
  await expect(page.getByText('OWN-1803')).toBeVisible();
  expect((await emery.get<{ total: number }>('/stock')).total).toBe(1);
  await page.getByLabel('Search the belts').fill('nothing such');
  await expect(page.getByText('No belt on the list matches.')).toBeVisible();

  await page.getByRole('link', { name: 'Emery' }).click();
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  await expect.poll(() => best(page)).toBe(1803);
  await page.locator('.size-mark.is-best').click();
  // At the length that was chosen, and at the one to bring home: they are the same.
  await expect(page.getByRole('list', { name: 'On the list of belts' })).toHaveCount(2);
  await expect(page.getByRole('list', { name: 'On the list of belts' }).first()).toContainText(
    'OWN-1803, 11.20, 3 on the shelf',
  );
});

test('changed parts: old and new windows side by side, and the change thrown away', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  await page.locator('.size-mark.is-best').click();
  await page.getByRole('button', { name: 'Use this length' }).click();
  await page.getByRole('button', { name: 'Try changed parts' }).click();
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="alt"]').click();
  await page.getByLabel('Diameter over ribs', { exact: true }).fill('80 mm');
  await page.getByLabel('Diameter over ribs', { exact: true }).press('Enter');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  const table = page.getByRole('region', { name: 'What-if' }).getByRole('table');
  await expect(table.getByRole('row', { name: /taken/ })).toContainText(/fits.*(tight|will not go on|fits)/);
  await page.getByRole('button', { name: 'Discard it' }).click();
  await saved(page);
  const { document } = await emery.drive('Front drive');
  expect(document.stations.find(({ id }) => id === 'alt')!.pulleys[0]!.diameter).toBe(58);
});
