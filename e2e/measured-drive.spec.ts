import { readFileSync } from 'node:fs';
import { chosen, expect, saved, shownLength, test, toStage } from './emery';
import type { Page } from '@playwright/test';
import type { Drive } from '@emery/core/drive';
import { solveDrive } from '@emery/core/path';

/*
 * A mechanic's whole task: a drive nobody has drawn, from its picture and five tapes to the card on the wall. The
 * picture is the demo shop's own, rendered from a drive whose true places are known; the points put on it are those of
 * the demo drive.
 */
const truth = JSON.parse(readFileSync('demo/1-rescue-truck.emery.json', 'utf8')) as Drive;
const rims = new Map(truth.survey!.photos![0]!.rims!.map(({ pulley, points }) => [pulley, points]));
const ROLES = ['Crank', 'Tensioner', 'Steering pump', 'Water pump', 'Alternator', 'Compressor'];
const stationOf = (label: string) => truth.stations.find((station) => station.label === label)!;

interface Hand {
  tap: (page: Page, x: number, y: number) => Promise<void>;
  draw: (page: Page, points: [number, number][]) => Promise<void>;
}

const mouse: Hand = {
  tap: (page, x, y) => page.mouse.click(x, y),
  draw: async (page, points) => {
    await page.mouse.move(...points[0]!);
    await page.mouse.down();
    for (const [x, y] of points.slice(1)) await page.mouse.move(x, y, { steps: 6 });
    await page.mouse.up();
  },
};

const finger: Hand = {
  tap: (page, x, y) => page.touchscreen.tap(x, y),
  draw: async (page, points) => {
    const session = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', at: [number, number][]) =>
      session.send('Input.dispatchTouchEvent', { type, touchPoints: at.map(([x, y]) => ({ x, y })) });
    await touch('touchStart', [points[0]!]);
    for (const [k, [x, y]] of points.slice(1).entries()) {
      const [fx, fy] = points[k]!;
      for (let step = 1; step <= 6; step += 1)
        await touch('touchMove', [[fx + ((x - fx) * step) / 6, fy + ((y - fy) * step) / 6]]);
    }
    await touch('touchEnd', []);
  },
};

async function markPicture(page: Page, hand: Hand): Promise<void> {
  await page.getByLabel('Picture file', { exact: true }).setInputFiles('demo/1-rescue-truck.jpg');
  await expect(page.getByRole('heading', { name: 'Rims in the picture' })).toBeVisible();
  for (const label of ROLES) {
    // The crank is there from the start.
    if (label === 'Crank') await page.getByRole('button', { name: 'Mark the rim of Crank' }).click();
    else {
      await page.getByRole('button', { name: 'Add pulley' }).click();
      await page.getByRole('dialog').getByRole('button', { name: label, exact: true }).click();
    }
    await expect(page.getByText(`${label}: 0 of 5 points or more`)).toBeVisible();
    const image = page.locator('.picture-svg image');
    await image.scrollIntoViewIfNeeded();
    const box = (await image.boundingBox())!;
    const points = rims.get(stationOf(label).pulleys[0]!.id)!;
    const add = page.getByRole('button', { name: 'Add pulley' });
    const place = () => add.evaluate((button) => button.getBoundingClientRect().y + window.scrollY);
    const before = await place();
    for (const [u, v] of points) await hand.tap(page, box.x + (u * box.width) / 1600, box.y + (v * box.height) / 1200);
    await expect(page.locator('.rim.is-active .picture-point')).toHaveCount(points.length);
    // Two rims tell how the camera stood; what stands below those figures stays where a thumb is going.
    if (label === 'Tensioner') await expect(page.locator('.picture-figures')).toContainText('°');
    expect(Math.abs((await place()) - before)).toBeLessThan(4);
    if (label === 'Crank') {
      await page.getByLabel('Diameter, where known', { exact: true }).fill('168 mm');
      await page.getByLabel('Diameter, where known', { exact: true }).press('Enter');
    }
  }
  await page.getByRole('button', { name: 'Back to the drawing' }).click();
}

async function readTapes(page: Page, count: number): Promise<void> {
  await page.getByText('Tapes', { exact: true }).click();
  for (let k = 0; k < count; k += 1) {
    // Whatever is asked for is taped, once the readings so far have been worked out.
    await expect(page.getByRole('heading', { name: 'Next tape, the most useful one' })).toBeVisible();
    const [from, to] = [stationOf(await chosen(page, 'From')), stationOf(await chosen(page, 'To'))];
    const far = Math.hypot(from.x - to.x, from.y - to.y) + (from.pulleys[0]!.diameter! + to.pulleys[0]!.diameter!) / 2;
    await page.getByLabel('Reading', { exact: true }).fill(`${Math.round((far / 25.4) * 16) / 16}"`);
    await page.getByRole('button', { name: 'Add reading' }).click();
    await expect(page.locator('.tape-line:not(.is-asked)')).toHaveCount(k + 1);
  }
}

async function fromPictureToCard(page: Page, hand: Hand): Promise<void> {
  await page.addInitScript(() => (window.print = () => document.documentElement.setAttribute('data-printed', 'yes')));
  await page.goto('/');
  await page
    .getByRole('region', { name: 'Hill farm pickup' })
    .or(page.getByRole('region').first())
    .first()
    .getByRole('button', { name: 'New drive' })
    .click();
  await page.getByLabel('Name').fill('From a picture');
  await page.getByText('A picture', { exact: true }).click();
  await page.getByRole('button', { name: 'Open it on the bench' }).click();

  await markPicture(page, hand);
  await page.getByRole('button', { name: 'Move them there' }).click();
  await readTapes(page, 5);
  await page.getByRole('button', { name: 'Move them there' }).click();

  await page.getByText('Pulleys', { exact: true }).click();
  await page.getByRole('button', { name: 'Water pump', exact: true }).click();
  await page.getByRole('combobox', { name: 'Surface' }).click();
  await page.getByTitle('Smooth', { exact: true }).click();

  await toStage(page, 'Route');
  await page.getByRole('button', { name: 'Tap the route' }).click();
  // On a phone the drawing takes the whole screen for it.
  if (await page.locator('.rail-now').isVisible()) await expect(page.locator('.ledger')).toBeHidden();
  await page.locator('.front-view-svg').scrollIntoViewIfNeeded();
  await page.waitForTimeout(300);
  const centres: [number, number][] = [];
  for (const id of [
    'crank-1',
    'tensioner-1',
    'power-steering-1',
    'water-pump-1',
    'alternator-1',
    'ac-compressor-1',
    'crank-1',
  ]) {
    const box = (await page.locator(`[data-station^="${id}"] .pulley-disc`).first().boundingBox())!;
    centres.push([box.x + box.width / 2, box.y + box.height / 2]);
  }
  await hand.draw(page, centres);
  await expect(page.getByRole('button', { name: 'Done' })).toBeHidden();
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  // A picture to a millimetre or two and tapes to a sixteenth: the belt comes out within half a percent.
  const length = solveDrive(truth).belts[0]!.length.mm!;
  expect(Math.abs((await shownLength(page)) / length - 1)).toBeLessThan(0.005);
  await saved(page);

  await page.getByRole('link', { name: 'Routing card' }).click();
  await expect(page.locator('.card-sheet svg').getByText('Alternator').first()).toBeVisible();
  await page.getByRole('button', { name: 'Print' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-printed', 'yes');
}

test.describe(() => {
  test.setTimeout(120_000);

  test('a new drive from a picture and five tapes to the printed card, by mouse', async ({ page, emery }) => {
    await fromPictureToCard(page, mouse);
    const { document } = await emery.drive('From a picture');
    const at = (drive: Drive, label: string) =>
      drive.stations.find((station) => (station.label ?? '') === label || station.id.startsWith(IDS[label]!))!;
    // Within 1 % of the width of the drive, whichever way the picture was held.
    for (const [a, b] of [
      ['Crank', 'Alternator'],
      ['Steering pump', 'Compressor'],
      ['Tensioner', 'Water pump'],
      ['Crank', 'Steering pump'],
    ] as const) {
      const far = (drive: Drive) => Math.hypot(at(drive, a).x - at(drive, b).x, at(drive, a).y - at(drive, b).y);
      expect(Math.abs(far(document) - far(truth))).toBeLessThan(5);
    }
  });

  test.describe('on a phone', () => {
    test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

    test('the same by thumb', async ({ page }) => fromPictureToCard(page, finger));
  });
});

const IDS: Record<string, string> = {
  Crank: 'crank',
  Tensioner: 'tensioner',
  'Steering pump': 'power-steering',
  'Water pump': 'water-pump',
  Alternator: 'alternator',
  Compressor: 'ac-compressor',
};

test('the picture lies under the drawing, squared up, and is dimmed and taken out again', async ({ page, emery }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^Open Front drive of Rescue/ }).click();
  await toStage(page, 'Survey');
  await page.getByText('Picture', { exact: true }).click();
  const under = page.locator('.underlay img');
  await expect(under).toBeVisible();
  // The homography puts the marked rim of the crank where the crank is drawn.
  const [u, v] = rims.get('crank-1')!.reduce(([x, y], [px, py]) => [x + px / 8, y + py / 8], [0, 0]);
  const place = await under.evaluate(
    (image: HTMLImageElement, [x, y]) => {
      const m = new DOMMatrix(getComputedStyle(image).transform);
      const p = m.transformPoint(new DOMPoint(x, y));
      const box = image.parentElement!.getBoundingClientRect();
      return [box.x + p.x / p.w, box.y + p.y / p.w];
    },
    [u, v] as [number, number],
  );
  const disc = (await page.locator('[data-station="crank"] .pulley-disc').first().boundingBox())!;
  expect(Math.hypot(place[0]! - disc.x - disc.width / 2, place[1]! - disc.y - disc.height / 2)).toBeLessThan(
    0.05 * disc.width,
  );

  await page.getByRole('slider').press('Home');
  await expect(under).toBeHidden();
  await page.getByRole('button', { name: 'Remove picture' }).click();
  await expect(page.getByText('A picture, square-on')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  expect((await emery.drive('Front drive')).document.survey!.photos).toHaveLength(1);
});

test('a file that is no picture is refused by name, and nothing is lost', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /^Open Front drive of Rescue/ }).click();
  await toStage(page, 'Survey');
  await page.getByText('Picture', { exact: true }).click();
  await page
    .getByLabel('Another picture file')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(page.getByRole('alert')).toContainText('notes.txt: a JPEG, PNG or WebP picture is accepted.');
  await page
    .getByLabel('Another picture file')
    .setInputFiles({ name: 'broken.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a jpeg') });
  await expect(page.getByRole('alert')).toContainText('cannot be read');
  await expect(page.getByRole('heading', { name: 'Rims in the picture' })).toBeVisible();
});
