import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { buildInterface } from './lib/build.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { main, run } from './lib/run.mjs';

/**
 * npm test: lint, type check, Jest, Playwright, each run whatever the one before said, and at the end one line with the
 * sum. Lint and each type check count as one test each. What a run makes is under a name of its own, so that two runs
 * do not meet.
 */
await main(async () => {
  const started = Date.now();
  await ensureNpmPackages();
  await ensurePrograms([...DATABASE_PROGRAMS, 'chromium']);
  const own = path.join(STATE, 'test', `run-${process.pid}`);
  mkdirSync(own, { recursive: true });
  const sum = { passed: 0, failed: 0, skipped: 0 };
  const add = ({ passed, failed, skipped = 0 }) => {
    sum.passed += passed;
    sum.failed += failed;
    sum.skipped += skipped;
  };

  title('Lint');
  add(await check(bin('eslint'), ['.']));
  title('Form of the source');
  add(await check(bin('prettier'), ['--check', '.', '--log-level', 'warn']));
  for (const folder of ['core', 'server', 'web', 'cli', 'e2e', 'bench']) {
    title(`Type check ${folder}`);
    add(await check(bin('typescript', 'tsc'), ['-p', folder]));
  }
  title('Unit and server tests');
  add(await jest(path.join(own, 'jest.json')));
  await buildInterface();
  title('Browser tests');
  add(await playwright(path.join(own, 'playwright.json'), path.join(own, 'results')));

  if (sum.failed === 0) rmSync(own, { recursive: true, force: true });
  process.stdout.write(`\n${Math.round((Date.now() - started) / 1000)} s in all\n`);
  process.stdout.write(
    `${sum.passed} passed, ${sum.failed} failed${sum.skipped > 0 ? `, ${sum.skipped} skipped` : ''}\n`,
  );
  process.exitCode = sum.failed > 0 || sum.passed === 0 ? 1 : 0;
});

function title(text) {
  process.stdout.write(`\n== ${text}\n`);
}

function bin(name, command = name) {
  const { bin: bins } = JSON.parse(readFileSync(path.join(ROOT, 'node_modules', name, 'package.json'), 'utf8'));
  return path.join(ROOT, 'node_modules', name, typeof bins === 'string' ? bins : bins[command]);
}

async function check(program, args) {
  const { code } = await run(process.execPath, [program, ...args], { cwd: ROOT });
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function jest(report) {
  const { code } = await run(process.execPath, [bin('jest'), '--json', `--outputFile=${report}`, '--maxWorkers=2'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  return counted(
    code,
    report,
    ({ numPassedTests, numFailedTests, numPendingTests, numFailedTestSuites, numRuntimeErrorTestSuites }) => ({
      passed: numPassedTests,
      // A suite that could not even be loaded has no tests to count, and is a failure all the same.
      failed: Math.max(numFailedTests, numFailedTestSuites > 0 || numRuntimeErrorTestSuites > 0 ? 1 : 0),
      skipped: numPendingTests,
    }),
  );
}

async function playwright(report, results) {
  const { code } = await run(process.execPath, [bin('@playwright/test', 'playwright'), 'test'], {
    cwd: ROOT,
    env: { ...process.env, EMERY_TEST_REPORT: report, EMERY_TEST_RESULTS: results },
  });
  return counted(code, report, ({ stats }) => ({
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
    skipped: stats.skipped,
  }));
}

/** The runner's own count; a runner that failed without counting a failure is one. */
function counted(code, report, read) {
  try {
    const found = read(JSON.parse(readFileSync(report, 'utf8')));
    return code !== 0 && found.failed === 0 ? { ...found, failed: 1 } : found;
  } catch {
    return { passed: 0, failed: 1 };
  }
}
