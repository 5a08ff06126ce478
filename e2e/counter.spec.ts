import { noFaultOfAccess } from './access';
import { chosen, expect, openDrive, saved, test } from './emery';
import type { Page } from '@playwright/test';
import { lengthCurve } from '@emery/core/adjuster';
import { onRules, spanTension, stringLength, twoPulleys } from '@emery/core/counter';
import { formatInches, N_PER_LBF } from '@emery/core/quantity';
import { readMarking, sectionFor } from '@emery/core/section';
import { measuredLength } from '@emery/core/size';

const INCH = 25.4;
const shown = async (page: Page, id: string, attribute: string) =>
  Number(await page.getByTestId(id).getAttribute(attribute));

/** Counts what a hand does on a page from now on: taps, and keys or pad keys pressed. */
async function counting(page: Page): Promise<() => Promise<{ taps: number; keys: number; seconds: number }>> {
  await page.addInitScript(() => {
    const count = { taps: 0, keys: 0 };
    Object.assign(window, { handsOn: count });
    window.addEventListener('pointerdown', () => (count.taps += 1), true);
    window.addEventListener('keydown', () => (count.keys += 1), true);
  });
  const since = Date.now();
  return async () => ({
    ...(await page.evaluate(() => (window as unknown as { handsOn: { taps: number; keys: number } }).handsOn)),
    seconds: (Date.now() - since) / 1000,
  });
}

/** Presses keys until the field of that name has the focus. */
async function tabTo(page: Page, name: string): Promise<void> {
  const field = page.getByLabel(name, { exact: true });
  for (let k = 0; k < 60; k += 1) {
    if (await field.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`${name} is out of a keyboard's reach`);
}

test('every question by keyboard alone, from any page', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('.vehicle')).toHaveCount(6);
  await page.keyboard.press('c');
  await expect(page.getByLabel('Reading', { exact: true })).toBeFocused();
  await page.keyboard.type('66 1/2');
  await expect(page.getByTestId('string-answer')).toBeVisible();
  const plain = { tool: 'string', mm: 66.5 * INCH } as const;
  const PK = sectionFor('PK')!;
  const noBend = stringLength({ section: PK, measurement: plain, riding: [] });
  expect(await shown(page, 'string-answer', 'data-mm')).toBeCloseTo(noBend.markedMm, 6);
  // Two pulleys that the back rides on, one told in degrees.
  const half = page.getByRole('button', { name: '+ half', exact: true });
  for (let k = 0; k < 30 && !(await half.evaluate((button) => button === document.activeElement)); k += 1)
    await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await tabTo(page, 'Degrees of pulley 2');
  await page.keyboard.type('40');
  const bent = stringLength({
    section: PK,
    measurement: plain,
    riding: [
      { on: 'back', bend: 'half' },
      { on: 'back', bend: 40 },
    ],
  });
  await expect.poll(() => shown(page, 'string-answer', 'data-mm')).toBeCloseTo(bent.markedMm, 6);
  expect(await shown(page, 'string-answer', 'data-plus-minus')).toBeCloseTo(bent.plusMinus, 6);

  // A field that is emptied stays empty while it is written anew.
  await tabTo(page, 'Ribs');
  await page.keyboard.press('Backspace');
  await expect(page.getByLabel('Ribs', { exact: true })).toHaveValue('');
  await page.keyboard.type('8');
  await expect(page.getByRole('button', { name: /^Copy 8PK1[67]/ }).first()).toBeVisible();
  await page.keyboard.press('Backspace');
  await page.keyboard.type('6');

  // What is written stands in the address: the same link asks the same.
  await expect.poll(() => page.url()).toContain('back=half%2C40');
  const link = page.url();
  await page.getByRole('heading', { name: /^Counter/ }).click();
  await page.keyboard.press('2');
  await expect(page.getByLabel('Printed on the belt')).toBeFocused();
  await page.keyboard.type('k060711');
  expect(await shown(page, 'marking-answer', 'data-mm')).toBeCloseTo(readMarking('K060711')[0]!.lengthMm, 6);
  await expect(page.getByRole('button', { name: 'Copy 6PK1806' })).toBeVisible();

  await page.getByRole('heading', { name: /^Counter/ }).click();
  await page.keyboard.press('3');
  await expect(page.getByLabel('On the crank', { exact: true })).toBeFocused();
  await page.keyboard.type('7 3/8');
  await page.keyboard.press('Enter');
  await page.keyboard.type('2 5/8');
  const two = (distanceMm: number | null, lengthMm: number | null) =>
    twoPulleys({
      section: 'PK',
      ribs: 6,
      crank: { diameter: 7.375 * INCH },
      other: { diameter: 2.625 * INCH },
      role: 'alternator',
      distanceMm,
      lengthMm,
    })!;
  await expect.poll(() => shown(page, 'ratio-answer', 'data-ratio')).toBeCloseTo(two(null, null).ratio, 9);
  await tabTo(page, "Or the belt's marking");
  await page.keyboard.type('6PK1105');
  await expect.poll(() => shown(page, 'pulleys-answer', 'data-mm')).toBeCloseTo(two(null, 1105).distanceMm!, 5);
  await tabTo(page, 'Engine speed, rev/min');
  await page.keyboard.type('6000');
  await tabTo(page, 'A ratio to check');
  await page.keyboard.type('1:2.81');
  await expect(page.getByText("That comes from the rims' diameters.")).toBeVisible();
  await expect(page.getByRole('list', { name: 'Which size instead' })).toContainText('on the crank, or');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.type('12"');
  await expect.poll(() => shown(page, 'pulleys-answer', 'data-mm')).toBeCloseTo(two(12 * INCH, null).lengthMm!, 5);

  await page.getByRole('heading', { name: /^Counter/ }).click();
  await page.keyboard.press('4');
  await expect(page.getByLabel('Free span, rim to rim', { exact: true })).toBeFocused();
  await page.keyboard.type('14');
  await tabTo(page, 'Pluck, Hz');
  await page.keyboard.type('95');
  await tabTo(page, 'Click gauge, lbf');
  const reading = spanTension({
    section: 'PK',
    ribs: 6,
    spanMm: 14 * INCH,
    armHolds: false,
    readings: [{ id: 'a', way: 'pluck', hz: 95 }],
  });
  await expect.poll(() => shown(page, 'tension-answer', 'data-newtons')).toBeCloseTo(reading.measured!.at, 6);
  await expect(page.getByRole('table', { name: 'What each check reads' })).toContainText('new belt');

  await page.getByRole('heading', { name: /^Counter/ }).click();
  await page.keyboard.press('5');
  await page.keyboard.type('169.9 mm');
  await expect(page.getByTestId('inches')).toContainText('6.6890"');
  for (const { mm, denominator } of onRules(169.9))
    await expect(page.getByRole('region', { name: 'Inches and mm' })).toContainText(formatInches(mm, denominator));
  await tabTo(page, 'A torque');
  await page.keyboard.type('35 lbf ft');
  await expect(page.getByTestId('torque')).toContainText('47.5 N·m');
  await page.getByRole('heading', { name: /^Counter/ }).click();
  await page.keyboard.press('Escape');
  await expect(page.locator('.vehicle')).toHaveCount(6);

  await page.goto(link);
  expect(await shown(page, 'string-answer', 'data-mm')).toBeCloseTo(bent.markedMm, 6);
  // What the shop's own keys write stays a letter in a field.
  await page.goto('/');
  await page.getByLabel('Search the shop').fill('');
  await page.getByLabel('Search the shop').pressSequentially('climb');
  await expect(page.locator('.vehicle')).toHaveCount(1);
});

test('a question that was asked for by its key takes the very next key', async ({ page }) => {
  await page.goto('/counter/string');
  // Once a question's code is there, a figure may be written right behind its key, before the page is drawn again.
  const questions = { 'Printed on the belt': '2', 'On the crank': '3', 'Free span, rim to rim': '4' };
  for (const [first, key] of Object.entries(questions)) {
    await page.getByRole('heading', { name: /^Counter/ }).click();
    await page.keyboard.press(key);
    await expect(page.getByLabel(first, { exact: true })).toBeFocused();
  }
  for (const [first, key] of Object.entries(questions)) {
    await page.getByRole('heading', { name: /^Counter/ }).click();
    const into = await page.evaluate(async (pressed) => {
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: pressed, bubbles: true, cancelable: true }));
      await Promise.resolve();
      const { activeElement } = document;
      return activeElement instanceof HTMLInputElement
        ? activeElement.labels?.[0]?.textContent
        : activeElement?.tagName;
    }, key);
    expect(into).toContain(first);
  }
});

test('what cannot be read is named and stays; a link with nonsense in it asks nothing', async ({ page }) => {
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(error.message));
  await page.goto('/counter/string');
  await page.getByLabel('Reading', { exact: true }).fill('66 15/61');
  await expect(page.getByRole('alert')).toContainText('15/61 is on no tape');
  await expect(page.getByTestId('string-answer')).toHaveCount(0);
  await expect(page.getByLabel('Reading', { exact: true })).toHaveValue('66 15/61');
  await page.getByRole('link', { name: 'Two pulleys' }).click();
  await page.getByLabel('Engine speed, rev/min').fill('fast');
  await expect(page.getByText('Engine speed: enter a number from 50 to 20000.')).toBeVisible();
  await page.getByLabel('On the crank', { exact: true }).fill('3"');
  await page.getByLabel('On the alternator', { exact: true }).fill('9"');
  await page.getByLabel('Between the shafts', { exact: true }).fill('2"');
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('No belt goes round these.');
  for (const nonsense of [
    `/counter/string?read=${'9'.repeat(500)}&back=${'half,'.repeat(900)}&held=nowhere&tool=rocket&section=__proto__`,
    '/counter/marking?marking=%3Cscript%3E&reads=-1',
    '/counter/pulleys?crank=1e9&other=-4&role=crankshaft&rpm=NaN',
    '/counter/tension?span=0&push=Infinity&ribs=1e3',
    '/counter/change?len=;drop&pitch=0&angle=-1',
    '/counter/nothing?drive=../../etc',
  ]) {
    await page.goto(nonsense);
    await expect(page.locator('.counter-sheet')).toBeVisible();
  }
  expect(faults).toEqual([]);
});

test('a drive of the shop gives the very figure that Size gives, and the string goes onto it', async ({
  page,
  emery,
}) => {
  await page.goto('/counter/string');
  await page.getByLabel('Reading', { exact: true }).fill('70 3/4');
  await page.getByText('down in the grooves', { exact: true }).click();
  await page.getByRole('button', { name: 'This drive is already in the shop' }).click();
  await page.getByLabel('Which drive').fill('rescue');
  await page.getByRole('button', { name: /Rescue truck 2/ }).click();
  await expect(page.getByTestId('string-answer')).toBeVisible();
  const { document } = await emery.drive('Front drive');
  const belt = document.belts[0]!;
  const measurement = { id: 'm', tool: 'string', mm: 70.75 * INCH, lay: 'groove' } as const;
  const size = measuredLength(document, belt, lengthCurve(document, belt), measurement)!;
  expect(await shown(page, 'string-answer', 'data-mm')).toBeCloseTo(size.markedMm, 9);
  await page.getByRole('button', { name: 'Add it to this drive, and go to Size' }).click();
  await expect(page.getByText('Length measured on the engine')).toBeVisible();
  await expect(page.locator('.measured-one')).toContainText(formatInches(size.markedMm));
  expect((await emery.drive('Front drive')).document.belts[0]!.measurements).toHaveLength(1);
});

test('what was entered goes to the bench with no vehicle named, and to a vehicle later', async ({ page, emery }) => {
  await page.goto('/counter/string?read=66+1%2F2&back=half,40&held=slack');
  await page.getByRole('button', { name: 'Save as a drive' }).click();
  await expect(page.locator('.pulley')).toHaveCount(3);
  await expect(page.getByText('Vehicle not named yet')).toBeVisible();
  const kept = await emery.drive('String of 1689 mm');
  expect(kept.document.belts[0]!.measurements![0]).toMatchObject({ tool: 'string', mm: 66.5 * INCH, state: 'slack' });
  await page.getByRole('link', { name: 'Emery' }).click();
  await page.getByRole('button', { name: 'More for String of 1689 mm of Vehicle not named yet' }).click();
  await page.getByRole('menuitem', { name: 'Move to another vehicle' }).click();
  await page.getByRole('dialog').getByLabel('Vehicle').fill('groomer');
  await page.getByRole('button', { name: 'Snow groomer, Fleet 7' }).click();
  await expect(page.getByRole('region', { name: 'Snow groomer' })).toContainText('String of 1689 mm');
  await expect(page.getByRole('region', { name: 'Vehicle not named yet' })).toHaveCount(0);
  // Two pulleys come as a whole drive.
  await page.goto('/counter/pulleys?section=AV10&crank=7+3%2F8&other=2+5%2F8&distance=12+1%2F2');
  const ratio = await shown(page, 'ratio-answer', 'data-ratio');
  await page.getByRole('button', { name: 'Save as a drive' }).click();
  await expect(page.locator('.pulley')).toHaveCount(2);
  const two = await emery.drive('Two pulleys');
  expect(two.document.belts[0]!.route).toHaveLength(2);
  expect(ratio).toBeGreaterThan(2.9);
});

test.describe('with a server that ends', () => {
  test.use({ ownServer: true });

  test('the counter goes on answering with the server away', async ({ page, emery }) => {
    await page.goto('/counter/string');
    await expect(page.getByLabel('Reading', { exact: true })).toBeFocused();
    // The other questions come along once the page is idle.
    const fetched = () =>
      page.evaluate(() =>
        performance
          .getEntriesByType('resource')
          .map(({ name }) => name)
          .join(),
      );
    await expect.poll(fetched).toContain('counter-later');
    await emery.kill();
    await page.getByLabel('Reading', { exact: true }).fill('1700 mm');
    await expect(page.getByTestId('string-answer')).toContainText('±');
    await page.getByRole('link', { name: 'Tension' }).click();
    await page.getByLabel('Free span, rim to rim', { exact: true }).fill('300 mm');
    await expect(page.getByTestId('tension-setting')).toContainText('N');
    await page.getByRole('button', { name: 'Save as a drive' }).click();
    // Begun on this device, and made once the server is back.
    await page.waitForURL(/\/drives\/[0-9a-f-]{36}\//);
    await expect(page.getByText('1 drive waits to be sent.')).toBeVisible();
    await emery.start();
    const names = async () =>
      (await emery.get<{ drives: { name: string }[] }>('/drives')).drives.map(({ name }) => name);
    await expect.poll(names).toContain('Belt from the counter');
  });
});

test.describe('by thumb, on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  const press = async (page: Page, keys: string) => {
    for (const key of keys) await page.getByRole('button', { name: key, exact: true }).tap();
  };
  const fits = async (page: Page) =>
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);

  test('a thumb that stays where it is, and one whose key moves away under it, write what they meant', async ({
    page,
  }) => {
    // The font comes late, as from a far server; once a key can be pressed nothing moves it.
    await page.route(/\.woff2$/, async (route) => {
      await new Promise((resolve) => setTimeout(resolve, 900));
      await route.continue();
    });
    await page.goto('/counter');
    const six = page.getByRole('button', { name: '6', exact: true });
    const place = (await six.boundingBox())!;
    const [cx, cy] = [place.x + place.width / 2, place.y + place.height / 2];
    for (const wanted of ['6"', '66"', '666"']) {
      await page.touchscreen.tap(cx, cy);
      await expect(page.getByLabel('Reading', { exact: true })).toHaveValue(wanted);
    }
    await page.evaluate(() => document.fonts.ready);
    expect(await page.evaluate(() => document.fonts.check('16px "Encode Sans Variable"'))).toBe(true);
    expect(await six.boundingBox()).toEqual(place);
    // Something comes in above while the thumb is down: its click would fall between two keys.
    const devtools = await page.context().newCDPSession(page);
    const touch = (type: 'touchStart' | 'touchEnd') =>
      devtools.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x: cx, y: cy }] });
    await touch('touchStart');
    await page.locator('.counter').evaluate((counter) => (counter.style.marginTop = '27px'));
    await touch('touchEnd');
    await expect(page.getByLabel('Reading', { exact: true })).toHaveValue('6666"');
  });

  test('from a string in hand to a marking in under a minute, and every other question', async ({ page }) => {
    const counted = await counting(page);
    await page.goto('/counter');
    await press(page, '66');
    const strip = (await page.getByRole('slider', { name: 'Sixteenths of an inch' }).boundingBox())!;
    await page.touchscreen.tap(strip.x + (strip.width * (14 + (292 * 8) / 16)) / 320, strip.y + 20);
    await expect(page.getByLabel('Reading', { exact: true })).toHaveValue('66 8/16"');
    await page.getByRole('button', { name: 'Enter' }).tap();
    await page.getByRole('button', { name: '+ a quarter' }).tap();
    await page.getByText('down in the grooves', { exact: true }).tap();
    const marking = page.locator('.copy-text.is-large');
    await expect(marking).toBeVisible();
    // It is in sight all the while, without scrolling to it.
    await expect(page.locator('.counter-headline')).toBeInViewport();
    await expect(page.locator('.counter-headline')).toContainText(/^6PK1[67]\d\d · ±/);
    const { taps, keys, seconds } = await counted();
    // eslint-disable-next-line no-console
    console.log(`string to marking, by thumb: ${taps} taps, ${keys} keys, ${seconds.toFixed(1)} s`);
    expect(seconds).toBeLessThan(60);
    const expected = stringLength({
      section: sectionFor('PK')!,
      measurement: { tool: 'string', mm: 66.5 * INCH, lay: 'groove' },
      riding: [{ on: 'back', bend: 'quarter' }],
    });
    expect(await shown(page, 'string-answer', 'data-mm')).toBeCloseTo(expected.markedMm, 6);
    await fits(page);

    await page.getByRole('link', { name: 'Marking' }).tap();
    await page.getByLabel('Printed on the belt').fill('AV13x1250');
    expect(await shown(page, 'marking-answer', 'data-mm')).toBe(1250);
    await fits(page);

    await page.getByRole('link', { name: 'Two pulleys' }).tap();
    await press(page, '7');
    await page.getByRole('button', { name: 'Enter' }).tap();
    await press(page, '3');
    await page.getByRole('button', { name: 'Enter' }).tap();
    await expect(page.locator('.counter-headline')).toContainText('× 2.');
    await fits(page);

    await page.getByRole('link', { name: 'Tension' }).tap();
    await press(page, '12');
    await page.getByRole('button', { name: 'Enter' }).tap();
    await page.getByLabel('Click gauge, lbf').fill('90');
    await expect.poll(() => shown(page, 'tension-answer', 'data-newtons')).toBeCloseTo(90 * N_PER_LBF, 6);
    await expect(page.getByRole('table', { name: 'What each check reads' })).toBeVisible();
    await fits(page);

    await page.getByRole('link', { name: 'Conversions' }).tap();
    await page.getByLabel('Pitch').fill('24 tpi');
    await page.getByLabel('Turns', { exact: true }).fill('6');
    await expect(page.getByRole('region', { name: 'Turns of a thread' })).toContainText('0.250"');
    await fits(page);
    const small = await page.locator('button:visible, a:visible, input:visible, select:visible').evaluateAll((all) =>
      all
        .filter((at) => !/radio|checkbox/.test(at.getAttribute('type') ?? ''))
        .map((at) => ({
          height: (at.closest('.line-input.has-suffix') ?? at).getBoundingClientRect().height,
          html: at.outerHTML.slice(0, 90),
        }))
        .filter(({ height }) => height > 0 && height < 39.5),
    );
    expect(small).toEqual([]);
  });
});

test('nothing at the counter, nor in the form for a new drive, stands in the way of a reader of the screen', async ({
  page,
}) => {
  for (const where of [
    'string?read=66&back=half&held=slack',
    'marking?marking=13390',
    'pulleys?crank=7&other=3&distance=12&ratio=3',
    'tension?span=14&pluck=90&push=9&in=1%2F4',
    'change?len=5&torque=20&pitch=1.5&turns=2&shim=0.04&round=20',
  ]) {
    await page.goto(`/counter/${where}`);
    await expect(page.locator('.counter-sheet')).toBeVisible();
    await noFaultOfAccess(page);
  }
  await page.goto('/');
  await page.getByRole('button', { name: 'New drive' }).first().click();
  await expect(page.getByRole('dialog').getByLabel('Name')).toBeFocused();
  await page.getByText('Another drive', { exact: true }).click();
  await expect(page.getByRole('dialog').getByRole('button', { name: /Hill farm pickup/ })).toBeVisible();
  await noFaultOfAccess(page);
});

test.describe('a first-time user', () => {
  test.use({ shop: 'empty' });

  /** The pulleys as they truly stand, by what the bench calls them. */
  const TRUE: Record<string, { x: number; y: number; d: number }> = {
    Crank: { x: 0, y: 0, d: 158.75 },
    Alternator: { x: -228, y: 139, d: 60.3 },
    'Water pump': { x: -18, y: 281, d: 127 },
    Compressor: { x: 214, y: 108, d: 117.5 },
  };
  const sixteenth = (mm: number) => `${Math.round((mm / INCH) * 16) / 16}"`;

  test('from an empty shop to a sized drive from five tapes in under ten minutes', async ({ page, emery }) => {
    test.setTimeout(120_000);
    const counted = await counting(page);
    await page.goto('/');
    await expect(page.getByText('No vehicle in the shop yet')).toBeVisible();
    await page.getByRole('button', { name: 'New drive' }).last().click();
    await page.getByText('Four pulleys', { exact: true }).click();
    await page.getByRole('button', { name: 'Open it on the bench' }).click();
    const next = page.getByRole('region', { name: 'Next' });
    const top = (await next.boundingBox())!.y;
    // Sizes: one field, in focus from the start; Enter goes on, and the sheet stays where it is.
    for (const name of Object.keys(TRUE)) {
      await expect(next).toContainText(`Measure the diameter of ${name}.`);
      await expect(next.getByRole('textbox')).toBeFocused();
      await page.keyboard.type(sixteenth(TRUE[name]!.d));
      await page.keyboard.press('Enter');
      expect((await next.boundingBox())!.y).toBe(top);
    }
    await expect(next).toContainText('Take 5 tapes between the pulleys.');
    await next.getByRole('button', { name: 'Read a tape' }).click();
    for (let k = 0; k < 5; k += 1) {
      if (k > 0) await expect(next).toContainText(k === 4 ? '1 more tape' : `${5 - k} tapes`);
      await expect(
        page.getByRole('heading', { name: k === 0 ? 'Tape reading' : 'Next tape, the most useful one' }),
      ).toBeVisible();
      const [from, to] = [TRUE[await chosen(page, 'From')]!, TRUE[await chosen(page, 'To')]!];
      await expect(page.getByLabel('Reading', { exact: true })).toBeFocused();
      await page.keyboard.type(sixteenth(Math.hypot(from.x - to.x, from.y - to.y) + (from.d + to.d) / 2));
      await page.keyboard.press('Enter');
      await expect(page.locator('.tape-line:not(.is-asked)')).toHaveCount(k + 1);
    }
    await page.getByRole('button', { name: 'Move them there' }).click();
    await expect(next).toContainText('Choose a length for the belt.');
    await next.getByRole('button', { name: 'See lengths' }).click();
    await expect(page.getByTestId('size-answer').locator('[data-best-mm]')).toBeVisible();
    await expect(page.getByTestId('size-answer').getByRole('button', { name: /^Copy 6PK/ })).toBeVisible();
    await page.locator('.size-mark.is-best').click();
    await page.getByRole('button', { name: 'Use this length' }).click();
    await saved(page);
    const { taps, keys, seconds } = await counted();
    // eslint-disable-next-line no-console
    console.log(`empty shop to a sized drive: ${taps} taps, ${keys} keys, ${seconds.toFixed(1)} s`);
    expect(seconds).toBeLessThan(600);
    const { document, vehicleName } = await emery.drive('Front drive');
    expect(vehicleName).toBe('Vehicle not named yet');
    expect(document.belts[0]!.length).toBe(Number(await page.locator('[data-best-mm]').getAttribute('data-best-mm')));
    // Where the tapes put them is where they truly stand, to what a sixteenth of an inch allows.
    for (const { x, y, role } of document.stations) {
      const truth =
        TRUE[
          { crankshaft: 'Crank', alternator: 'Alternator', 'water-pump': 'Water pump' }[role as string] ?? 'Compressor'
        ]!;
      expect(Math.hypot(x, y)).toBeGreaterThan(Math.hypot(truth.x, truth.y) - 4);
      expect(Math.hypot(x, y)).toBeLessThan(Math.hypot(truth.x, truth.y) + 4);
    }
  });

  test('a string is one way to start, another drive one more', async ({ page, emery }) => {
    await page.goto('/');
    await page.getByRole('button', { name: 'Load the demo vehicles' }).click();
    await expect(page.locator('.vehicle')).toHaveCount(6);
    await page.getByRole('region', { name: 'Snow groomer' }).getByRole('button', { name: 'New drive' }).click();
    await page.getByRole('dialog').getByLabel('Name').fill('Like the truck');
    await page.getByText('Another drive', { exact: true }).click();
    await page.getByRole('button', { name: 'Open it on the bench' }).click();
    await expect(page.getByRole('alert')).toContainText('choose one from the list');
    await page.getByText('positions and routes only').click();
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /Rescue truck 2/ })
      .click();
    await page.getByRole('button', { name: 'Open it on the bench' }).click();
    await expect(page.getByRole('region', { name: 'Next' })).toContainText('Measure the diameter');
    const made = await emery.drive('Like the truck');
    expect(made.vehicleName).toBe('Snow groomer');
    expect(made.document.belts[0]!.route).toHaveLength(6);
    expect(made.document.survey).toBeUndefined();
    await page.getByRole('link', { name: 'Emery' }).click();
    await openDrive(page, 'Like the truck');
    await expect(page.locator('.pulley')).toHaveCount(6);
    await page.getByRole('link', { name: 'Emery' }).click();
    await page.getByRole('button', { name: 'New drive' }).first().click();
    await page.getByText('A string', { exact: true }).click();
    await page.getByRole('button', { name: 'To the counter' }).click();
    await expect(page.getByLabel('Reading', { exact: true })).toBeFocused();
  });
});
