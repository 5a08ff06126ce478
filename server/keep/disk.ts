import { statfs } from 'node:fs/promises';
import type { DataSource } from 'typeorm';
import { isLoopback } from '../storage/database-address';
import type { DiskState } from '@emery/core/api';
import { DAY_MS, utcDay } from '@emery/core/quantity';

/** Days that are looked back on. */
const LOOKED_BACK = 60;
/** Fewer days than these say nothing about what comes. */
const FEWEST_DAYS = 5;
/** Further ahead nobody plans. */
const MOST_AHEAD = 3650;

/** What the shop takes, by the database's own account, bytes. */
export async function shopBytes(data: DataSource): Promise<number> {
  const [row] = await data.query<{ bytes: string | null }[]>(
    'SELECT SUM(DATA_LENGTH + INDEX_LENGTH) AS bytes FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE()',
  );
  return Number(row?.bytes ?? 0);
}

/** The disk that the database is on; null where that is another machine's. */
async function diskOf(data: DataSource): Promise<{ freeBytes: number; totalBytes: number } | null> {
  if (!isLoopback(data)) return null;
  const [row] = await data.query<{ folder: string }[]>('SELECT @@datadir AS folder');
  const found = await statfs(row?.folder ?? '/').catch(() => null);
  // What is left to somebody who is not root.
  return found && { freeBytes: found.bavail * found.bsize, totalBytes: found.blocks * found.bsize };
}

/** Puts down once a day how full the disk is. */
export async function takeSample(data: DataSource, now: number): Promise<void> {
  const disk = await diskOf(data);
  if (!disk) return;
  const bytes = await shopBytes(data);
  await data.query(
    'INSERT INTO keep_sample (day, freeBytes, shopBytes) VALUES (?) ON DUPLICATE KEY UPDATE day = VALUES(day)',
    [[utcDay(now), Math.round(disk.freeBytes), Math.round(bytes)]],
  );
  await data.query('DELETE FROM keep_sample WHERE day < ?', [utcDay(now - 400 * DAY_MS)]);
}

/** How full the disk is, and when it will be full. */
export async function diskState(data: DataSource, now = Date.now()): Promise<DiskState | null> {
  const disk = await diskOf(data);
  if (!disk) return null;
  const rows = await data.query<{ day: string; freeBytes: string }[]>(
    'SELECT day, freeBytes FROM keep_sample WHERE day > ? AND day <= ? ORDER BY day',
    [utcDay(now - LOOKED_BACK * DAY_MS), utcDay(now)],
  );
  const samples = rows.map(({ day, freeBytes }) => ({ at: Date.parse(day) / DAY_MS, free: Number(freeBytes) }));
  return { ...disk, fullOn: fullOn(samples, disk.freeBytes, now) };
}

/**
 * The day on which a disk is full that goes on filling as the line through its samples (days since 1970 and bytes free,
 * least squares) does; null where that does not fall, is of too few days, or is too far ahead to plan for.
 */
export function fullOn(samples: readonly { at: number; free: number }[], freeNow: number, now: number): string | null {
  const [first, last] = [samples[0], samples.at(-1)];
  if (!first || !last || last.at - first.at < FEWEST_DAYS) return null;
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const at = mean(samples.map((sample) => sample.at));
  const free = mean(samples.map((sample) => sample.free));
  const products = samples.map((sample) => (sample.at - at) * (sample.free - free));
  const perDay = mean(products) / mean(samples.map((sample) => (sample.at - at) ** 2));
  const days = freeNow / -perDay;
  return perDay < 0 && days < MOST_AHEAD ? utcDay(now + days * DAY_MS) : null;
}
