import { expect, openDrive, saved, test } from './emery';
import { answerFor } from '@emery/core/size';

test('a belt that was tried on is written down in four taps, and the next one to bring goes by it', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('.pulley').first()).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.locator('[data-best-mm]')).toBeVisible();
  await page.getByRole('button', { name: 'Record a belt tried on' }).click();
  // Without a belt nothing is written, and the field is named.
  await page.getByRole('button', { name: 'Kept', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Belt: a marking such as 6PK1200');
  const belts = page.getByRole('group', { name: 'Which belt' });
  await belts.getByRole('button').first().click();
  await page.getByRole('button', { name: 'Went on', exact: true }).click();
  await page.getByRole('button', { name: 'at the long mark' }).click();
  await page.getByRole('button', { name: 'Returned', exact: true }).click();
  await saved(page);
  const { document } = await emery.drive('Front drive');
  const [belt] = document.belts;
  expect(belt!.tried).toHaveLength(1);
  expect(belt!.tried![0]).toMatchObject({ outcome: 'on', kept: false });
  // It should have sat near the short mark: the path is shorter than drawn, and the chart and the list say so.
  const { layout } = answerFor(document, belt!.id)!;
  expect(layout!.offsetMm).toBeLessThan(-2);
  await expect(page.getByText(/By all evidence the path is .* shorter than drawn/)).toBeVisible();
  await expect(page.locator('.size-tried')).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.size-tried')).toHaveCount(0);
});
