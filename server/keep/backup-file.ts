import { createHash, randomBytes } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { DataSource } from 'typeorm';
import { checkBackup, openBackup } from './read-backup';
import { unsealed } from './seal';
import { KEEP, writeProblem } from './words';
import { type BackupOptions, writeBackup } from './write-backup';

export interface BackupMade {
  file: string;
  bytes: number;
  /** Of its parts before they were packed, bytes. */
  content: number;
}

/** A backup that was written and is not what was to be written. */
export class NotVerified extends Error {}

/**
 * Makes a backup at `file`: written beside it, read back and held against its checksums, and given its name only then.
 * Whatever goes wrong, a file that stood there before stands there still, and nothing else.
 */
export async function makeBackupFile(data: DataSource, file: string, options: BackupOptions = {}): Promise<BackupMade> {
  const part = `${file}.${randomBytes(4).toString('hex')}.part`;
  let content = 0;
  const onPart = (bytes: number) => {
    content += bytes;
    options.onPart?.(bytes);
  };
  try {
    // Nobody but whoever keeps the shop is to read it.
    const out = createWriteStream(part, { flags: 'wx', mode: 0o600, flush: true });
    const sum = await writeBackup(data, out, { ...options, onPart });
    await verify(part, sum, options.passphrase);
    options.signal?.throwIfAborted();
    const { size } = await stat(part);
    await rename(part, file);
    await syncFolder(path.dirname(file));
    return { file, bytes: size, content };
  } catch (error) {
    await rm(part, { force: true }).catch(() => undefined);
    throw writeProblem(error, file);
  }
}

/** Reads a backup back from the disk and holds it against what was written. */
async function verify(file: string, sum: string, passphrase: string | undefined): Promise<void> {
  if (passphrase === undefined) {
    const backup = await openBackup(file);
    try {
      await checkBackup(backup);
    } finally {
      backup.close();
    }
    return;
  }
  // Each piece has a mark of its own; all of them together are what was sealed.
  const hash = createHash('sha256');
  for await (const piece of await unsealed(createReadStream(file), passphrase)) hash.update(piece as Buffer);
  if (hash.digest('hex') !== sum) throw new NotVerified(KEEP.notVerified);
}

/** A name in a folder outlives a power cut once the folder itself is written. */
export async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder).catch(() => null);
  await handle?.sync().catch(() => undefined);
  await handle?.close();
}
