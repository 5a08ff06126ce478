import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { createInterface } from 'node:readline/promises';
import { parseArgs } from 'node:util';
import { buildKeep } from './build.mjs';
import { databaseRestored, openDatabase, shopIsThere } from './database.mjs';
import { DATABASE_PROGRAMS, ensureNpmPackages, ensurePrograms } from './install.mjs';
import { ensureState, ROOT, STATE } from './paths.mjs';
import { SetupProblem } from './run.mjs';

/** Reads what a command was given; whatever it does not know is said with what it knows. */
export function readArguments(options, usage) {
  try {
    const { values, positionals } = parseArgs({
      options: { 'passphrase-file': { type: 'string' }, ...options },
      allowPositionals: true,
    });
    return { values, positionals };
  } catch (error) {
    throw new SetupProblem(`${error.message.split('\n')[0]} ${usage}`);
  }
}

/** npm runs a script in the project; a file is named from where the user stands. */
export const fromHere = (file) => path.resolve(process.env.INIT_CWD ?? process.cwd(), file);

/** What is missing is installed, the state folder is there, and a restore that was cut off at its end is ended. */
export async function ready() {
  ensureState();
  await ensureNpmPackages();
  if (!process.env.EMERY_DATABASE_URL) await ensurePrograms(DATABASE_PROGRAMS);
  await databaseRestored();
}

/** Runs `work` with the address of the shop's database. */
export async function withShopDatabase(work) {
  const given = process.env.EMERY_DATABASE_URL;
  if (given) return work(given);
  if (!shopIsThere()) throw new SetupProblem(`there is no shop in ${STATE} yet: npm start makes one.`);
  const database = await openDatabase();
  try {
    return await work(database.url('emery'));
  } finally {
    await database.close();
  }
}

/** The passphrase of a file that is named, of EMERY_BACKUP_PASSPHRASE, or as it is typed where `ask`; else none. */
export async function passphraseOf(file, { ask = false, twice = false } = {}) {
  if (file !== undefined) {
    let text;
    try {
      text = readFileSync(fromHere(file), 'utf8').split(/\r?\n/)[0];
    } catch (error) {
      throw new SetupProblem(`the file of the passphrase, ${file}, cannot be read (${error.code}).`);
    }
    if (!text) throw new SetupProblem(`the file of the passphrase, ${file}, is empty.`);
    return text;
  }
  if (process.env.EMERY_BACKUP_PASSPHRASE) return process.env.EMERY_BACKUP_PASSPHRASE;
  if (!ask || !process.stdin.isTTY) return undefined;
  const first = await typed('Passphrase: ');
  if (twice && (await typed('The same again: ')) !== first) throw new SetupProblem('these are two passphrases.');
  return first || undefined;
}

/** A line that is typed and not shown. */
async function typed(question) {
  const reader = createInterface({ input: process.stdin, output: process.stderr, terminal: true });
  process.stderr.write(question);
  const write = process.stderr.write;
  process.stderr.write = () => true;
  try {
    return await reader.question('');
  } finally {
    process.stderr.write = write;
    process.stderr.write('\n');
    reader.close();
  }
}

/** Runs one task of the server's program, tells how far it is, and resolves with what came of it. */
export async function runKeep(task, { url = '', passphrase, title }) {
  const file = await buildKeep();
  const started = Date.now();
  let told = started;
  const child = spawn(process.execPath, [file], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    env: {
      ...process.env,
      EMERY_DATABASE_URL: url,
      EMERY_KEEP_TASK: JSON.stringify({ ...task, scratch: STATE }),
      EMERY_BACKUP_PASSPHRASE: passphrase ?? '',
    },
  });
  // Ctrl+C reaches the program as well: it takes away what it began, and its end is waited for.
  const ignore = () => undefined;
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, ignore);
  let complaint = '';
  let result;
  child.stderr.on('data', (data) => (complaint = (complaint + data).slice(-8000)));
  child.on('message', (message) => {
    if ('result' in message) result = message.result;
    if (message.passed === undefined || Date.now() - told < 5000) return;
    told = Date.now();
    process.stderr.write(`${title}, ${message.passed}, ${Math.round((told - started) / 1000)} s …\n`);
  });
  const code = await new Promise((resolve) => child.once('exit', (exit, signal) => resolve(signal ?? exit)));
  for (const signal of ['SIGINT', 'SIGTERM']) process.off(signal, ignore);
  if (code === 0 && result !== undefined) return result;
  throw new SetupProblem(complaint.trim() || `it ended by itself (${code}); nothing was changed`);
}
