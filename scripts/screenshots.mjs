import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium } from '@playwright/test';
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
  await picture('bench-route', wide, async (page) => {
    await open(page, /Open Front drive of Rescue/);
    await page.locator('[data-station="alt"]').click();
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
  await picture('bench-phone', { width: 390, height: 844 }, (page) => open(page, /Open Blower drive/));
} finally {
  await browser.close();
  await server.stop();
  await database.close();
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
}
