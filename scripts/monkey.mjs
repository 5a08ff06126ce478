import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildInterface } from './lib/build.mjs';
import { openDatabase } from './lib/database.mjs';
import { DATABASE_PROGRAMS, ensureBrowser, ensureNpmPackages, ensurePrograms, findBrowser } from './lib/install.mjs';
import { letLoose } from './lib/monkey.mjs';
import { main, SetupProblem } from './lib/run.mjs';
import { startServer } from './lib/serve.mjs';

/**
 * npm run monkey -- SEED MINUTES: uses a demo shop of its own at random for so long, the same way for the same seed,
 * and says what went wrong.
 */
await main(async () => {
  const [seed, minutes] = process.argv.slice(2).map(Number);
  if (!Number.isInteger(seed) || !(minutes > 0))
    throw new SetupProblem('say a seed, a whole number, and how many minutes: npm run monkey -- 7 5');
  await ensureNpmPackages();
  await ensurePrograms(DATABASE_PROGRAMS);
  await ensureBrowser();
  const { chromium } = await import('@playwright/test');
  const folder = mkdtempSync(path.join(tmpdir(), 'emery-monkey-'));
  const database = await openDatabase(folder);
  const server = await startServer({ databaseUrl: database.url('emery'), webFolder: await buildInterface() });
  const browser = await chromium.launch({
    executablePath: findBrowser(),
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  try {
    const base = `http://127.0.0.1:${server.port}`;
    const answer = await fetch(`${base}/api/vehicles?search=&limit=30&offset=0`);
    const { vehicles } = await answer.json();
    const drives = vehicles.flatMap((vehicle) => vehicle.drives.map(({ id }) => id));
    const starts = ['/', '/counter', '/belts', '/records/due', ...drives.map((id) => `/drives/${id}`)].map(
      (address) => `${base}${address}`,
    );
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    const { count, faults } = await letLoose(page, { seed, starts, forMs: minutes * 60_000 });
    process.stdout.write(`${faults.join('\n')}${faults.length > 0 ? '\n' : ''}`);
    process.stdout.write(`${count} actions with seed ${seed}, ${faults.length} faults\n`);
    if (faults.length > 0) process.exitCode = 1;
  } finally {
    await browser.close();
    await server.stop();
    await database.close();
    rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
  }
});
