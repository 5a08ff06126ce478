import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { buildInterface } from './lib/build.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { socketName, withLock } from './lib/lock.mjs';
import { main, run, SetupProblem } from './lib/run.mjs';

/** What there is to run, by the name that `npm test -- NAME` takes. */
const PARTS = {
  lint: () =>
    Promise.all([
      check('Lint', bin('eslint'), ['.']),
      check('Form of the source', bin('prettier'), ['--check', '.', '--log-level', 'warn']),
    ]),
  // What is built for the types is kept, so two runs side by side take turns at it.
  types: async () => [
    await withLock(
      socketName('types', ROOT),
      () => undefined,
      () => check('Types', bin('typescript', 'tsc'), ['-b']),
    ),
  ],
  unit: async (own) => [await jest(path.join(own, 'jest.json'))],
  browser: async (own) => {
    await buildInterface();
    return [await playwright(path.join(own, 'playwright.json'), path.join(own, 'results'))];
  },
};

/**
 * npm test: lint, types, Jest, Playwright, each run whatever the one before said, and at the end one line with the sum.
 * `npm test -- types unit` runs those parts alone. Lint, form and types count as one test each. What a run makes is
 * under a name of its own, so that two runs do not meet.
 */
await main(async () => {
  const started = Date.now();
  const asked = process.argv.slice(2);
  const unknown = asked.find((name) => !Object.hasOwn(PARTS, name));
  if (unknown !== undefined)
    throw new SetupProblem(`there is no part "${unknown}" of the tests; there are ${Object.keys(PARTS).join(', ')}`);
  const wanted = (name) => asked.length === 0 || asked.includes(name);
  await ensureNpmPackages();
  if (wanted('unit') || wanted('browser')) await ensurePrograms([...DATABASE_PROGRAMS, 'chromium']);
  const own = path.join(STATE, 'test', `run-${process.pid}`);
  mkdirSync(own, { recursive: true });

  // Lint and types each keep one processor busy, and read the same files.
  const still = await Promise.all(['lint', 'types'].filter(wanted).map((name) => PARTS[name](own)));
  const heavy = [];
  for (const name of ['unit', 'browser'].filter(wanted)) heavy.push(...(await PARTS[name](own)));
  const sum = { passed: 0, failed: 0, skipped: 0 };
  for (const { passed, failed, skipped = 0 } of [...still.flat(), ...heavy]) {
    sum.passed += passed;
    sum.failed += failed;
    sum.skipped += skipped;
  }

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

/** One program whose exit code says all; what it prints comes in one piece, for others may be printing too. */
async function check(name, program, args) {
  const from = Date.now();
  const { code, output } = await run(process.execPath, [program, ...args], { cwd: ROOT, quiet: true });
  title(`${name}, ${Math.round((Date.now() - from) / 1000)} s`);
  if (output.trim() !== '') process.stdout.write(`${output.trim()}\n`);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

async function jest(report) {
  title('Unit and server tests');
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
  title('Browser tests');
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
