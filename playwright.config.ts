import os from 'node:os';
import { defineConfig } from '@playwright/test';
import { findBrowser } from './scripts/lib/install.mjs';

export default defineConfig({
  testDir: 'e2e',
  outputDir: process.env['EMERY_TEST_RESULTS'] ?? 'test-results',
  timeout: 150_000,
  expect: { timeout: 20_000 },
  workers: os.availableParallelism(),
  fullyParallel: true,
  forbidOnly: process.env['CI'] !== undefined,
  reporter: process.env['EMERY_TEST_REPORT']
    ? [['line'], ['json', { outputFile: process.env['EMERY_TEST_REPORT'] }]]
    : [['list']],
  // One after the other in one worker, which is not to begin with them when the others have ended.
  projects: [
    { name: 'start command', testMatch: 'start-command.spec.ts' },
    { name: 'interface', testIgnore: 'start-command.spec.ts' },
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    // A page of a test asks its own server for everything; offline.spec.ts says otherwise.
    serviceWorkers: 'block',
    // What was done and what it met. A film, or a copy of the page at every step, takes a fifth to a third of the
    // processors; the page as it stood at the failure is kept beside it all the same.
    trace: { mode: 'retain-on-failure', screenshots: false, snapshots: false, sources: false },
    launchOptions: {
      executablePath: findBrowser() ?? '/usr/bin/chromium',
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
