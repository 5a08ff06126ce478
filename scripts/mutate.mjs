import { spawnSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { openDatabase } from './lib/database.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './lib/install.mjs';
import { placesOf, withMutants } from './lib/mutants.mjs';
import { ROOT, STATE } from './lib/paths.mjs';
import { main, run, SetupProblem } from './lib/run.mjs';

/** Not counted: what no unit test starts (the browser tests do), and what fills a shop for the benchmarks. */
const LET_BE = [
  /\.test\.tsx?$/,
  /(^|\/)test\//,
  /\/main\.tsx?$/,
  /\/worker\.ts$/,
  /^server\/shop\/(seed|fill-shop)\.ts$/,
];
/** What the first tests of a change may take before the others are begun, and what all of them may, s. */
const FIRST_S = 12;
const ALL_S = 40;
/** Whose tests are asked about a change in which folder. */
const SEEN_BY = { core: ['core', 'cli'], cli: ['cli'], server: ['server'], web: ['web'] };
/** The tests that see most, whatever is changed: they come after those of its own folder. */
const BROAD = ['cli/words.test.ts', 'cli/bent.test.ts', 'cli/answers.test.ts'];

/**
 * npm run mutate -- FOLDER…: breaks places of the source one at a time and says which changes no unit test notices.
 * `--count N` places, 40 unless said; `--seed N` takes others. The places are chosen by line, so that a long table
 * weighs at most the sums beside it; the tests are run in a copy, with all changes in it and one switched on.
 */
await main(async () => {
  const { folders, count, seed } = readOptions();
  await ensureNpmPackages();
  await ensurePrograms(DATABASE_PROGRAMS);
  const own = path.join(STATE, 'mutate', `run-${process.pid}`);
  const tree = path.join(own, 'tree');
  copyTree(tree);
  const mutants = choose(tree, folders, count, seed);
  const database = await openDatabase(path.join(own, 'database'));
  try {
    const env = { ...process.env, CI: 'true', EMERY_MUTANTS: '1', EMERY_TEST_DATABASE: database.url('') };
    const tests = await reach(tree, own, mutants, env);
    const waiting = [...mutants];
    const lane = async () => {
      for (let mutant = waiting.shift(); mutant; mutant = waiting.shift()) {
        mutant.caught = await caught(tree, mutant, tests, env);
        const { number, file, line, original, mutated } = mutant;
        process.stdout.write(
          `${number + 1}/${mutants.length} ${mutant.caught ? 'caught' : 'LIVED '} ${file}:${line}  ${short(original)}  ->  ${short(mutated)}\n`,
        );
      }
    };
    await Promise.all(Array.from({ length: os.availableParallelism() }, lane));
  } finally {
    await database.close();
    rmSync(own, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
  }
  report(mutants, seed);
});

function readOptions() {
  let read;
  try {
    read = parseArgs({
      options: { count: { type: 'string', default: '40' }, seed: { type: 'string', default: '1' } },
      allowPositionals: true,
    });
  } catch (error) {
    throw new SetupProblem(`${error.message} Known are --count N and --seed N.`);
  }
  const folders = read.positionals.map((name) => path.normalize(name).replace(/\/$/, ''));
  if (folders.length === 0)
    throw new SetupProblem(
      'say which folder: npm run mutate -- core/tension, or several: npm run mutate -- core server',
    );
  for (const name of folders)
    if (path.isAbsolute(name) || !existsSync(path.join(ROOT, name)))
      throw new SetupProblem(`there is no folder or file ${name} in the project`);
  const whole = (name, least) => {
    const value = Number(read.values[name]);
    if (!Number.isInteger(value) || value < least)
      throw new SetupProblem(`--${name} must be a whole number from ${least}, not ${read.values[name]}`);
    return value;
  };
  return { folders, count: whole('count', 1), seed: whole('seed', 0) };
}

function listed() {
  const { stdout } = spawnSync('git', ['ls-files', '-co', '--exclude-standard', '-z'], { cwd: ROOT, encoding: 'utf8' });
  return stdout.split('\0').filter((name) => name !== '' && existsSync(path.join(ROOT, name)));
}

/** The project unchanged; its packages are linked, but for our own, which are those of the copy. */
function copyTree(tree) {
  for (const name of listed()) {
    mkdirSync(path.dirname(path.join(tree, name)), { recursive: true });
    copyFileSync(path.join(ROOT, name), path.join(tree, name));
  }
  for (const place of ['.', 'core', 'server', 'web', 'cli']) {
    const [from, to] = [path.join(ROOT, place, 'node_modules'), path.join(tree, place, 'node_modules')];
    if (!existsSync(from)) continue;
    mkdirSync(to);
    for (const name of readdirSync(from))
      if (name !== '@emery') symlinkSync(path.join(from, name), path.join(to, name));
  }
  const ours = path.join(tree, 'node_modules', '@emery');
  mkdirSync(ours);
  for (const name of ['core', 'server', 'web', 'cli']) symlinkSync(path.join(tree, name), path.join(ours, name));
}

/** Chooses lines by chance and one place in each, and writes the changes into the copy. */
function choose(tree, folders, count, seed) {
  const next = chance(seed);
  const pick = (below) => Math.floor(next() * below);
  const files = listed().filter(
    (name) =>
      /\.tsx?$/.test(name) &&
      folders.some((folder) => name === folder || name.startsWith(`${folder}/`)) &&
      !LET_BE.some((pattern) => pattern.test(name)),
  );
  const lines = files.flatMap((file) => {
    const text = readFileSync(path.join(ROOT, file), 'utf8');
    return [...grouped(placesOf(file, text, pick), 'line').values()].map((places) => ({ file, text, places }));
  });
  const chosen = [];
  while (chosen.length < count && lines.length > 0) {
    const [{ file, text, places }] = lines.splice(pick(lines.length), 1);
    const place = places[pick(places.length)];
    // Of two places one inside the other, the text of the outer would hold the switch of the inner.
    if (chosen.some((other) => other.file === file && other.from < place.to && place.from < other.to)) continue;
    chosen.push({ ...place, file, number: chosen.length, original: text.slice(place.from, place.to) });
  }
  for (const [file, places] of grouped(chosen, 'file'))
    writeFileSync(path.join(tree, file), withMutants(readFileSync(path.join(ROOT, file), 'utf8'), places));
  return chosen;
}

function grouped(items, by) {
  const groups = new Map();
  for (const item of items) groups.set(item[by], [...(groups.get(item[by]) ?? []), item]);
  return groups;
}

/** Runs the tests once without a change: which of them come by which place, and how long each file takes. */
async function reach(tree, own, mutants, env) {
  const [folder, out] = [path.join(own, 'reach'), path.join(own, 'jest.json')];
  const projects = [...new Set(mutants.flatMap(({ file }) => SEEN_BY[file.split('/')[0]] ?? []))];
  process.stdout.write(`${mutants.length} places; first the tests of ${projects.join(', ')} without a change …\n`);
  const { code, output } = await jest(tree, ['--json', `--outputFile=${out}`, '--selectProjects', ...projects], {
    ...env,
    EMERY_REACH: folder,
  });
  if (code !== 0) throw new SetupProblem(`the tests fail without a change:\n${output.slice(-4000)}`);
  const took = new Map(
    JSON.parse(readFileSync(out, 'utf8')).testResults.map(({ name, startTime, endTime }) => [
      name,
      (endTime - startTime) / 1000,
    ]),
  );
  return readdirSync(folder).map((name) => {
    const { file, reached } = JSON.parse(readFileSync(path.join(folder, name), 'utf8'));
    return { file, reached: new Set(reached), seconds: took.get(file) ?? 1 };
  });
}

/**
 * True where a test fails, or does not end, with the change made: those of its own folder first, then the broad ones,
 * then the quickest, as many as `ALL_S` has room for.
 */
async function caught(tree, { number, file }, tests, env) {
  const beside = path.join(tree, path.dirname(file)) + path.sep;
  const rank = (test) =>
    test.file.startsWith(beside) ? 0 : BROAD.some((name) => test.file.endsWith(`/${name}`)) ? 1 : 2;
  let left = ALL_S;
  const inTurn = tests
    .filter(({ reached }) => reached.has(number))
    .sort((a, b) => rank(a) - rank(b) || a.seconds - b.seconds)
    .filter(({ seconds }) => (left -= seconds) > 0 || left + seconds === ALL_S);
  while (inTurn.length > 0) {
    const some = [inTurn.shift()];
    const takes = () => some.reduce((sum, { seconds }) => sum + seconds, 0);
    while (inTurn.length > 0 && takes() + inTurn[0].seconds < FIRST_S) some.push(inTurn.shift());
    const args = ['-i', '--bail', '--runTestsByPath', ...some.map((test) => test.file)];
    const limit = AbortSignal.timeout(Math.round((30 + 5 * takes()) * 1000));
    const { code } = await jest(tree, args, { ...env, EMERY_MUTANT: String(number) }, limit);
    if (code !== 0) return true;
  }
  return false;
}

function jest(tree, args, env, signal) {
  const program = path.join(ROOT, 'node_modules', 'jest', 'bin', 'jest.js');
  return run(process.execPath, [program, ...args], {
    cwd: tree,
    quiet: true,
    env,
    ...(signal && { signal, killSignal: 'SIGKILL' }),
  });
}

function report(mutants, seed) {
  const folderOf = ({ file }) =>
    file
      .split('/')
      .slice(0, file.split('/').length > 2 ? 2 : 1)
      .join('/');
  const rows = [
    ...grouped(
      mutants.map((mutant) => ({ ...mutant, folder: folderOf(mutant) })),
      'folder',
    ),
  ].sort(([a], [b]) => a.localeCompare(b));
  const line = (name, some) => {
    const right = some.filter((mutant) => mutant.caught).length;
    return `${name.padEnd(24)}${String(right).padStart(4)} of ${String(some.length).padStart(3)}   ${Math.round((100 * right) / some.length)} %\n`;
  };
  process.stdout.write(`\nCaught, of ${mutants.length} places with seed ${seed}:\n`);
  for (const [name, some] of rows) process.stdout.write(line(name, some));
  process.stdout.write(line('all', mutants));
}

function short(text) {
  return text.replace(/\s+/g, ' ').slice(0, 90);
}

/** Numbers from 0 to 1 by chance, the same at every run (mulberry32). */
function chance(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}
