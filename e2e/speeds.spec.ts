import type { Page } from '@playwright/test';
import { dragBy, expect, openDrive, saved, test } from './emery';
import { noFaultOfAccess } from './access';
import type { Drive } from '@emery/core/drive';
import { breakEvenRpm, loadOf } from '@emery/core/accessory';
import { presetUse, speedsOf, timeInBand, withShare } from '@emery/core/speeds';

// Drawn without a graphics card, turning pulleys would take the time of everything else; one test looks at them.
test.use({ contextOptions: { reducedMotion: 'reduce' } });

const TRUCK = 'Front drive of Rescue truck 2';
const shown = async (page: Page) => Number(await page.locator('[data-rpm]').getAttribute('data-rpm'));
const ratioOf = (drive: Drive, id: string) => speedsOf(drive).shafts.find(({ station }) => station === id)!.speedRatio!;
const view = (page: Page, name: string) => page.locator('.ledger .ant-segmented-item', { hasText: name }).click();

async function openSpeeds(page: Page, drive = TRUCK) {
  await page.goto('/');
  await openDrive(page, drive);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('4');
  await expect(page.locator('[data-rpm]')).toBeVisible();
}

test('a screaming alternator: a pulley that brings it into its band is found, tried as a what-if, and kept', async ({
  page,
  emery,
}) => {
  await openSpeeds(page);
  const before = (await emery.drive('Front drive')).document;
  await page.getByLabel('Continuous limit, rev/min').fill('11000');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Redline/ }).click();
  expect(await shown(page)).toBeCloseTo(4600 * ratioOf(before, 'alt'), 6);
  await expect(page.getByTestId('speed-answer')).toContainText('too fast for long');
  const findings = page.getByRole('list', { name: 'Findings' });
  await findings
    .getByRole('listitem')
    .filter({ hasText: 'Alternator turns 12,761 at redline.' })
    .getByRole('button', { name: 'Find a pulley' })
    .click();

  // What its band asks for stands there already.
  await expect(page.getByLabel('With the engine at, rev/min')).toHaveValue('4600');
  await expect(page.getByLabel('at most, rev/min')).toHaveValue('11000');
  await page.getByRole('button', { name: 'Set as a target' }).click();
  await page.getByRole('button', { name: /Choose from 20 pulleys/ }).click();
  await expect(page.locator('.pulley-answers li').first()).toContainText('as wanted');
  await page.getByRole('button', { name: 'Try choice 1', exact: true }).click();
  const whatIf = page.getByRole('region', { name: 'What-if' });
  await expect(whatIf.getByRole('row', { name: /^Alternator/ })).toBeVisible();
  expect(await shown(page)).toBeLessThanOrEqual(11_000);
  expect(ratioOf((await emery.drive('Front drive')).document, 'alt')).toBe(ratioOf(before, 'alt'));
  await page.getByRole('button', { name: 'Keep it' }).click();
  await saved(page);
  const after = (await emery.drive('Front drive')).document;
  expect(4600 * ratioOf(after, 'alt')).toBeLessThanOrEqual(11_000);
  expect(await shown(page)).toBeCloseTo(4600 * ratioOf(after, 'alt'), 6);

  // An exact size instead, put in and taken back.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Try Alternator at this size' }).click();
  expect(await shown(page)).toBeCloseTo(11_000, 4);
  await page.getByRole('button', { name: 'Discard it' }).click();
  expect(await shown(page)).toBeCloseTo(4600 * ratioOf(before, 'alt'), 6);
});

test('the drawn pulleys turn their own way, in proportion, until held still', async ({ page, emery }) => {
  await openSpeeds(page);
  const angles = () =>
    page
      .locator('.spokes path')
      .evaluateAll((paths) =>
        paths.map((path) => Number(/rotate\((.*)\)/.exec(path.getAttribute('transform') ?? '')?.[1] ?? 0)),
      );
  expect(new Set(await angles())).toEqual(new Set([0]));
  await page.getByRole('button', { name: /^Idle/ }).click();
  await page.getByRole('button', { name: 'Animate the drawing, 100 times slower' }).click();
  await expect.poll(async () => (await angles())[0]).toBeGreaterThan(5);
  await page.getByRole('button', { name: 'Stop the animation' }).click();
  const turned = await angles();
  const { document } = await emery.drive('Front drive');
  const { shafts } = speedsOf(document);
  expect(turned).toHaveLength(6);
  shafts.forEach(({ speedRatio, direction }, k) => {
    const expected = turned[0]! * speedRatio! * (direction === 'cw' ? 1 : -1);
    expect(Math.abs(((((turned[k]! - expected) % 360) + 540) % 360) - 180)).toBeLessThan(0.1);
  });
  expect(await angles()).toEqual(turned);
});

test('one rule moves every figure; a hand-made ratio is explained; nothing is dragged out of place here', async ({
  page,
  emery,
}) => {
  await openSpeeds(page);
  const { document } = await emery.drive('Front drive');
  await page.getByRole('slider', { name: 'Engine speed, rev/min' }).focus();
  for (let k = 0; k < 5; k += 1) await page.keyboard.press('ArrowRight');
  expect(await shown(page)).toBeCloseTo(2150 * ratioOf(document, 'alt'), 6);
  await page.locator('[data-station="pump"]').click();
  expect(await shown(page)).toBeCloseTo(2150 * ratioOf(document, 'pump'), 6);
  await expect(page.getByTestId('ratio-statement')).toContainText(
    /Turns 1\.43 times for each crank turn; 1,027 at idle.*crank turns 0\.701 times for each/,
  );
  await page.locator('[data-station="alt"]').click();
  const claim = page.getByLabel('A ratio to check, for Alternator');
  await claim.fill('36 %');
  await expect(page.getByText(/divided the other way up \(0\.360\) and read as a percentage/)).toBeVisible();
  await claim.fill('quick');
  await expect(page.getByText('Enter a ratio such as 2.94')).toBeVisible();
  await expect(claim).toHaveValue('quick');
  await dragBy(page, 'alt', 80, 60);
  expect((await emery.drive('Front drive')).revision).toBe(1);
});

test("a band kept for every alternator is the shop's: another vehicle has it too", async ({ page }) => {
  await openSpeeds(page);
  await page.getByLabel('Short-time limit, rev/min').fill('13000');
  await page.keyboard.press('Enter');
  await page.getByLabel('Continuous limit, rev/min').fill('fast');
  await expect(
    page.getByText('Continuous limit: enter a number from 0 to 100000, in rev/min, or leave it empty.'),
  ).toBeVisible();
  await page.getByLabel('Continuous limit, rev/min').fill('12000');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Save for every alternator' }).click();
  await expect(page.getByText("The shop's own. Its maker’s figures take precedence.")).toBeVisible();
  await saved(page);
  await openSpeeds(page, 'Front drive with added compressor');
  await page.locator('[data-station="alt"]').click();
  await expect(page.getByLabel('Short-time limit, rev/min')).toHaveValue('13000');
});

test('use: a preset, a bar moved by key, and a log with bad rows', async ({ page, emery }) => {
  await openSpeeds(page);
  await view(page, 'Use');
  await page.getByRole('button', { name: 'Work at idle' }).click();
  await saved(page);
  const { document } = await emery.drive('Front drive');
  const preset = presetUse('work-at-idle', { idle: 720, cruise: 2100, redline: 4600 });
  expect(document.use!.bins).toEqual(preset.bins);
  const bar = page.getByRole('slider', { name: '600 to 800 rev/min' });
  await bar.focus();
  await page.keyboard.press('PageDown');
  await saved(page);
  const index = preset.bins.findIndex(({ from }) => from === 600);
  const moved = withShare(preset, index, preset.bins[index]!.share - 0.1);
  expect((await emery.drive('Front drive')).document.use!.bins[index]!.share).toBeCloseTo(moved.bins[index]!.share, 6);
  const row = page.getByRole('row', { name: /^Water pump/ });
  const { tooSlow } = timeInBand(moved, ratioOf(document, 'pump'), { least: 600, continuous: 6500, burst: 8000 });
  await expect(row).toContainText(tooSlow < 0.005 ? 'under 1 %' : `${Math.round(100 * tooSlow)} %`);

  const rows = Array.from({ length: 2000 }, (_, s) => `${s},${s % 500 === 7 ? 'lost' : 2050}`);
  await page.getByLabel('Log of time and engine speed').setInputFiles({
    name: 'tuesday.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`time (s),rpm\n${rows.join('\n')}\n`),
  });
  await expect(page.getByRole('status').filter({ hasText: 'tuesday.csv' })).toContainText(
    /2,000 rows, 33 min of running time/,
  );
  await expect(page.getByText(/4 rows were not understood and were left out, such as line 9: “7,lost”/)).toBeVisible();
  await saved(page);
  expect((await emery.drive('Front drive')).document.use!.bins.filter(({ share }) => share > 0)).toEqual([
    { from: 2000, to: expect.any(Number) as unknown as number, share: expect.closeTo(1, 6) as unknown as number },
  ]);
  await page
    .getByLabel('Log of time and engine speed')
    .setInputFiles({ name: 'menu.csv', mimeType: 'text/csv', buffer: Buffer.from('soup,bread\n1,2\n') });
  await expect(page.getByRole('alert').filter({ hasText: 'menu.csv' })).toContainText('two columns');
});

test("output: where charging breaks even follows the loads; a pump against its need; a fan's power", async ({
  page,
  emery,
}) => {
  await openSpeeds(page);
  await view(page, 'Output');
  const { document } = await emery.drive('Front drive');
  const alternator = document.stations.find(({ id }) => id === 'alt')!;
  const even = (load: number) => breakEvenRpm(alternator.output!, load)! / ratioOf(document, 'alt');
  const read = async () => Number(await page.locator('[data-break-even]').getAttribute('data-break-even'));
  expect(await read()).toBeCloseTo(even(loadOf(document.loads!)), 6);
  await page.getByRole('switch', { name: 'Blower on' }).click();
  expect(await read()).toBeCloseTo(even(loadOf(document.loads!) - 12), 6);
  await page.getByRole('switch', { name: 'Winch, in short pulls on' }).click();
  await expect(page.getByText('No speed on its curve covers the loads switched on.')).toBeVisible();
  // Leaving the field and pressing the button is one press.
  await page.getByRole('button', { name: 'Add load' }).click();
  await expect(page.getByText('Enter its current, in A.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Cold box');
  await page.getByLabel('Current, A').fill('5.5');
  await page.getByRole('button', { name: 'Add load' }).click();
  await expect(page.getByText('Cold box')).toBeVisible();
  await page.locator('[data-station="pump"]').click();
  await expect(page.getByTestId('need')).toContainText('105 %');
  await page.getByRole('button', { name: /^Redline/ }).click();
  const rpm = 4600 * ratioOf(document, 'pump');
  await expect(page.getByTestId('power')).toHaveText(`${(2.1 * (rpm / 5000) ** 3).toFixed(2)} kW`);
});

test('check: the simulated tachometer is called simulated, and its readings find the slip it hides', async ({
  page,
  emery,
}) => {
  await openSpeeds(page);
  await view(page, 'Check');
  await page.getByText('Simulated', { exact: true }).click();
  await expect(page.getByText('It measures nothing')).toBeVisible();
  await page.getByRole('slider', { name: 'Slip of the simulated belt, percent' }).focus();
  for (let k = 0; k < 40; k += 1) await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: 'Read the crank' }).click();
  await page.getByRole('button', { name: 'Read Alternator' }).click();
  await expect
    .poll(async () => Math.abs(Number(await page.locator('[data-slip]').getAttribute('data-slip')) - 7))
    .toBeLessThan(0.4);
  await expect(page.getByRole('list', { name: 'Result' })).toContainText('Slips by');
  await page.getByRole('button', { name: 'Record check' }).click();
  await expect(page.getByRole('table', { name: 'Checks' })).toContainText('simulated');
  await saved(page);
  expect((await emery.drive('Front drive')).document.speedChecks).toEqual([
    expect.objectContaining({ station: 'alt', simulated: true }),
  ]);
});

test('a pulley is added to those at hand; without a name it is not', async ({ page, emery }) => {
  await openSpeeds(page);
  await view(page, 'Pulleys');
  await page.getByRole('button', { name: 'Show the list, or add to it' }).click();
  await page.getByRole('button', { name: 'Add to the list' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Alternator 68 six-rib');
  await page.getByLabel('Diameter', { exact: true }).fill('68 mm');
  await page.getByRole('button', { name: 'Add to the list' }).click();
  await expect(page.getByText('Pulleys at hand in the shop: 21')).toBeVisible();
  const { pulleys } = await emery.get<{ pulleys: { label: string; diameter: number }[] }>('/pulleys');
  expect(pulleys.at(-1)).toMatchObject({ label: 'Alternator 68 six-rib', diameter: 68, surface: 'ribbed', grooves: 6 });
  await page.getByRole('region', { name: 'Sets' }).getByRole('button', { name: 'Side by side' }).click();
  await expect(page.getByRole('table', { name: 'Side by side' })).toContainText('Underdrive');
});

test('no serious accessibility fault in any view, and a phone shows it all', async ({ page }) => {
  await openSpeeds(page);
  for (const name of ['Speeds', 'Use', 'Output', 'Pulleys', 'Check']) {
    await view(page, name);
    if (name === 'Use') await page.getByRole('button', { name: 'Motorway' }).click();
    await page.waitForTimeout(300);
    await noFaultOfAccess(page);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  for (const name of ['Speeds', 'Use', 'Output', 'Pulleys', 'Check']) {
    await view(page, name);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
});
