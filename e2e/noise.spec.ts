import type { Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, openDrive, saved, test, toStage } from './emery';
import { chanceFigure, diagnose, lessonsOf, soundOfLesson } from '@emery/core/noise';
import { writeWav } from '@emery/core/sound';
import type { Drive } from '@emery/core/drive';

const TRUCK = 'Front drive';

/** A recording of a rumble of the alternator at idle, in an engine bay. */
function recording(drive: Drive, rpm: number): Buffer {
  const lesson = lessonsOf(drive, rpm).find(({ kind, rate }) => kind === 'rumble' && rate.id === 'alt-1')!;
  return Buffer.from(writeWav(soundOfLesson(drive, rpm, lesson, { seed: 11, seconds: 6, bay: true })));
}

const view = (page: Page, name: string) => page.getByText(name, { exact: true }).first().click();

/** From a sound file and the water test to a cause and back out. */
async function toACause(page: Page, document: () => Promise<Drive>): Promise<void> {
  const before = diagnose(await document());
  const answer = page.getByTestId('noise-answer');
  await expect(answer).toContainText('Nothing recorded yet');
  const give = (name: string, buffer: Buffer) =>
    page.locator('input[type="file"]').setInputFiles({ name, mimeType: 'audio/wav', buffer });
  await view(page, 'Sound file');
  await give('notes.wav', Buffer.from('these are no sounds'));
  await expect(page.getByText(/notes\.wav is not a sound file this browser can read/)).toBeVisible();
  await page.getByLabel('Engine speed, rev/min', { exact: true }).fill('fast');
  await page.getByLabel('Engine speed, rev/min', { exact: true }).press('Enter');
  await expect(page.getByText(/Engine speed: enter a number from 100 to 30000/)).toBeVisible();
  await page.getByLabel('Engine speed, rev/min', { exact: true }).fill('720');
  await page.getByLabel('Engine speed, rev/min', { exact: true }).press('Enter');
  // How it was read says how well it is known.
  await page.getByLabel('Read from (± a default)', { exact: true }).click();
  await page.locator('.ant-select-dropdown:not(.ant-select-dropdown-hidden)').getByText('Scan tool, ± 0.5 %').click();
  await give('idle.wav', recording(await document(), 720));
  const heard = page.getByTestId('heard-noise');
  await expect(heard).toHaveAttribute('data-kind', 'rumble');
  await expect(heard).toHaveAttribute('data-part', 'alt-1');
  // On a phone the picture of the sound is one tap off.
  const chart = page.locator('.strip-tool', { hasText: 'Chart' });
  if (await chart.isVisible()) await chart.tap();
  await expect(page.getByRole('img', { name: /seconds of sound, \d+ repeats marked/ })).toBeVisible();
  await heard.getByRole('button', { name: 'Save it' }).click();
  await heard.getByRole('button', { name: 'Use as evidence' }).click();

  // The ranking is core's, and the next test is the one that tells most.
  await saved(page);
  const listened = diagnose(await document());
  await expect(answer).toHaveAttribute('data-cause', listened.causes[0]!.cause);
  await expect(answer).toHaveAttribute('data-part', listened.causes[0]!.id);
  await expect(page.getByRole('region', { name: 'Next test' })).toHaveAttribute('data-test', listened.next[0]!.test);

  // Water: the caution stands where it is tried; the ranking moves; one tap takes it back.
  await view(page, 'Clues');
  const water = page.getByRole('group', { name: 'Water on the ribs' });
  await water.getByText('How').click();
  await expect(water.getByText(/Water only from a squeeze bottle/)).toBeVisible();
  await water.getByRole('button', { name: 'No change' }).click();
  await expect(water.getByRole('button', { name: 'No change' })).toHaveAttribute('aria-pressed', 'true');
  await saved(page);
  const wet = diagnose(await document());
  expect(wet.causes[0]).toMatchObject({ cause: 'bearing', id: 'alt-1' });
  const dry = listened.causes.find(({ cause, id }) => cause === 'bearing' && id === 'alt-1')!;
  expect(wet.causes[0]!.probability).toBeGreaterThan(dry.probability);
  await expect(answer).toHaveAttribute('data-cause', 'bearing');
  await expect(answer).toContainText(chanceFigure(wet.causes[0]!.probability));
  await view(page, 'Causes');
  await expect(page.locator('.ranking [data-rank="1"]')).toHaveAttribute('data-cause', 'bearing');
  await view(page, 'Clues');
  await page.getByRole('button', { name: 'Remove: Water on the ribs: no change' }).click();
  await expect(answer).toHaveAttribute('data-cause', listened.causes[0]!.cause);
  await page.getByRole('button', { name: /^Remove: What it repeats with/ }).click();
  await page.getByRole('button', { name: 'Remove: Kind of noise: rumble' }).click();
  await expect(answer).toContainText('Nothing recorded yet');
  await saved(page);
  const after = await document();
  expect(diagnose(after).causes).toEqual(before.causes);
  // The kept sound stays with the drive, small.
  expect(after.noise!.clips).toMatchObject([{ kind: 'rumble', rpm: 720 }]);
  expect(after.noise!.clips![0]!.wav!.length).toBeLessThan(64_000);
}

test('from a sound file and the water test to a cause and back out, by mouse; no view has a fault of access', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, `${TRUCK} of Rescue truck 2`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('7');
  await toACause(page, async () => (await emery.drive(TRUCK)).document);
  await view(page, 'Listen');
  await page.getByRole('region', { name: 'Saved sounds' }).getByRole('button', { name: 'Show' }).click();
  await expect(page.getByTestId('heard-noise')).toHaveAttribute('data-part', 'alt-1');
  for (const name of ['Listen', 'Clues', 'Causes', 'Learn', 'After']) {
    await view(page, name);
    await noFaultOfAccess(page, '.ledger', '.noise-chart');
  }
});

test('a wobbling hub stops; a cure is listened to again, and comes back on the rail', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, `${TRUCK} of Rescue truck 2`);
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('7');
  await view(page, 'Clues');
  await page.getByRole('group', { name: 'Rim wobble' }).getByRole('button', { name: 'Yes' }).click();
  await expect(page.getByText('Stop: the rim of Crank wobbles.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^7 Noise/ })).toContainText('needs attention');
  await view(page, 'After');
  await page.getByLabel('Odometer, as read', { exact: true }).fill('148500');
  await page.getByLabel('Odometer, as read', { exact: true }).press('Enter');
  await page.getByRole('button', { name: 'Record repair' }).click();
  await expect(page.getByText('Stop: the rim of Crank wobbles.')).toBeHidden();
  const soon = page.getByRole('group', { name: 'Listen again after 500 km' });
  await expect(soon).toContainText('149,000');
  // The vehicle says so in the shop, until it was listened to.
  await saved(page);
  const address = page.url();
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'Rescue truck 2' })).toContainText('Due: listen again');
  await page.goto(address);
  await view(page, 'After');
  await page.getByRole('group', { name: 'Listen again right after' }).getByRole('button', { name: 'Quiet' }).click();
  await saved(page);
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'Rescue truck 2' })).toContainText(
    'Listen again, 500 km after the repair',
  );
  await page.goto(address);
  await view(page, 'After');
  for (const name of ['after 500 km', 'after 2,000 km'])
    await page
      .getByRole('group', { name: `Listen again ${name}` })
      .getByRole('button', { name: 'Quiet' })
      .click();
  await expect(page.getByRole('button', { name: /^7 Noise/ })).toContainText('settled');
  await soon.getByRole('button', { name: 'Noise is back' }).click();
  await expect(page.getByRole('button', { name: /^7 Noise/ })).toContainText('needs attention');
  await saved(page);
  const { noise } = (await emery.drive(TRUCK)).document;
  expect(noise!.cures).toMatchObject([{ cause: 'hub-wobble', part: 'crank-1', odometer: 148_500 }]);
  expect(noise!.evidence).toMatchObject([{ test: 'wobble', past: true }]);
});

test('the simulated bay says that it is one, and blind practice keeps a score', async ({ page }) => {
  await page.goto('/');
  await openDrive(page, 'Blower drive');
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('7');
  await view(page, 'Simulated');
  await page.getByRole('button', { name: 'Listen to the simulated bay' }).click();
  const heard = page.getByTestId('heard-noise');
  await expect(heard).toContainText('Result, simulated');
  await expect(heard).toContainText('The simulated bay played');
  await view(page, 'Learn');
  await page.getByRole('button', { name: '▶ Start' }).click();
  await page.getByRole('list', { name: 'Which noise is it?' }).getByRole('button').first().click();
  await expect(page.getByTestId('practice-score')).toContainText(/[01] of 1 right/);
  await expect(page.getByRole('status').filter({ hasText: 'Answer:' })).toBeVisible();
});

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('from a sound file and the water test to a cause and back out', async ({ page, emery }) => {
    await page.goto('/');
    await page.getByRole('link', { name: new RegExp(`^Open ${TRUCK} of Rescue truck 2`) }).tap();
    await toStage(page, 'Noise');
    await toACause(page, async () => (await emery.drive(TRUCK)).document);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });
});
