import type { Locator, Page } from '@playwright/test';
import { noFaultOfAccess } from './access';
import { expect, saved, test } from './emery';

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
const STAGES = ['survey', 'route', 'size', 'speeds', 'tension', 'align', 'noise', 'inspect', 'job'];

/** True where a thumb reaches it as the page stands: all of it in sight, and nothing over its middle. */
const reached = (at: Locator): Promise<boolean> =>
  at.first().evaluate((element) => {
    const { x, y, width, height, top, bottom } = element.getBoundingClientRect();
    const met = document.elementFromPoint(x + width / 2, y + height / 2);
    const own = met !== null && (element.contains(met) || met.contains(element) || met.closest('label') !== null);
    return top >= 0 && bottom <= window.innerHeight && own;
  });

const drawn = (page: Page) => expect(page.locator('.front-view-svg .pulley').first()).toBeAttached();
const view = (page: Page, name: string) => page.locator('.ledger .ant-segmented-item', { hasText: name }).first().tap();

test.describe('on a phone', () => {
  test.use(PHONE);

  test('every stage opens on its figure or question: the drawing a strip above it, chart and stages one tap off', async ({
    page,
    emery,
  }) => {
    const { id } = await emery.drive('Front drive');
    for (const stage of STAGES) {
      await page.goto(`/drives/${id}/${stage}`);
      await drawn(page);
      const first = page.locator('.ledger > :is(.answer, .caution, .next-line, h2, .ant-segmented)');
      await expect(first.first()).toBeVisible();
      const seen = await page.evaluate(() => ({
        scrolls: document.documentElement.scrollHeight - window.innerHeight,
        strip: document.querySelector('.bench-parts > .front-view')!.getBoundingClientRect().height,
        high: window.innerHeight,
        ledger: document.querySelector('.ledger')!.getBoundingClientRect().top,
      }));
      expect({ stage, scrolls: seen.scrolls }).toEqual({ stage, scrolls: 0 });
      expect(seen.strip).toBeLessThanOrEqual(seen.high / 3 + 1);
      expect(seen.ledger).toBeLessThan(seen.high / 2);
    }
    const [front, chart] = [page.locator('.bench-parts > .front-view'), page.locator('.bench-parts > .unrolled')];
    await expect(chart).toBeHidden();
    await page.getByRole('button', { name: 'Chart' }).tap();
    await expect(chart).toBeVisible();
    await expect(front).toBeHidden();
    await page.getByRole('button', { name: 'Fold' }).tap();
    await expect(chart).toBeHidden();
    await page.getByRole('button', { name: 'Larger' }).tap();
    await expect(page.locator('.ledger')).toBeHidden();
    await expect(page.getByRole('button', { name: 'Zoom in' })).toBeVisible();
    await page.getByRole('button', { name: 'Smaller' }).tap();
    await expect(page.locator('.ledger')).toBeVisible();

    await page.locator('.rail-now').tap();
    await expect(page.getByRole('dialog').getByRole('button')).toHaveCount(10);
    await page.getByRole('button', { name: /^3\s*Size/ }).tap();
    await expect(page.locator('.rail-now')).toContainText('Size');
    await page.getByRole('button', { name: /^Next\s*Speeds/ }).tap();
    await expect(page).toHaveURL(/speeds$/);
  });

  test('tapes, a walk, a pluck and a job by thumb: no scroll between question, field and button', async ({
    page,
    emery,
  }) => {
    const { id } = await emery.drive('Front drive');
    await page.goto(`/drives/${id}/survey`);
    await drawn(page);
    await view(page, 'Tapes');
    for (const reading of ['16 1/2', '17 1/4']) {
      const [field, add] = [
        page.getByLabel('Reading', { exact: true }),
        page.getByRole('button', { name: 'Add reading' }),
      ];
      await expect(field).toHaveValue('');
      expect(await reached(field)).toBe(true);
      await field.fill(reading);
      expect(await reached(add)).toBe(true);
      await add.tap();
    }
    await saved(page);

    await page.goto(`/drives/${id}/inspect`);
    await expect(page.locator('.walk-next')).toBeVisible();
    for (let part = 0; part < 7; part += 1) {
      expect(await reached(page.locator('.walk-next'))).toBe(true);
      await page.locator('.walk-next').tap();
      await expect.poll(() => reached(page.locator('.walk h2'))).toBe(true);
    }

    await page.goto(`/drives/${id}/tension`);
    await drawn(page);
    await view(page, 'Check');
    await expect.poll(() => reached(page.getByRole('button', { name: /Listen/ }))).toBe(true);

    await page.goto(`/drives/${id}/job`);
    await page.getByRole('button', { name: 'Start this job' }).tap();
    await page.waitForURL(/\/jobs\//);
    const done = page.getByRole('button', { name: 'Done, next step' });
    const step = page.getByRole('region', { name: 'Current step' });
    for (let number = 1; number <= 20; number += 1) {
      await expect(step).toContainText(`Step ${number} of`);
      expect(await reached(done)).toBe(true);
      await done.tap();
    }
    await expect(page.getByTestId('job-progress')).toContainText('20 of');
    // What is done is folded; the page is no longer than what is left.
    expect(await page.getByRole('checkbox', { checked: true }).count()).toBe(0);
    await page.getByRole('button', { name: 'Show done steps' }).first().tap();
    expect(await page.getByRole('checkbox', { checked: true }).count()).toBeGreaterThan(0);

    await page.getByRole('button', { name: 'Hands-free' }).tap();
    const free = page.getByRole('dialog', { name: 'Hands-free' });
    await expect(free).toContainText('Step 21 of');
    await page.keyboard.press('ArrowRight');
    await expect(free).toContainText('Step 22 of');
    await page.keyboard.press('PageUp');
    await expect(free).toContainText('Step 21 of');
    await expect(free).toContainText('done');
    await page.keyboard.press('ArrowDown');
    await expect(free).toContainText('Step 22 of');
    const { width, height } = page.viewportSize()!;
    await page.touchscreen.tap(width * 0.7, height * 0.6);
    await expect(free).toContainText('Step 23 of');
    await page.touchscreen.tap(width * 0.12, height * 0.6);
    await expect(free).toContainText('Step 22 of');
    await free.getByRole('button', { name: 'Close' }).tap();
    await expect(free).toBeHidden();
    await expect(page.getByTestId('job-progress')).toContainText('22 of');
  });
});

test('habits are this person’s: units, marks and clock, at once and after a reload, and the shop is as it was', async ({
  page,
  emery,
}) => {
  const { id } = await emery.drive('Front drive');
  await page.goto(`/drives/${id}/tension`);
  await expect(page.getByTestId('tension-answer')).toContainText('356 N');
  await page.getByRole('button', { name: 'My settings' }).click();
  const dialog = page.getByRole('dialog', { name: 'My settings' });
  for (const choice of ['Comma: 169,9', 'lbf', 'Millimetres', 'Night'])
    await dialog.getByText(choice, { exact: true }).click();
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByTestId('tension-answer')).toContainText('80 lbf');
  await expect(page.locator('html')).toHaveAttribute('data-light', 'night');
  await page.goto(`/drives/${id}/size`);
  await expect(page.locator('.answer').first()).toContainText('1810,0 mm');
  await page.reload();
  await expect(page.locator('.answer').first()).toContainText('1810,0 mm');
  expect((await emery.get<{ unit: string }>('/shop')).unit).toBe('in');
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('html')).toHaveAttribute('data-light', 'day');
});

for (const [light, media] of [
  ['night', { colorScheme: 'dark' }],
  ['sun', { contrast: 'more' }],
] as const)
  test(`as the device asks, by ${light}: nothing on the main pages is too faint to read`, async ({ page, emery }) => {
    await page.emulateMedia(media);
    const { id } = await emery.drive('Front drive');
    for (const where of ['/', '/counter/string', `/drives/${id}/tension`, `/drives/${id}/inspect`]) {
      await page.goto(where);
      await expect(page.locator('html')).toHaveAttribute('data-light', light);
      await expect(page.locator('main, .counter').first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      await noFaultOfAccess(page);
    }
  });

/** A word of eighty letters, and a name that is written from right to left. */
const LONG = 'Hinterachsgetriebegehaeuseentlueftungsschlauchschellenhalterblechbefestigungsset';
const OTHER = 'شاحنة الإنقاذ الجبلية الكبيرة ذات المحرك الأمامي';

/** What is pressed and is lower than a finger needs, by name; an input within a field of its own counts with that. */
const tooLow = (page: Page) =>
  page.evaluate(() => {
    const pressed = 'button, a[href], input, select, summary, [role=button], .chip, .ant-segmented-item';
    const within = '.chip, .ant-segmented-item, .ant-select, .ant-input-affix-wrapper, .ant-upload, .has-suffix';
    return [...document.querySelectorAll(pressed)]
      .filter((part) => {
        const { width, height } = part.getBoundingClientRect();
        // Not what is hidden or drawn, nor a part of what takes the press; a mark that empties a field reaches further.
        const counts = width > 0 && height > 0 && !part.closest('svg, p, .visually-hidden, .ant-input-clear-icon');
        return counts && !(part.tagName === 'INPUT' && part.parentElement!.closest(within)) && height < 43.5;
      })
      .map((part) => `${part.tagName} ${part.getAttribute('aria-label') ?? part.textContent}`.slice(0, 60));
  });

test.describe('under a finger', () => {
  test.use({ hasTouch: true });

  test('names of eighty letters and of another script push nothing sideways, and nothing pressed is under 44 px, on any page', async ({
    page,
    emery,
  }) => {
    const post = async <T>(path: string, body: object): Promise<T> => {
      const answer = await page.request.post(`${emery.address()}/api${path}`, { data: body });
      expect(answer.ok()).toBe(true);
      return answer.json() as Promise<T>;
    };
    const { document: drive } = await emery.drive('Front drive');
    const vehicle = await post<{ id: string }>('/vehicles', { name: LONG, plate: '', notes: OTHER });
    const stations = drive.stations.map((station, at) => ({ ...station, label: at % 2 === 0 ? LONG : OTHER }));
    const named = { ...drive, name: LONG, stations };
    const { id } = await post<{ id: string }>('/drives', { vehicleId: vehicle.id, document: named });
    await page.goto(`/drives/${id}/job`);
    await page.getByRole('button', { name: 'Start this job' }).click();
    await page.waitForURL(/\/jobs\//);
    const job = new URL(page.url()).pathname;
    const stages = ['survey', 'route', 'size', 'speeds', 'tension', 'align', 'noise', 'inspect', 'job'];
    const papers = [...['card', 'glovebox', 'job-card'].map((paper) => `/drives/${id}/${paper}`), `${job}/print`];
    const lists = [
      '/',
      `/vehicles/${vehicle.id}`,
      '/records/due',
      '/records/happened',
      '/belts',
      '/devices',
      '/counter',
    ];
    const over = () =>
      page.evaluate(() =>
        [document.documentElement, ...document.querySelectorAll('.ledger, main')]
          .map((part) => `${part.className || part.tagName} ${Math.max(0, part.scrollWidth - part.clientWidth - 1)}`)
          .filter((line) => !line.endsWith(' 0')),
      );
    const low: string[] = [];
    for (const where of [...lists, ...stages.map((stage) => `/drives/${id}/${stage}`), job, ...papers]) {
      await page.setViewportSize({ width: 390, height: 844 });
      await page.goto(where);
      await expect(page.locator('main').first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      for (const width of [390, 768, 1280]) {
        await page.setViewportSize({ width, height: 900 });
        await page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))));
        await expect.poll(async () => ({ width, where, over: await over() })).toEqual({ width, where, over: [] });
        for (const part of await tooLow(page)) low.push(`${where} ${width}: ${part}`);
      }
      // Each view of a stage, where there is the least room.
      await page.setViewportSize({ width: 390, height: 844 });
      const views = page.locator('.ledger .ant-segmented').first().locator('.ant-segmented-item');
      for (let k = 1; k < (await views.count()); k += 1) {
        await views.nth(k).click();
        await page.waitForLoadState('networkidle');
        await expect.poll(async () => ({ view: k, where, over: await over() })).toEqual({ view: k, where, over: [] });
        for (const part of await tooLow(page)) low.push(`${where} view ${k}: ${part}`);
      }
    }
    expect(low).toEqual([]);
    await page.goto('/');
    await page.getByRole('searchbox').or(page.getByRole('textbox')).first().fill(`${LONG}x`);
    await expect(page.getByText(/Nothing in the shop matches/)).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  });
});

test('with text at twice its size words grow with it, and nothing is pushed sideways', async ({ page, emery }) => {
  const { id } = await emery.drive('Front drive');
  await page.addInitScript(() => {
    document.addEventListener('DOMContentLoaded', () => (document.documentElement.style.fontSize = '200%'));
  });
  for (const where of ['/', '/counter/string', `/drives/${id}/size`]) {
    await page.goto(where);
    await expect(page.locator('main, .counter').first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    expect(await page.evaluate(() => parseFloat(getComputedStyle(document.body).fontSize))).toBe(30);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBeLessThanOrEqual(0);
  }
});
