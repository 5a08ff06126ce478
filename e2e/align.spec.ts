import type { Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';
import { planFor } from '@emery/core/align';
import { alignmentOf, worstDeg } from '@emery/core/planes';

const VAN = 'Front drive with added compressor';

/** Chooses in a field of a few. */
async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByLabel(label, { exact: true }).click();
  await page.locator('.ant-select-dropdown:not(.ant-select-dropdown-hidden)').getByText(option).click();
}

/** Takes a reading of a pulley at a place of its rim. */
async function read(page: Page, pulley: string, place: string, text: string): Promise<void> {
  await choose(page, 'Pulley, or tap one', pulley);
  await page.getByRole('button', { name: place, exact: true }).click();
  const field = page.getByLabel('Offset', { exact: true });
  await field.fill(text);
  await field.press('Enter');
  const kept = page.getByRole('button', { name: `Remove the reading of ${pulley} ${place.toLowerCase()}` });
  await expect(kept.first()).toBeVisible();
}

/** From three readings to a pressed pulley and a green sheet. */
async function pressed(page: Page, document: () => Promise<Parameters<typeof alignmentOf>[0]>): Promise<void> {
  await expect(page.getByText('No run is read yet')).toBeVisible();
  await choose(page, 'Pulley, or tap one', 'Water pump');
  const field = page.getByLabel('Offset', { exact: true });
  await field.fill('half a turn');
  await field.press('Enter');
  // What cannot be read stays, with what is accepted.
  await expect(page.getByText(/"half a turn" is not a length/)).toBeVisible();
  await expect(field).toHaveValue('half a turn');
  await read(page, 'Water pump', 'At the top', '0.1 mm out');
  await read(page, 'Alternator', 'At the bottom', '4 thou in');
  await read(page, 'Steering pump', 'At the top', '1.5 ribs out');
  await expect(page.getByRole('list', { name: 'Readings' }).getByRole('listitem')).toHaveCount(3);
  await saved(page);

  // The bench says what core says, and the rail warns.
  const off = await document();
  const worst = worstDeg(alignmentOf(off, 'main')!.runs);
  const answer = page.getByTestId('align-answer');
  await expect(answer).toHaveAttribute('data-worst', String(worst));
  await expect(answer).toContainText('wrong');
  await expect(page.getByRole('button', { name: /Align/ })).toContainText('needs attention');

  // What can be done is said once; one press puts it right, tried before it is made.
  await page.getByRole('button', { name: 'Show cures' }).click();
  await expect(page.getByText('No combination of the listed moves brings all runs within the limit.')).toBeVisible();
  await choose(page, 'Pulley', 'Steering pump');
  await page.getByLabel('In by up to, mm').fill('8');
  await page.getByLabel('In by up to, mm').press('Enter');
  await page.getByRole('button', { name: 'Add this move' }).click();
  await saved(page);
  const [plan] = planFor(await document(), alignmentOf(await document(), 'main')!).plans;
  expect(plan!.moves).toHaveLength(1);
  await expect(page.getByText('1 move to correct it')).toBeVisible();
  await page.getByRole('button', { name: 'Try it' }).first().click();
  await expect(answer).toContainText('with the moves tried');
  await expect(answer).toContainText('good');
  await page.getByLabel('Gap at the start, mm').fill('9.5');
  await page.getByLabel('Gap now, mm').fill('2');
  await page.getByLabel('Gap now, mm').press('Enter');
  await expect(page.getByTestId('press-left')).toContainText((9.5 + plan!.moves[0]!.mm!).toFixed(2));
  await expect(page.getByTestId('press-left')).toContainText('Over-pressed');
  await page.getByLabel('Gap now, mm').fill((9.5 + plan!.moves[0]!.mm!).toFixed(1));
  await page.getByLabel('Gap now, mm').press('Enter');
  await expect(page.getByTestId('press-left')).toContainText('In position');
  await page.getByRole('button', { name: 'Done: read again' }).click();

  // The old reading counts no more; the new one makes the sheet green.
  await read(page, 'Steering pump', 'At the top', '0.2 mm out');
  await expect(answer).toContainText('good');
  // The other belt is not read yet, so the stage is in hand.
  await expect(page.getByRole('button', { name: /Align/ })).toContainText('in progress');
  await saved(page);
  const done = await document();
  expect(done.align!.done).toMatchObject([{ pulley: 'steer-1', kind: 'press', mm: plan!.moves[0]!.mm }]);
  expect(done.align!.readings!.filter(({ past }) => past)).toHaveLength(1);
  expect(worstDeg(alignmentOf(done, 'main')!.runs)).toBeLessThan(0.5);
}

test('from three readings to a pressed pulley and a green sheet, by mouse; no view has a fault of access', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, `${VAN} of Mobile kitchen van`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('6');
  await pressed(page, async () => (await emery.drive(VAN)).document);
  for (const view of ['Read', 'Runs', 'Grooves', 'Cures', 'Parts']) {
    await page.getByText(view, { exact: true }).click();
    await noFaultOfAccess(page, '.ledger');
  }

  // Counted before the engine turns: a rib off is told at once.
  await page.getByText('Grooves', { exact: true }).click();
  await page.getByRole('button', { name: 'Alternator: counted, 0 free in front' }).click();
  await page
    .getByRole('list', { name: 'Grooves to count' })
    .getByLabel(/^Or counted/)
    .first()
    .fill('1');
  await page
    .getByRole('list', { name: 'Grooves to count' })
    .getByLabel(/^Or counted/)
    .first()
    .press('Enter');
  await expect(page.getByText('hangs over the edge').first()).toBeVisible();
});

test('with the engine pulling only laser and camera are there; the simulated laser says that it is one', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('6');
  await page.getByText('Engine pulling', { exact: true }).click();
  await expect(page.getByText(/out of arm.s reach of the belt/)).toBeVisible();
  await choose(page, 'Pulley, or tap one', 'Alternator');
  await page.getByRole('button', { name: 'Read the simulated laser' }).click();
  await expect(page.getByText(/laser and target, simulated/)).toBeVisible();
  await expect(page.getByRole('table', { name: 'Movement under load' })).toContainText('Alternator');
  await saved(page);
  expect((await emery.drive('Front drive')).document.align!.readings!.at(-1)).toMatchObject({
    tool: 'laser',
    load: true,
    simulated: true,
  });
});

test('a stack of parts to the set that lines up', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, `${VAN} of Mobile kitchen van`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('6');
  await page.getByText('Parts', { exact: true }).click();
  await choose(page, 'Add the stack of', 'Alternator');
  await choose(page, 'Add the stack of', 'Crank');
  const piece = async (stack: string, fields: Record<string, string>, kept: string) => {
    const section = page.getByRole('region', { name: `Stack of ${stack}` });
    const open = section.getByRole('button', { name: 'Add a piece' });
    if (await open.isVisible()) await open.click();
    for (const [label, value] of Object.entries(fields)) {
      await section.getByLabel(label, { exact: true }).fill(value);
      await section.getByLabel(label, { exact: true }).press('Tab');
    }
    await section.getByRole('button', { name: kept }).click();
  };
  const several = 'Name of this version';
  await piece('Alternator', { Piece: 'bracket', Depth: '41 mm', '±, mm': '0.3' }, 'Add this piece');
  await piece('Alternator', { Piece: 'spacer', [several]: 'thin', Depth: '2 mm' }, 'Add this part');
  await piece('Alternator', { [several]: 'thick', Depth: '6 mm' }, 'Add this part');
  await piece('Crank, sheave 1', { Piece: 'hub', [several]: 'short', Depth: '38 mm' }, 'Add this part');
  await piece('Crank, sheave 1', { [several]: 'long', Depth: '46.4 mm' }, 'Add this part');
  const sets = page.getByTestId('part-sets');
  await expect(sets).toContainText('Best of 4 sets');
  expect(Number(await sets.getAttribute('data-spread'))).toBeCloseTo(0.6, 9);
  await sets.getByRole('button', { name: 'Choose this set' }).first().click();
  await expect(sets.getByText('Chosen')).toBeVisible();
  await saved(page);
  const { align } = (await emery.drive(VAN)).document;
  expect(
    align!
      .stacks!.flatMap(({ pieces }) => pieces.map(({ chosen }) => chosen))
      .filter(Boolean)
      .sort(),
  ).toEqual(['long', 'thick']);

  // The shop's own parts go in by a list and out again.
  await page.getByRole('button', { name: 'Show the list, or add to it' }).click();
  const give = (text: string) =>
    page
      .locator('input[type="file"]')
      .setInputFiles({ name: 'parts.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await give('label,kind,depth\nSpacer 11,spacer,wide\n');
  await expect(page.getByText(/Nothing was added.*rows\[0\]\.depth/)).toBeVisible();
  await give('label;kind;depth;price\nSpacer 11;spacer;11,5;4\n');
  await expect(page.getByText('Spacer 11')).toBeVisible();
  expect(await (await fetch(`${emery.address()}/api/parts/file`)).text()).toContain('Spacer 11,spacer,11.5,,4,1');
});

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('from three readings to a pressed pulley and a green sheet', async ({ page, emery }) => {
    await page.goto('/');
    await page.getByRole('link', { name: new RegExp(`^Open ${VAN}`) }).tap();
    await toStage(page, 'Align');
    await pressed(page, async () => (await emery.drive(VAN)).document);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});
