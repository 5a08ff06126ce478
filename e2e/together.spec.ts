import { type Browser, chromium, type Page } from '@playwright/test';
import config from '../playwright.config';
import { noFaultOfAccess } from './access';
import { coreLength, dragBy, expect, openDrive, saved, shownLength, test, toStage } from './emery';

/* Two devices at one drive: the laptop at the bench, the phone at the fender. */

const DRIVE = 'Front drive of Rescue truck 2';
const LAPTOP = { viewport: { width: 1280, height: 800 } };
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

/** A device of somebody with a name, at the drive. */
async function at(browser: Browser, baseURL: string, who: string, size: object): Promise<Page> {
  const context = await browser.newContext({ baseURL, ...size });
  await context.addInitScript((name) => localStorage.setItem('emery-who', name), who);
  const page = await context.newPage();
  page.on('pageerror', (error) => {
    throw error;
  });
  await page.goto('/');
  await openDrive(page, DRIVE);
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  return page;
}

const question = (page: Page) => page.getByRole('alertdialog', { name: 'Changed on two devices' });
const nameOf = (page: Page) => page.getByLabel('Name of the drive');

test('what one changes is on the other a moment later, who is where is told, and pointing is followed', async ({
  browser,
  emery,
}) => {
  const laptop = await at(browser, emery.address(), 'Anna', LAPTOP);
  const phone = await at(browser, emery.address(), 'Bert', PHONE);
  await expect(laptop.getByRole('button', { name: '1 other here' })).toContainText('Bert');
  await expect(phone.getByRole('button', { name: '1 other here' })).toBeVisible();
  // It is marked for a moment: looked for from before it comes.
  const marked = Promise.all([
    expect(phone.locator('.changed-line')).toContainText('Anna changed: Alternator'),
    expect(phone.locator('.others-changed')).toHaveCount(1),
  ]);
  await dragBy(laptop, 'alt', 30, 10);
  await saved(laptop);
  await marked;
  await expect.poll(() => shownLength(phone)).toBeCloseTo(await shownLength(laptop), 6);
  // At another stage with a pulley in hand, it is told where.
  await toStage(phone, 'Size');
  await laptop.getByRole('button', { name: '1 other here' }).click();
  await expect(laptop.getByRole('listitem').filter({ hasText: 'Bert' })).toContainText('Size');
  await laptop.getByRole('button', { name: 'Follow' }).click();
  await expect(laptop).toHaveURL(/\/size$/);
  await toStage(phone, 'Speeds');
  await expect(laptop).toHaveURL(/\/speeds$/);
  await noFaultOfAccess(laptop);
  await phone.getByRole('button', { name: '1 other here' }).click();
  await phone.getByRole('button', { name: 'Follow' }).click();
  await phone.keyboard.press('Escape');
  const box = (await laptop.locator('.front-view-svg').boundingBox())!;
  await expect
    .poll(async () => {
      await laptop.mouse.move(box.x + box.width / 2 + Math.random() * 40, box.y + box.height / 2);
      return phone.locator('.others-point').count();
    })
    .toBe(1);
  await expect(phone.locator('.others-point')).toContainText('Anna');
  // Gone is gone.
  await laptop.context().close();
  await expect(phone.getByRole('button', { name: '1 other here' })).toBeHidden({ timeout: 20_000 });
});

test('apart for a while, one field changed by both is asked about, that alone; all else is in', async ({
  browser,
  emery,
}) => {
  const laptop = await at(browser, emery.address(), 'Anna', LAPTOP);
  const phone = await at(browser, emery.address(), 'Bert', PHONE);
  await expect(laptop.getByRole('button', { name: '1 other here' })).toBeVisible();
  await phone.context().setOffline(true);
  await nameOf(phone).fill('Called by Bert');
  await dragBy(laptop, 'steer', -20, 10);
  await nameOf(laptop).fill('Called by Anna');
  await saved(laptop);
  await nameOf(phone).blur();
  await phone.context().setOffline(false);
  await expect(question(phone)).toContainText('Called by Anna', { timeout: 20_000 });
  await noFaultOfAccess(phone);
  await expect.poll(() => shownLength(phone)).toBeCloseTo(await shownLength(laptop), 6);
  await expect(nameOf(phone)).toHaveValue('Called by Anna');
  // It outlives the page, and theirs stands until somebody chooses.
  await phone.reload();
  await expect(question(phone)).toContainText('Called by Bert');
  await question(phone)
    .getByRole('button', { name: /Use mine/ })
    .click();
  await expect(question(phone)).toBeHidden();
  // What Anna has written stays in the field until she leaves it.
  await expect(nameOf(laptop)).toHaveValue('Called by Anna');
  await nameOf(laptop).blur();
  await expect(nameOf(laptop)).toHaveValue('Called by Bert');
  // Anna takes back what she did herself, and nothing of Bert's.
  const steered = await shownLength(laptop);
  await laptop.getByRole('button', { name: 'Undo' }).click();
  await saved(laptop);
  expect(Math.abs((await shownLength(laptop)) - steered)).toBeGreaterThan(1);
  await expect(nameOf(laptop)).toHaveValue('Called by Bert');
  await expect(laptop.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test.describe('with a server of its own', () => {
  test.use({ ownServer: true });

  test('killed in the middle: each works on, and both end with all of both', async ({ browser, emery }) => {
    const laptop = await at(browser, emery.address(), 'Anna', LAPTOP);
    const phone = await at(browser, emery.address(), 'Bert', PHONE);
    await expect(laptop.getByRole('button', { name: '1 other here' })).toBeVisible();
    await dragBy(laptop, 'alt', 20, 0);
    await emery.kill();
    await dragBy(laptop, 'ac', 0, 20);
    await nameOf(phone).fill('Named while away');
    await expect(phone.getByText(/Server not reachable, trying again/)).toBeVisible();
    await emery.start();
    await expect(laptop.locator('[data-save="saved"]')).toBeVisible({ timeout: 30_000 });
    await expect(phone.locator('[data-save="saved"]')).toBeVisible({ timeout: 30_000 });
    await expect(nameOf(laptop)).toHaveValue('Named while away', { timeout: 20_000 });
    await expect.poll(() => shownLength(phone)).toBeCloseTo(await shownLength(laptop), 6);
    const { document } = await emery.drive('Named while away');
    expect(coreLength(document)).toBeCloseTo(await shownLength(laptop), 6);
    for (const page of [laptop, phone]) await expect(question(page)).toBeHidden();
    // It goes on live, without a reload.
    await dragBy(phone, 'steer', 0, 12);
    await expect.poll(() => shownLength(laptop)).toBeCloseTo(await shownLength(phone), 6);
  });
});

test('the phone takes a picture, records a pluck and writes a tape for the bench', async ({ emery }) => {
  const { launchOptions } = config.use!;
  // A browser with a camera and a microphone that show and play a test.
  const browser = await chromium.launch({
    ...launchOptions,
    args: [...launchOptions!.args!, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  });
  try {
    const laptop = await at(browser, emery.address(), 'Anna', LAPTOP);
    const phone = await at(browser, emery.address(), 'Bert', PHONE);
    await expect(laptop.getByRole('button', { name: '1 other here' })).toBeVisible();
    const sheet = phone.getByRole('dialog', { name: /with the phone/ });

    await toStage(laptop, 'Survey');
    await laptop.getByText('Picture', { exact: true }).click();
    const pictures = async () => (await emery.drive('Front drive')).document.survey?.photos?.length ?? 0;
    const before = await pictures();
    await laptop.getByRole('button', { name: 'Take it with the phone' }).click();
    await expect(sheet).toContainText('Anna asks for a picture');
    await expect(sheet).toContainText('The drive from the front');
    await expect(laptop.getByText('The phone is ready')).toBeVisible();
    await noFaultOfAccess(phone);
    await sheet.getByRole('button', { name: 'Take the picture' }).click();
    await expect(sheet).toBeHidden();
    await expect.poll(pictures).toBe(before + 1);

    await toStage(laptop, 'Tension');
    await laptop.getByText('Check', { exact: true }).click();
    await laptop.getByRole('button', { name: 'Pluck', exact: true }).click();
    await laptop.getByRole('button', { name: 'Record it with the phone' }).click();
    await expect(sheet.getByText(/^Recording, [1-9]/)).toBeVisible();
    await expect(sheet).toContainText('Pluck with the engine off');
    await sheet.getByRole('button', { name: 'Stop and send' }).click();
    await expect(sheet).toBeHidden();
    await expect(laptop.getByRole('region', { name: 'Pluck by ear' }).locator('svg').first()).toBeVisible();

    await toStage(laptop, 'Survey');
    await laptop.getByText('Tapes', { exact: true }).click();
    await laptop.getByRole('button', { name: 'Tape pad for Reading' }).click();
    await laptop.getByRole('button', { name: 'Write it with the phone' }).click();
    for (const key of ['4', '9', '3']) await sheet.getByRole('button', { name: key, exact: true }).tap();
    await sheet.getByRole('button', { name: 'Send to the bench' }).tap();
    await expect(sheet).toBeHidden();
    await expect(laptop.getByLabel('Reading', { exact: true })).toHaveValue(/493/);
  } finally {
    await browser.close();
  }
});
