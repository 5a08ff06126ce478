import { defineConfig } from '@playwright/test';
import { findProgram } from './scripts/lib/install.mjs';

export default defineConfig({
  testDir: 'e2e',
  outputDir: process.env['EMERY_TEST_RESULTS'] ?? 'test-results',
  timeout: 150_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: process.env['CI'] !== undefined,
  reporter: process.env['EMERY_TEST_REPORT']
    ? [['line'], ['json', { outputFile: process.env['EMERY_TEST_REPORT'] }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    // What was done and what it met. A film, or a copy of the page at every step, takes a fifth to a third of the
    // processors; the page as it stood at the failure is kept beside it all the same.
    trace: { mode: 'retain-on-failure', screenshots: false, snapshots: false, sources: false },
    launchOptions: {
      executablePath: findProgram('chromium') ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
