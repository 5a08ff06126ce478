import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { buildInterface, buildServer, buildTestShops } from './lib/build.mjs';
import { failure, failuresOfJest, failuresOfPlaywright } from './lib/failures.mjs';
import { ensureBrowser, ensureNpmPackages, ensurePrograms, TEST_PROGRAMS } from './lib/install.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { socketName, withLock } from './lib/lock.mjs';
import { main, run, SetupProblem } from './lib/run.mjs';

/** What Prettier found out before. Of lint nothing is kept: it asks other files for their types. */
const CACHE = path.join(STATE, 'test-cache');

/** What there is to run, by the name that `npm test -- NAME` takes. Each tells how many passed and failed. */
const PARTS = {
  form: () =>
    check('Form of the source', bin('prettier'), [
      ...['--check', '.', '--log-level', 'warn'],
      ...['--cache', '--cache-strategy', 'content', '--cache-location', path.join(CACHE, 'prettier')],
    ]),
  lint: () => check('Lint', bin('eslint'), ['.']),
  // What is built for the types is kept, so two runs side by side take turns at it.
  types: () =>
    withLock(
      socketName('types', ROOT),
      () => undefined,
      () => check('Types', bin('typescript', 'tsc'), ['-b']),
    ),
  unit: (own) => jest(path.join(own, 'jest.json')),
  browser: (own) => playwright(path.join(own, 'playwright.json'), path.join(own, 'results')),
};

/**
 * npm test: form, lint, types, Jest, Playwright, each run whatever the one before said. What failed stands once more
 * at the end, as of a long log often only the end is kept, and the last line is the sum. `npm test -- types unit` runs
 * those parts alone; with --thorough the tests that draw or try at random draw and try all they have, where they take
 * an eighth otherwise. Form, lint and types count as one test each. What a run makes is under a name of its own, so
 * that two runs do not meet.
 */
await main(async () => {
  const started = Date.now();
  const { asked, thorough } = readOptions();
  if (thorough) process.env.EMERY_THOROUGH = '1';
  const wanted = (name) => asked.length === 0 || asked.includes(name);
  await ensureNpmPackages();
  if (wanted('unit') || wanted('browser')) await ensurePrograms(TEST_PROGRAMS);
  if (wanted('browser')) await ensureBrowser();
  const own = path.join(STATE, 'test', `run-${process.pid}`);
  mkdirSync(own, { recursive: true });

  const runAll = async (...names) => {
    const found = [];
    for (const name of names.filter(wanted)) found.push(await PARTS[name](own));
    return found;
  };
  // What reads the source keeps one processor busy and goes on beside Jest, which waits for its database now and then;
  // the browser tests, which have a person's patience, have the machine to themselves.
  const [still, units] = await Promise.all([
    runAll('form', 'lint', 'types'),
    runAll('unit'),
    wanted('browser') && Promise.all([buildInterface(), buildServer(), buildTestShops()]),
  ]);
  const sum = { passed: 0, failed: 0, skipped: 0, failures: [] };
  for (const { passed, failed, skipped = 0, failures = [] } of [...still, ...units, ...(await runAll('browser'))]) {
    sum.passed += passed;
    sum.failed += failed;
    sum.skipped += skipped;
    sum.failures.push(...failures);
  }

  if (sum.failed === 0) rmSync(own, { recursive: true, force: true });
  if (sum.failures.length > 0) {
    title('What failed');
    process.stdout.write(`${sum.failures.join('\n').replaceAll(`${ROOT}${path.sep}`, '')}\n`);
  }
  process.stdout.write(`\n${seconds(started)} s in all\n`);
  process.stdout.write(
    `${sum.passed} passed, ${sum.failed} failed${sum.skipped > 0 ? `, ${sum.skipped} skipped` : ''}\n`,
  );
  process.exitCode = sum.failed > 0 || sum.passed === 0 ? 1 : 0;
});

function readOptions() {
  let read;
  try {
    read = parseArgs({ options: { thorough: { type: 'boolean', default: false } }, allowPositionals: true });
  } catch (error) {
    throw new SetupProblem(`${error.message} Known are --thorough and the parts ${Object.keys(PARTS).join(', ')}.`);
  }
  const { positionals: asked, values } = read;
  const unknown = asked.find((name) => !Object.hasOwn(PARTS, name));
  if (unknown !== undefined)
    throw new SetupProblem(`there is no part "${unknown}" of the tests; there are ${Object.keys(PARTS).join(', ')}`);
  return { asked, thorough: values.thorough };
}

function seconds(from) {
  return Math.round((Date.now() - from) / 1000);
}

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
  title(`${name}, ${seconds(from)} s`);
  if (output.trim() !== '') process.stdout.write(`${output.trim()}\n`);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1, failures: [failure([name], output)] };
}

async function jest(report) {
  const from = Date.now();
  const { code } = await run(process.execPath, [bin('jest'), '--json', `--outputFile=${report}`, '--maxWorkers=2'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  title(`Unit and server tests, ${seconds(from)} s`);
  return counted(code, report, (found) => ({
    passed: found.numPassedTests,
    // A suite that could not even be loaded has no tests to count, and is a failure all the same.
    failed: Math.max(
      found.numFailedTests,
      found.numFailedTestSuites > 0 || found.numRuntimeErrorTestSuites > 0 ? 1 : 0,
    ),
    skipped: found.numPendingTests,
    failures: failuresOfJest(found),
  }));
}

async function playwright(report, results) {
  const from = Date.now();
  const { code } = await run(process.execPath, [bin('@playwright/test', 'playwright'), 'test'], {
    cwd: ROOT,
    env: { ...process.env, EMERY_TEST_REPORT: report, EMERY_TEST_RESULTS: results },
  });
  title(`Browser tests, ${seconds(from)} s`);
  return counted(code, report, (found) => ({
    passed: found.stats.expected,
    failed: found.stats.unexpected + found.stats.flaky,
    skipped: found.stats.skipped,
    failures: failuresOfPlaywright(found),
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
