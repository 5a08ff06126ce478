import type { Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';
import { inspectDrive, type InspectItem, replaceTogether } from '@emery/core/inspect';
import { readMarks } from '@emery/core/inspect/ribs';
import type { Drive } from '@emery/core/drive';

const TRUCK = 'Front drive';
const view = (page: Page, name: string) => page.locator('.ledger').getByText(name, { exact: true }).first().click();
const card = (page: Page, name: string) => page.getByRole('group', { name, exact: true });
const say = (page: Page, check: string, outcome: string) =>
  card(page, check).getByRole('button', { name: outcome, exact: true }).click();
const next = (page: Page, part: string) => page.getByRole('button', { name: `Next: ${part}`, exact: true }).click();
const itemOf = (drive: Drive, on: string, target: string): InspectItem =>
  inspectDrive(drive).find((item) => item.on === on && item.target === target)!;

async function inspectTruck(page: Page): Promise<void> {
  await page.goto('/');
  await openDrive(page, `${TRUCK} of Rescue truck 2`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('8');
}

async function figure(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(label, { exact: true }).fill(text);
  await page.getByLabel(label, { exact: true }).press('Enter');
}

/** Round the truck: a worn belt, an arm that binds, a pump that rocks, an alternator's clutch, the rest skipped. */
async function walkRound(page: Page): Promise<void> {
  await figure(page, 'Odometer now, km', '152000');
  await figure(page, 'Rib depth, mm', 'thin');
  await expect(card(page, 'Rib depth').getByRole('alert')).toContainText('Write a length such as');
  await figure(page, 'Rib depth, mm', '1.9');
  await say(page, 'Profile', 'U');
  await card(page, 'Other damage').getByRole('button', { name: 'Oil' }).click();
  await card(page, 'Other damage').getByRole('button', { name: 'Nothing else' }).click();
  await expect(page.getByTestId('part-verdict').first()).toContainText('Replace');
  await next(page, 'Crank');
  await say(page, 'Grooves', 'Clean');
  await figure(page, 'Run-out, mm', '0.05');
  await next(page, 'Tensioner, arm');
  await expect(page.getByText(/A sprung arm snaps back/)).toBeVisible();
  await card(page, 'Stroke').getByText('How', { exact: true }).click();
  await expect(card(page, 'Stroke').getByText(/from stop to stop and back, slowly/)).toBeVisible();
  await say(page, 'Stroke', 'Binds');
  await figure(page, 'Where it binds, °', '62');
  await next(page, 'Tensioner');
  await say(page, 'Spin', 'Quiet');
  await next(page, 'Steering pump');
  await figure(page, 'Rock, mm', '0.6');
  await next(page, 'Water pump');
  await next(page, 'Alternator');
  // Which kind of pulley it is comes first: a plain one has no clutch to try.
  await say(page, 'Kind of pulley', 'Solid');
  await expect(card(page, 'One-way clutch')).toHaveCount(0);
  await say(page, 'Spin', 'Long free spin');
  await expect(page.getByTestId('part-verdict').first()).toContainText('Keep');
  await say(page, 'Kind of pulley', 'One-way');
  await say(page, 'One-way clutch', 'One way only');
  await next(page, 'Compressor');
  await page.getByRole('button', { name: 'Skip', exact: true }).click();
  await expect(page.getByTestId('part-verdict').first()).toContainText('Skipped');
  await page.getByRole('button', { name: 'See the verdicts' }).click();
}

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a walk round the truck to verdicts', async ({ page, emery }) => {
    await page.goto('/');
    await page.getByRole('link', { name: new RegExp(`^Open ${TRUCK} of Rescue truck 2`) }).tap();
    await toStage(page, 'Inspect');
    await walkRound(page);
    await saved(page);
    const { document } = await emery.drive(TRUCK);
    const belt = itemOf(document, 'belt', 'main');
    expect(belt).toMatchObject({ verdict: 'replace', reasons: ['rib-depth', 'profile', 'oil'] });
    expect(itemOf(document, 'arm', 'ten-1')).toMatchObject({ verdict: 'replace', reasons: ['stroke'] });
    expect(itemOf(document, 'pulley', 'steer-1')).toMatchObject({ verdict: 'replace', reasons: ['rock'] });
    expect(itemOf(document, 'pulley', 'ac-1').verdict).toBe('not looked at');
    expect(replaceTogether(document, inspectDrive(document))).toMatchObject([
      { targets: ['main', 'ten-1'], offered: [] },
    ]);
    // What the file says stands on the screen.
    await expect(page.getByTestId('inspect-answer')).toContainText('Replace');
    await expect(page.getByRole('list', { name: 'Why: Tensioner, arm' })).toContainText('Stroke: binds at 62°');
    await expect(page.getByText('Change the belt and the tensioner together.')).toBeVisible();
    await expect(page.getByText('Find the leak first.')).toBeVisible();
    await expect(page.getByRole('region', { name: 'Not inspected' })).toContainText('Compressor');
    expect(await page.evaluate(() => window.document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});

test('taken back and done again by keyboard; a new belt begins anew, and that can be taken back', async ({
  page,
  emery,
}) => {
  await inspectTruck(page);
  const verdict = page.getByTestId('part-verdict').first();
  await expect(verdict).toContainText('Watch');
  const u = card(page, 'Profile').getByRole('button', { name: 'U', exact: true });
  await u.focus();
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText('Replace');
  await page.keyboard.press('Enter');
  await expect(verdict).toContainText('Watch');
  await page.keyboard.press('Space');
  await expect(verdict).toContainText('Replace');
  await page.keyboard.press('Control+z');
  await expect(verdict).toContainText('Watch');
  await page.keyboard.press('Control+Shift+z');
  await expect(verdict).toContainText('Replace');
  await view(page, 'Verdicts');
  const belt = page.getByRole('region', { name: 'Belt', exact: true });
  await belt.getByRole('button', { name: 'New part fitted' }).click();
  await expect(page.getByRole('region', { name: 'Not inspected' })).toContainText('Belt');
  await saved(page);
  expect((await emery.drive(TRUCK)).document.inspect!.changed).toMatchObject([{ on: 'belt', target: 'main' }]);
  await page.getByRole('button', { name: 'Undo: Belt changed' }).click();
  await expect(belt).toContainText('Replace');
});

test('a close-up is found, put right by hand, and put back as the finding it came from', async ({ page, emery }) => {
  await inspectTruck(page);
  await view(page, 'Close-up');
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  const depth = page.getByTestId('rib-depth');
  await expect(depth).toContainText('2.36 mm');
  await page.getByRole('button', { name: 'Clear the marks' }).click();
  await expect(page.getByText('Mark two tips and two floors or more.')).toBeVisible();
  await page.getByRole('button', { name: 'Find the ribs' }).click();
  // Made up with 2.36 mm.
  await expect(depth).toContainText(/2\.3[4-8] mm/, { timeout: 30_000 });
  await expect(page.locator('.rib-marks .picture-point')).toHaveCount(11);
  // A tip drawn aside is told, and put back by keys.
  const tip = (await page.locator('.rib-marks .picture-point:not(.is-other)').nth(2).boundingBox())!;
  await page.mouse.move(tip.x + tip.width / 2, tip.y + tip.height / 2);
  await page.mouse.down();
  await page.mouse.move(tip.x + tip.width / 2, tip.y + 20, { steps: 4 });
  await page.mouse.move(tip.x + tip.width / 2, tip.y + 50, { steps: 4 });
  await page.mouse.up();
  await expect(page.locator('.picture-point.is-off')).toHaveCount(1);
  await expect(depth).toContainText('A mark in red');
  await page.getByRole('application').focus();
  for (let k = 0; k < 3; k += 1) await page.keyboard.press('n');
  await page.keyboard.press('Delete');
  await expect(page.locator('.picture-point.is-off')).toHaveCount(0);
  await page.getByRole('button', { name: 'Save the marks' }).click();
  await saved(page);
  const { document } = await emery.drive(TRUCK);
  const depths = document.inspect!.findings!.filter(({ check }) => check === 'rib-depth');
  expect(depths).toHaveLength(2);
  const { marks, value } = depths[1]!;
  expect(marks!.tips).toHaveLength(5);
  const reading = readMarks(marks!, 3.56);
  expect(reading.ok && reading.depthMm.at.toFixed(2)).toBe(value!.toFixed(2));
});

test('damage is marked along the belt, and told where it comes back with a pulley', async ({ page, emery }) => {
  await inspectTruck(page);
  await card(page, 'Other damage').getByRole('button', { name: 'Chunks missing' }).click();
  await page.getByRole('button', { name: 'Mark where' }).click();
  const strip = page.getByRole('button', { name: /^Tap where: Chunks missing/ });
  const box = (await strip.boundingBox())!;
  const { document } = await emery.drive(TRUCK);
  const { solveDrive } = await import('@emery/core/path');
  const { cordLength, contacts } = solveDrive(document).belts[0]!;
  const turn = 2 * Math.PI * contacts.find(({ pulley }) => pulley === 'alt-1')!.cordRadius;
  for (const k of [0, 1, 2, 4, 5, 7])
    await page.mouse.click(box.x + ((60 + k * turn) / cordLength!) * box.width, box.y + box.height / 2);
  await expect(page.locator('.damage-mark')).toHaveCount(6);
  await expect(page.getByText(/Repeats each turn of Alternator/)).toBeVisible();
  await page.mouse.click(box.x + (60 / cordLength!) * box.width, box.y + box.height / 2);
  await expect(page.locator('.damage-mark')).toHaveCount(5);
  await saved(page);
  const chunks = (await emery.drive(TRUCK)).document.inspect!.findings!.find(
    ({ outcome, check }) => check === 'chunks' && outcome === 'yes',
  );
  expect(chunks!.places).toHaveLength(5);
});

test('a picture is hung on a finding; the minibus has nothing sound; no view has a fault of access', async ({
  page,
}) => {
  await inspectTruck(page);
  await say(page, 'Profile', 'V');
  await card(page, 'Profile').locator('input[type="file"]').setInputFiles('demo/1-rescue-truck-ribs.jpg');
  await page.getByRole('button', { name: 'Picture: Profile' }).click();
  await expect(page.getByRole('img', { name: 'Picture of profile' })).toBeVisible();
  await page.keyboard.press('Escape');
  for (const name of ['Walk', 'Close-up', 'Verdicts', 'Limits']) {
    await view(page, name);
    await noFaultOfAccess(page, '.ledger', '.unrolled');
  }
  // The manual's limit goes before the default, and says so.
  const limit = page.getByRole('group', { name: 'Rib depth' });
  await limit.getByLabel('Worn out at or under, mm').fill('2.5');
  await limit.getByLabel('Worn out at or under, mm').press('Enter');
  await view(page, 'Verdicts');
  await expect(page.getByRole('list', { name: 'Why: Belt' })).toContainText('this drive’s own limit');
  await page.goto('/');
  await openDrive(page, 'Front drive, being measured');
  await toStage(page, 'Inspect');
  await expect(page.getByTestId('inspect-answer')).toContainText('0 of 5 parts inspected');
  await expect(page.getByTestId('inspect-answer')).toContainText('so no verdict');
});

test('practice is made up and says so, and its answer is told when asked for', async ({ page }) => {
  await inspectTruck(page);
  await view(page, 'Close-up');
  await page.getByRole('button', { name: 'Practise on a simulated picture' }).click();
  await expect(page.getByText('Simulated, for practice.')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Find the ribs' }).click();
  await expect(page.getByTestId('rib-depth')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'within the ± of a gauge' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep it' })).toBeHidden();
});
