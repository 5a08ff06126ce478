import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import path from 'node:path';
import type { DataSource } from 'typeorm';
import { openUnchanged, openUpToDate } from '../data-source';
import { makeBackupFile } from './backup-file';
import { doctor } from './doctor';
import { fetchInto, type Fetched } from './fetch-one';
import { loadBackup } from './load-backup';
import type { BackupHead } from './labels';
import { BackupProblem, checkBackup, isSealed, openBackup, type OpenBackup, unsealInto } from './read-backup';
import { KEEP, writeProblem } from './words';
import { headOf } from './write-backup';
import { bytesText } from '@emery/core/quantity';

/*
 * Backup, restore and doctor at the terminal. Started by their scripts, which say by environment what is to be done,
 * hear by message how far it is and what came of it, and end it by closing the channel.
 */
export interface KeepTask {
  task: 'backup' | 'count' | 'check' | 'load' | 'fetch' | 'doctor';
  file?: string;
  /** For files on the way, on the disk that the shop is on. */
  scratch?: string;
  kind?: 'drive' | 'vehicle' | 'job';
  what?: string;
  mend?: boolean;
}

const { EMERY_DATABASE_URL: url = '', EMERY_KEEP_TASK: asked = '{}', EMERY_BACKUP_PASSPHRASE: given } = process.env;
const task = JSON.parse(asked) as KeepTask;
const passphrase = given || undefined;
const over = new AbortController();
process.on('disconnect', () => over.abort(new Error(KEEP.stopped)));
for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const)
  process.on(signal, () => over.abort(new Error(KEEP.stopped)));

let passed = 0;
let toldAt = 0;
/** How far it is, a few times a second. */
function onPart(bytes: number): void {
  passed += bytes;
  if (Date.now() - toldAt < 300) return;
  toldAt = Date.now();
  process.send?.({ passed: bytesText(passed) });
}

try {
  const result = await run(task);
  await new Promise((done) => (process.send ? process.send({ result }, done) : done(null)));
  process.exit(0);
} catch (error) {
  process.stderr.write(lineOf(error));
  process.exit(1);
}

/** A line for the person at the terminal; a fault of Emery's own with where it was. */
function lineOf(error: unknown): string {
  const { message, stack, code } = error as Error & { code?: string };
  const own =
    !(error instanceof BackupProblem) && code === undefined && /^(Type|Range|Reference)Error/.test(stack ?? '');
  return own ? (stack ?? message) : message;
}

async function run({ task: what, file = '', scratch = '', kind, what: wanted = '', mend = false }: KeepTask) {
  switch (what) {
    case 'backup':
      return withShop(async (data) => {
        const { bytes } = await makeBackupFile(data, file, { passphrase, onPart, signal: over.signal });
        return { size: bytesText(bytes) };
      });
    case 'count':
      return withShop(async (data) => lookAt(await headOf(data.manager)));
    case 'check':
      return withBackup(file, scratch, async (backup) => {
        await checkBackup(backup, onPart);
        return lookAt(backup.head);
      });
    case 'load':
      return withBackup(file, scratch, async (backup) => {
        await checkBackup(backup, onPart);
        await loadBackup(backup, url, { onPart, signal: over.signal });
        return lookAt(backup.head);
      });
    case 'fetch':
      return withBackup(file, scratch, async (backup): Promise<Fetched> => {
        await checkBackup(backup, onPart);
        return withShop((into) => fetchInto(backup, into, url, { kind: kind ?? 'drive', wanted }), openUpToDate);
      });
    case 'doctor':
      return withShop((data) => doctor(data, { mend, onPart }), openUpToDate);
  }
}

async function withShop<T>(work: (data: DataSource) => Promise<T>, open = openUnchanged): Promise<T> {
  const data = await open(url);
  try {
    return await work(data);
  } finally {
    await data.destroy();
  }
}

/** What a backup holds, in the words of whoever looks at it. */
export interface BackupLook {
  shop: string;
  emery: string;
  writtenAt: string;
  rows: Record<string, number>;
}

function lookAt({ shop, emery, writtenAt, tables }: BackupHead): BackupLook {
  return { shop, emery, writtenAt, rows: Object.fromEntries(tables.map(({ name, rows }) => [name, rows])) };
}

/** Opens a backup, sealed or not, for as long as the work takes. */
async function withBackup<T>(file: string, scratch: string, work: (backup: OpenBackup) => Promise<T>): Promise<T> {
  if (!existsSync(file)) throw new BackupProblem(KEEP.notThere(file));
  if (!(await isSealed(file))) return opened(file, work);
  if (passphrase === undefined) throw new BackupProblem(KEEP.sealedOnly);
  const folder = await mkdtemp(path.join(scratch, 'unsealed-'));
  try {
    const plain = path.join(folder, `${createHash('sha256').update(file).digest('hex').slice(0, 12)}.zip`);
    await unsealInto(file, passphrase, plain).catch((error: unknown) => {
      throw writeProblem(error, plain);
    });
    return await opened(plain, work);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function opened<T>(file: string, work: (backup: OpenBackup) => Promise<T>): Promise<T> {
  const backup = await openBackup(file);
  try {
    return await work(backup);
  } finally {
    backup.close();
  }
}
