import { dragBy, expect, openDrive, saved, shownLength, test, coreLength } from './emery';

test.use({ ownServer: true });

test('server killed in mid-edit and started again: nothing is lost', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  await emery.kill();
  await dragBy(page, 'ac', 10, 30);
  await dragBy(page, 'steer', -20, -10);
  const drawn = await shownLength(page);
  await expect(page.getByText('Kept on this device. Server not reachable, trying again')).toBeVisible();
  await emery.start();
  await expect(page.locator('[data-save="saved"]')).toBeVisible({ timeout: 20_000 });
  expect(coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(drawn, 9);
});

test('server killed, page closed, both opened again: the drawing is taken up from this browser and saved', async ({
  context,
  emery,
}) => {
  const page = await context.newPage();
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await expect(page.locator('[data-length-mm]')).toBeVisible();
  const address = page.url();
  await emery.kill();
  await dragBy(page, 'ac', 10, 40);
  const drawn = await shownLength(page);
  await page.close();
  await emery.start();
  const again = await context.newPage();
  await again.goto(address);
  await expect.poll(() => shownLength(again)).toBeCloseTo(drawn, 9);
  await expect.poll(async () => coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(drawn, 9);
});

test('what is typed but not entered survives a reload', async ({ page, emery }) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="ac"]').click();
  await page.getByLabel('Diameter over ribs', { exact: true }).fill('4 7/8');
  await page.reload();
  await expect
    .poll(
      async () =>
        (await emery.drive('Front drive')).document.stations.find(({ id }) => id === 'ac')!.pulleys[0]!.diameter,
    )
    .toBeCloseTo(123.825, 6);
});

test('database killed right after an acknowledged save: the save is there, and the next one goes through', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  const acknowledged = await shownLength(page);
  process.kill(emery.databasePid(), 'SIGKILL');
  await expect
    .poll(
      async () =>
        emery.drive('Front drive').then(
          ({ document }) => coreLength(document),
          () => 0,
        ),
      { timeout: 30_000 },
    )
    .toBeCloseTo(acknowledged, 9);
  await dragBy(page, 'ac', 0, 25);
  await expect
    .poll(async () => coreLength((await emery.drive('Front drive')).document), { timeout: 30_000 })
    .toBeCloseTo(await shownLength(page), 9);
});

test('left for the shop with the server away and opened again in the same page: both edits are saved', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  await emery.kill();
  await dragBy(page, 'ac', 10, 30);
  const first = await shownLength(page);
  await expect(page.getByText('Server not reachable, trying again')).toBeVisible();
  await page.getByRole('link', { name: 'Emery' }).click();
  await emery.start();
  await openDrive(page, 'Front drive of Rescue truck 2');
  expect(await shownLength(page)).toBeCloseTo(first, 9);
  await dragBy(page, 'steer', -20, -10);
  const both = await shownLength(page);
  await expect(page.locator('[data-save="saved"]')).toBeVisible({ timeout: 30_000 });
  await expect.poll(async () => coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(both, 9);
});

test.describe('a browser that keeps nothing', () => {
  const ways = {
    full: () => {
      Storage.prototype.setItem = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
    },
    forbidden: () => {
      for (const name of ['localStorage', 'sessionStorage']) {
        Object.defineProperty(window, name, {
          get: () => {
            throw new DOMException('no', 'SecurityError');
          },
        });
      }
    },
  };
  for (const [way, forbid] of Object.entries(ways)) {
    test(`${way}: it is saved all the same, and while it is not, that is said`, async ({ page, emery }) => {
      await page.addInitScript(forbid);
      await page.goto('/');
      await openDrive(page, 'Front drive of Rescue truck 2');
      await dragBy(page, 'alt', 25, 10);
      await saved(page);
      expect(coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(await shownLength(page), 9);
      await emery.kill();
      await dragBy(page, 'ac', 10, 30);
      await expect(
        page.getByText('Not kept on this device: leave this page open. Server not reachable, trying again'),
      ).toBeVisible();
      await emery.start();
      await expect(page.locator('[data-save="saved"]')).toBeVisible({ timeout: 30_000 });
      await expect
        .poll(async () => coreLength((await emery.drive('Front drive')).document))
        .toBeCloseTo(await shownLength(page), 9);
    });
  }
});

test('two pages closed with changes while the server was away: both are taken up in one, and saved', async ({
  context,
  emery,
}) => {
  const pages = [await context.newPage(), await context.newPage()];
  for (const page of pages) {
    await page.goto('/');
    await openDrive(page, 'Front drive of Rescue truck 2');
    await expect(page.locator('[data-length-mm]')).toBeVisible();
  }
  const address = pages[0]!.url();
  const placesOf = async () => {
    const { stations } = (await emery.drive('Front drive')).document;
    return ['ac', 'steer'].map((id) => stations.find((station) => station.id === id)!.y);
  };
  const before = await placesOf();
  await emery.kill();
  for (const [k, page] of pages.entries()) {
    await page.bringToFront();
    await dragBy(page, ['ac', 'steer'][k]!, 10, 40);
  }
  for (const page of pages) await page.close();
  await emery.start();
  const again = await context.newPage();
  await again.goto(address);
  await expect.poll(async () => (await placesOf()).map((y, k) => Math.abs(y - before[k]!) > 5)).toEqual([true, true]);
  await saved(again);
  await expect(again.getByRole('alertdialog')).toBeHidden();
  expect(coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(await shownLength(again), 9);
  // Neither is a draft any more.
  expect(await again.evaluate(() => Object.keys(localStorage).filter((key) => key.startsWith('emery-draft')))).toEqual(
    [],
  );
});

test('the stages work with the server away, once the page has had a moment; one that could not be fetched is tried again by itself', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  for (const part of ['stage-size', 'stage-speeds', 'stage-job', 'core-worker']) {
    await page.waitForFunction(
      (name) => performance.getEntriesByType('resource').some((entry) => entry.name.includes(name)),
      part,
    );
  }
  await page.waitForLoadState('networkidle');
  await emery.kill();
  for (const [stage, proof] of [
    ['Survey', 'Key out and battery off'],
    ['Size', 'Recommended'],
    ['Speeds', 'engine speed'],
  ] as const) {
    await page
      .getByRole('button', { name: new RegExp(stage) })
      .first()
      .click();
    await expect(page.getByLabel('Ledger')).toContainText(new RegExp(proof, 'i'));
  }
  await emery.start();
  await page.route(/stage-speeds.*\.js/, (route) => route.abort());
  await page.reload();
  await expect(page.getByText('Speeds could not be loaded.', { exact: true })).toBeVisible();
  await page.unroute(/stage-speeds.*\.js/);
  await expect(page.getByLabel('Ledger')).toContainText('engine speed');
});

test('a sum whose worker fails says so and can be tried again', async ({ page }) => {
  await page.addInitScript(() => {
    const Real = Worker;
    let failing = true;
    Object.assign(window, { mend: () => (failing = false) });
    window.Worker = class extends Real {
      override postMessage(message: { task: string }) {
        // What core cannot take, as a fault of its own would be.
        super.postMessage(failing && message.task === 'size' ? { ...message, input: null } : message);
      }
    };
  });
  await page.goto('/');
  await openDrive(page, 'Front drive of Rescue truck 2');
  await page.getByRole('button', { name: /^3 Size/ }).click();
  const stopped = page.getByText('The calculation stopped.');
  await expect(stopped).toBeVisible();
  await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(stopped).toBeHidden();
  await expect(page.getByLabel('Ledger')).toContainText(/fits/);
});
