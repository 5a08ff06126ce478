import { mkdirSync, statSync } from 'node:fs';
import { access, constants, mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import type { DataSource } from 'typeorm';
import { thinPast } from '../drives/history';
import { invalid, Problem } from '../http/problem';
import { alone } from '../storage/alone';
import { makeBackupFile } from './backup-file';
import { takeSample } from './disk';
import { backupName, madeAt, thinned } from './thin';
import { BACKUPS, HEALTH } from './words';
import type { BackupAge, BackupListed, BackupState } from '@emery/core/api';
import { DAY_MS } from '@emery/core/quantity';

export interface BackupOptions {
  /** Where backups are made until the shop says another folder; none are made on a schedule without. */
  folder?: string | undefined;
  /** The folder of the shop itself, to tell whether both are on one disk. */
  shopFolder?: string | undefined;
  passphrase?: string | undefined;
}

const HOUR_MS = 3_600_000;
/** One is made once the last is so old; a shop that is open by day has one every day. */
const DUE_MS = 20 * HOUR_MS;
/** The last is called old from here on. */
const OLD_MS = 72 * HOUR_MS;
/** The first look after a start, and from one look to the next. */
const FIRST_MS = 2 * 60_000;
const LOOK_MS = 15 * 60_000;

const OPEN = new WeakMap<DataSource, Backups>();
export const backupsOf = (data: DataSource): Backups => {
  const backups = OPEN.get(data);
  if (!backups) throw new Error(BACKUPS.notOpen);
  return backups;
};

/** Makes a shop's backups: on a schedule, and when somebody asks. What is old is thinned with each that is made. */
export class Backups {
  private running: { passed: number; over: AbortController } | null = null;
  private problem: string | null = null;
  private readonly timers: NodeJS.Timeout[] = [];
  private stopped = false;

  constructor(
    private readonly data: DataSource,
    private readonly options: BackupOptions,
  ) {
    OPEN.set(data, this);
    this.timers.push(
      setTimeout(() => void this.look(), FIRST_MS).unref(),
      setInterval(() => void this.look(), LOOK_MS).unref(),
    );
  }

  stop(): void {
    this.stopped = true;
    for (const timer of this.timers) clearInterval(timer);
    this.running?.over.abort(new Error(BACKUPS.stopped));
  }

  /** What is done from time to time: a backup where one is due, history thinned, how full the disk is. */
  async look(now = Date.now()): Promise<void> {
    try {
      await takeSample(this.data, now);
      while (!this.stopped && (await thinPast(this.data, now)));
      const folder = await this.folder();
      if (folder === null || this.running) return;
      const isDue = async () => {
        const last = lastBy(await listed(folder), now);
        return last === null || now - last.getTime() >= DUE_MS;
      };
      if (await isDue()) await this.make(isDue);
    } catch {
      // The database or the disk is away; the next look finds out, and the page says so.
    }
  }

  async state(): Promise<BackupState<Date>> {
    const folder = await this.folder();
    const files = folder === null ? [] : await listed(folder).catch(() => []);
    return {
      folder,
      sameDisk: folder === null ? null : onOneDisk(folder, this.options.shopFolder),
      isSealed: this.options.passphrase !== undefined,
      files,
      ...ageOf(folder, files),
      passed: this.running?.passed ?? null,
      problem: this.problem,
    };
  }

  async age(): Promise<BackupAge<Date>> {
    const folder = await this.folder();
    return ageOf(folder, folder === null ? [] : await listed(folder).catch(() => []));
  }

  private async folder(): Promise<string | null> {
    const [row] = await this.data.query<{ folder: string | null }[]>('SELECT folder FROM keep_setting WHERE id = 1');
    return row?.folder ?? this.options.folder ?? null;
  }

  /** Another folder for the backups from here on; those made so far stay where they are. */
  async setFolder(folder: string): Promise<void> {
    if (!path.isAbsolute(folder)) throw refusedFolder(BACKUPS.absolute);
    const found = await stat(folder).catch(() => null);
    if (!found?.isDirectory()) throw refusedFolder(BACKUPS.noFolder);
    try {
      await access(folder, constants.W_OK);
      await rm(await mkdtemp(path.join(folder, '.emery-try-')), { recursive: true });
    } catch (error) {
      throw refusedFolder(BACKUPS.notWritable((error as NodeJS.ErrnoException).code ?? ''));
    }
    await this.data.query(
      'INSERT INTO keep_setting (id, folder) VALUES (1, ?) ON DUPLICATE KEY UPDATE folder = VALUES(folder)',
      [folder],
    );
    this.problem = null;
  }

  /** Begins one, and resolves once it is under way; how it goes is in the state. */
  async begin(): Promise<void> {
    const folder = await this.folder();
    if (folder === null) throw new Problem(409, BACKUPS.noFolderTitle, BACKUPS.noneChosen);
    if (!this.running) void this.make();
  }

  cancel(): void {
    this.running?.over.abort(new Error(BACKUPS.cancelled));
  }

  /**
   * Makes one now, and thins what has had its time. What goes wrong is kept for whoever looks. `wanted` is asked once
   * nobody else is at it: another server of this shop may just have made it.
   */
  async make(wanted: () => Promise<boolean> = () => Promise.resolve(true)): Promise<void> {
    if (this.running) return;
    const over = new AbortController();
    const running = { passed: 0, over };
    this.running = running;
    try {
      await alone(this.data, 'backup', async () => {
        const folder = await this.folder();
        if (folder === null || !(await wanted())) return;
        mkdirSync(folder, { recursive: true, mode: 0o700 });
        const { passphrase } = this.options;
        const file = path.join(folder, backupName(new Date(), passphrase !== undefined));
        const onPart = (bytes: number) => void (running.passed += bytes);
        await makeBackupFile(this.data, file, { passphrase, onPart, signal: over.signal });
        for (const name of thinned(await readdir(folder))) await rm(path.join(folder, name), { force: true });
        await removeCutOff(folder);
      });
      this.problem = null;
    } catch (error) {
      this.problem = (error as Error).message;
    } finally {
      this.running = null;
    }
  }

  /** The file of a backup by its name; null where there is none of it. */
  async file(name: string): Promise<string | null> {
    const folder = await this.folder();
    if (folder === null || madeAt(name) === null) return null;
    const file = path.join(folder, name);
    return (await stat(file).catch(() => null))?.isFile() ? file : null;
  }
}

const refusedFolder = (message: string) => invalid([{ path: 'folder', message }]);

/** The backups of a folder, the latest first. */
async function listed(folder: string): Promise<BackupListed<Date>[]> {
  const names = await readdir(folder).catch(() => []);
  const files: BackupListed<Date>[] = [];
  for (const name of names) {
    const at = madeAt(name);
    const found = at && (await stat(path.join(folder, name)).catch(() => null));
    if (at && found) files.push({ name, at, bytes: found.size });
  }
  return files.sort((a, b) => b.at.getTime() - a.at.getTime());
}

/** Halves of backups that were cut off, as by a power cut, once they are a day old. */
async function removeCutOff(folder: string): Promise<void> {
  for (const name of await readdir(folder)) {
    if (!/^emery-.*\.[0-9a-f]{8}\.part$/.test(name)) continue;
    const file = path.join(folder, name);
    const { mtimeMs } = await stat(file);
    if (mtimeMs < Date.now() - 24 * HOUR_MS) await rm(file, { force: true });
  }
}

/**
 * When the last was made, as far as the clock goes: one that is ahead of it was made while it was wrong, or it is wrong
 * now, and says nothing about how long ago anything was.
 */
function lastBy(files: readonly BackupListed<Date>[], now: number): Date | null {
  return files.find(({ at }) => at.getTime() <= now + HOUR_MS)?.at ?? null;
}

function ageOf(folder: string | null, files: readonly BackupListed<Date>[]): BackupAge<Date> {
  const lastAt = lastBy(files, Date.now());
  const age = folder === null || lastAt === null ? 0 : Date.now() - lastAt.getTime();
  const isOld = age > OLD_MS;
  return { lastAt, isOld, says: isOld ? HEALTH.backupOld(Math.floor(age / DAY_MS)) : null };
}

function onOneDisk(folder: string, shopFolder: string | undefined): boolean | null {
  if (shopFolder === undefined) return null;
  try {
    return statSync(folder).dev === statSync(shopFolder).dev;
  } catch {
    return null;
  }
}

/** So many backups of before an upgrade stay. */
const UPGRADES = 3;
const OF_UPGRADE = /^before-upgrade-\d{4}-\d\d-\d\dT\d\d-\d\d-\d\dZ\.zip(\.age)?$/;

/** The backup that is made before a shop is brought up to date. */
export async function backupBeforeUpgrade(data: DataSource, { folder, passphrase }: BackupOptions): Promise<void> {
  if (folder === undefined) return;
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const made = backupName(new Date(), passphrase !== undefined).replace(/^emery/, 'before-upgrade');
  await makeBackupFile(data, path.join(folder, made), { passphrase });
  const old = (await readdir(folder)).filter((name) => OF_UPGRADE.test(name)).sort();
  for (const name of old.slice(0, -UPGRADES)) await rm(path.join(folder, name), { force: true });
}
