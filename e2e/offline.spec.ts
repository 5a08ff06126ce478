import { dragBy, expect, openDrive, saved, shownLength, test, coreLength } from './emery';
import type { Page } from '@playwright/test';

test.use({ ownServer: true, serviceWorkers: 'allow', actionTimeout: 20_000 });

/** Emery is in the browser: its files are kept, and this page goes by them. */
const kept = (page: Page) =>
  page.waitForFunction(async () => (await navigator.serviceWorker?.ready)?.active?.state === 'activated', null, {
    timeout: 60_000,
  });

const away = (page: Page) => page.getByText('No server.').first();

test('the server is gone: Emery opens, an open drive and its job go on, a new drive is begun, and all goes up', async ({
  page,
  emery,
}) => {
  await page.goto('/');
  await kept(page);
  await openDrive(page, 'Front drive of Rescue truck 2');
  await dragBy(page, 'alt', 25, 10);
  await saved(page);
  const acknowledged = await shownLength(page);
  const bench = page.url();
  await page.getByRole('button', { name: /^9 Job card/ }).click();
  await page.getByRole('button', { name: 'Start this job' }).click();
  await page.waitForURL(/\/jobs\//);
  await expect(page.getByTestId('job-progress')).toContainText('0 of');
  const job = page.url();
  await page.goto('/');
  await expect(page.getByRole('link', { name: /^Open Front drive of Rescue truck 2/ })).toBeVisible();
  await page.goto('/counter/string');
  await expect(page.getByRole('heading', { name: /Counter/ })).toBeVisible();

  await emery.kill();
  // The page itself comes from the browser, the drive as it was saved last.
  await page.goto(bench);
  await expect(away(page)).toBeVisible();
  expect(await shownLength(page)).toBeCloseTo(acknowledged, 6);
  await page.getByRole('button', { name: /^1 Survey/ }).click();
  await page.locator('[data-station="ac"]').click();
  await page.getByLabel('Diameter over ribs', { exact: true }).fill('4 7/8');
  await page.reload();
  await expect(away(page)).toBeVisible();
  await page.getByRole('button', { name: /^2 Route/ }).click();
  const drawn = await shownLength(page);
  expect(drawn).not.toBeCloseTo(acknowledged, 2);

  await page.goto(job);
  await page.getByRole('button', { name: 'Done, next step' }).click();
  await expect(page.getByTestId('job-progress')).toContainText('1 of');
  await page.reload();
  await expect(page.getByTestId('job-progress')).toContainText('1 of');

  await page.goto('/counter/string');
  await expect(page.getByRole('heading', { name: /Counter/ })).toBeVisible();

  await page.goto('/');
  await page
    .getByRole('button', { name: /^New drive for Rescue truck 2|^Add a drive|New drive/ })
    .first()
    .click();
  await page.getByLabel('Name', { exact: true }).fill('Begun away');
  await page.getByLabel('Name', { exact: true }).press('Enter');
  await page.waitForURL(/\/drives\/[0-9a-f-]{36}\/survey/);
  await expect(page.getByText('1 drive waits to be sent.')).toBeVisible();

  await emery.start();
  await expect(away(page)).toBeHidden({ timeout: 30_000 });
  await expect.poll(async () => (await emery.drive('Begun away')).revision).toBeGreaterThanOrEqual(1);
  const { drives } = await emery.get<{ drives: { name: string }[] }>('/drives');
  expect(drives.filter(({ name }) => name === 'Begun away')).toHaveLength(1);
  await page.goto(bench);
  await saved(page);
  await expect.poll(async () => coreLength((await emery.drive('Front drive')).document)).toBeCloseTo(drawn, 6);
  const ticks = async () => {
    const { events } = await emery.get<{ events: { kind: string }[] }>(`/jobs/${job.split('/').at(-1)}`);
    return events.filter(({ kind }) => kind === 'tick').length;
  };
  await expect.poll(ticks).toBeGreaterThanOrEqual(1);
  expect(await ticks()).toBe(1);
});
