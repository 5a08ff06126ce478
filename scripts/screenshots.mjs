import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { buildInterface } from './lib/build.mjs';
import { openDatabase } from './lib/database.mjs';
import { findBrowser } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';
import { startServer } from './lib/serve.mjs';

/**
 * Takes the pictures in docs/screenshots from the demo shop. Run by hand when a view has changed: node
 * scripts/screenshots.mjs
 */
const folder = mkdtempSync(path.join(tmpdir(), 'emery-pictures-'));
const database = await openDatabase(folder);
const server = await startServer({ databaseUrl: database.url('emery'), webFolder: await buildInterface() });
const browser = await chromium.launch({
  executablePath: findBrowser(),
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});

async function picture(name, size, prepare, { colorScheme = 'light' } = {}) {
  const baseURL = `http://127.0.0.1:${server.port}`;
  const page = await (await browser.newContext({ viewport: size, baseURL, locale: 'en-GB', colorScheme })).newPage();
  await page.goto('/');
  await page.waitForSelector('.vehicle');
  await prepare(page);
  await page.waitForTimeout(700);
  await page.screenshot({ path: path.join(ROOT, 'docs', 'screenshots', `${name}.png`) });
  await page.context().close();
}

const open = async (page, name) => {
  await page.getByRole('link', { name }).click();
  await page.waitForSelector('.pulley');
};
const wide = { width: 1280, height: 800 };

/**
 * Two devices on one drive: the laptop's bench with who else is there; on the phone the bench, what somebody else
 * changed, and a field that both changed, side by side.
 */
async function together() {
  const baseURL = `http://127.0.0.1:${server.port}`;
  const device = async (who, more) => {
    const context = await browser.newContext({ baseURL, locale: 'en-GB', colorScheme: 'light', ...more });
    await context.addInitScript((name) => localStorage.setItem('emery-who', name), who);
    const page = await context.newPage();
    await page.goto('/');
    await open(page, /Open Front drive of Rescue/);
    return page;
  };
  const phone = await device('Tam', { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const laptop = await device('Ines', { viewport: wide });
  const shots = [];
  const shoot = async () => {
    await phone.waitForTimeout(600);
    shots.push(await phone.screenshot());
  };
  await laptop.getByRole('button', { name: '1 other here' }).waitFor();
  await phone.locator('[data-station="alt"]').first().click();
  await laptop.locator('[data-station="steer"]').click();
  await laptop.getByRole('button', { name: '1 other here' }).click();
  await laptop.waitForTimeout(900);
  await laptop.screenshot({ path: path.join(ROOT, 'docs', 'screenshots', 'bench-route.png') });
  await laptop.keyboard.press('Escape');
  await shoot();
  await laptop.locator('[data-station="steer"]').click();
  await laptop.getByRole('button', { name: 'Flip side' }).click();
  await phone.locator('.changed-line span').waitFor();
  await shoot();
  await laptop.getByRole('button', { name: 'Undo' }).click();
  await laptop.locator('[data-save="saved"]').waitFor();
  await phone.waitForTimeout(5500);
  const name = (page) => page.getByLabel('Name of the drive');
  await phone.context().setOffline(true);
  await name(phone).fill('Front drive, new arm');
  await name(phone).blur();
  await name(laptop).fill('Front drive 2');
  await name(laptop).blur();
  await laptop.waitForTimeout(1500);
  await phone.context().setOffline(false);
  await phone.getByRole('alertdialog').waitFor();
  await phone.waitForTimeout(4500);
  await shoot();
  const image = (input, k) => ({ input, left: 400 * k, top: 0 });
  await sharp({ create: { width: 1190, height: 844, channels: 3, background: '#ffffff' } })
    .composite(shots.map(image))
    .png({ compressionLevel: 9 })
    .toFile(path.join(ROOT, 'docs', 'screenshots', 'bench-phone.png'));
  await phone.context().close();
  await laptop.context().close();
}
const tell = (method, where, body) =>
  fetch(`http://127.0.0.1:${server.port}/api/access/${where}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
try {
  await picture('shop', wide, async () => undefined);
  await picture('counter', wide, async (page) => {
    await page.goto('/counter/string?read=70+3%2F4%22&back=quarter,kisses&lay=groove&held=slack&takes=1%22');
    await page.waitForSelector('.copy-text.is-large');
  });
  await picture('bench-survey', wide, async (page) => {
    await open(page, /Open Fan and alternator/);
    await page.getByRole('button', { name: /^1 Survey/ }).click();
    await page.locator('[data-station="alt"]').click();
  });
  await picture('bench-picture', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^1 Survey/ }).click();
    await page.getByText('Picture', { exact: true }).click();
    await page.waitForSelector('.underlay img');
    await page.waitForTimeout(600);
  });
  await picture('bench-size', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^3 Size/ }).click();
    await page.waitForSelector('.size-mark.is-best');
    await page.locator('.size-mark.is-best').click();
  });
  await picture('bench-speeds', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^4 Speeds/ }).click();
    await page.waitForSelector('.speed-point');
  });
  // By night, under the bonnet.
  await picture(
    'bench-tension',
    wide,
    async (page) => {
      await open(page, /Open Fan and alternator/);
      await page.getByRole('button', { name: /^5 Tension/ }).click();
      await page.waitForSelector('.profile-line');
    },
    { colorScheme: 'dark' },
  );
  await picture('bench-align', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^6 Align/ }).click();
    await page.waitForSelector('.read-here');
    await page.waitForSelector('.edge-run');
  });
  await picture('bench-noise', wide, async (page) => {
    // Which noise the simulated bay hides: a chirp of the steering pump.
    await page.evaluate(() => (Math.random = () => 5.5e-6));
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^7 Noise/ }).click();
    await page.getByText('Simulated', { exact: true }).click();
    await page.getByRole('button', { name: 'Listen to the simulated bay' }).click();
    await page.getByTestId('heard-noise').waitFor();
  });
  await picture('bench-inspect', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('button', { name: /^8 Inspect/ }).click();
    await page.getByText('Verdicts', { exact: true }).click();
    await page.waitForSelector('.wear-reading');
  });
  await picture('belts', wide, async (page) => {
    await page.getByRole('link', { name: 'Belts in stock' }).click();
    await page.waitForSelector('.stock-sheet tbody tr');
  });
  await picture('routing-card', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.getByRole('link', { name: 'Routing card' }).click();
    await page.waitForSelector('.card-sheet svg');
  });
  await picture('bench-job', wide, async (page) => {
    await open(page, /Open Fan and alternator/);
    await page.getByRole('button', { name: /^9 Job card/ }).click();
    await page.getByRole('button', { name: /^Belt 2: chalk an arrow/ }).click();
    await page.locator('.ledger').evaluate((ledger) => ledger.scrollTo(0, 0));
  });
  await picture('due', wide, async (page) => {
    await page.getByRole('link', { name: 'Due and records' }).click();
    await page.waitForSelector('.due-row');
  });
  await picture('vehicle', wide, async (page) => {
    await page.getByRole('link', { name: 'Rescue truck 2', exact: true }).click();
    await page.waitForSelector('.wear-reading');
  });
  await tell('POST', 'first', { name: 'Ines Farrow', passphrase: 'four wet belts today' });
  await tell('POST', 'people', { name: 'Tam Ostler', role: 'counter', passphrase: 'four dry belts today' });
  await tell('PUT', 'sharing', { on: true });
  await picture('devices', wide, async (page) => {
    await page.goto('/devices');
    await page.waitForSelector('.share-address');
  });
  await picture('job-phone', { width: 390, height: 844 }, async (page) => {
    await open(page, /Open Fan and alternator/);
    await page.locator('.rail-now').click();
    await page.getByRole('button', { name: /^9\s*Job card/ }).click();
    await page.getByRole('button', { name: 'Start this job' }).click();
    await page.getByPlaceholder('Your name').first().fill('Ann');
    for (let k = 0; k < 7; k += 1) await page.getByRole('button', { name: 'Done, next step' }).click();
  });
  await together();
} finally {
  await browser.close();
  await server.stop();
  await database.close();
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
}
