import type { DataSource, EntityManager } from 'typeorm';
import { notFound } from '../http/problem';
import { readLimits, withShopLimits } from './shop-limits';
import type { PastOpened, PastPage } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';
import { DAY_MS, utcDay } from '@emery/core/quantity';

/** Every version is kept for so many days, and the last of each day after. */
export const EVERY_DAYS = 90;
/** Of one drive so many versions at most are kept whole each by itself: beyond, the last of each day. */
const MOST_OF_ONE = 1000;
/** Versions listed at a time, and looked through at a time. */
const PAGE = 60;
const PIECE = 500;

interface Row {
  revision: number;
  at: Date;
  savedBy: string;
}

/** The versions of a drive that are kept, the latest first; those before a revision where one is said. */
export async function pastOf(manager: EntityManager, id: string, before: number | null): Promise<PastPage<Date>> {
  const rows = await manager.query<Row[]>(
    `SELECT revision, at, savedBy FROM drive_version
     WHERE driveId = ? AND revision < ? AND past IS NOT NULL ORDER BY revision DESC LIMIT ${PAGE + 1}`,
    [id, before ?? 2 ** 31 - 1],
  );
  return {
    versions: rows.slice(0, PAGE).map(({ revision, at, savedBy: by }) => ({ revision, at, by })),
    more: rows.length > PAGE,
  };
}

/** A drive as it was at a revision, with the limits that the shop has now. */
export async function openPast(manager: EntityManager, id: string, revision: number): Promise<PastOpened<Date>> {
  const [row] = await manager.query<(Row & { document: Buffer | string | null; limits: string | null })[]>(
    `SELECT revision, at, savedBy, UNCOMPRESS(past) AS document, (SELECT limits FROM shop WHERE id = 1) AS limits
     FROM drive_version WHERE driveId = ? AND revision = ?`,
    [id, revision],
  );
  if (!row || row.document === null) throw notFound('version');
  const drive = JSON.parse(String(row.document)) as Drive;
  const { at, savedBy: by } = row;
  return { revision, at, by, document: withShopLimits(drive, readLimits(row.limits)) };
}

/**
 * Thins what is older than `EVERY_DAYS` to the last version of each day, of each drive; and of a drive with more than
 * its share the oldest beyond it. Some at a time; true where there is more to do.
 */
export async function thinPast(data: DataSource, now = Date.now()): Promise<boolean> {
  const old = await data.query<{ driveId: string; revision: number; at: Date }[]>(
    `SELECT driveId, revision, at FROM drive_version FORCE INDEX (drive_version_to_thin)
     WHERE lasting = 0 AND at < ? ORDER BY at LIMIT ${PIECE}`,
    [new Date(now - EVERY_DAYS * DAY_MS)],
  );
  for (const row of old) await thinOne(data, row);
  if (old.length === PIECE) return true;
  const large = await data.query<{ driveId: string; n: string }[]>(
    `SELECT driveId, COUNT(*) AS n FROM drive_version FORCE INDEX (drive_version_to_thin)
     WHERE lasting = 0 GROUP BY driveId HAVING n > ${MOST_OF_ONE} LIMIT 20`,
  );
  for (const { driveId, n } of large) {
    const beyond = await data.query<{ driveId: string; revision: number; at: Date }[]>(
      'SELECT driveId, revision, at FROM drive_version WHERE driveId = ? AND lasting = 0 ORDER BY revision LIMIT ?',
      [driveId, Math.min(PIECE, Number(n) - MOST_OF_ONE)],
    );
    for (const row of beyond) await thinOne(data, row);
  }
  return large.length > 0;
}

/** A version that is the last of its day stays for good; any other goes. */
async function thinOne(data: DataSource, { driveId, revision, at }: { driveId: string; revision: number; at: Date }) {
  const [next] = await data.query<{ at: Date }[]>(
    'SELECT at FROM drive_version WHERE driveId = ? AND revision > ? AND past IS NOT NULL ORDER BY revision LIMIT 1',
    [driveId, revision],
  );
  const isLast = next === undefined || utcDay(next.at.getTime()) !== utcDay(at.getTime());
  await data.query(
    isLast
      ? 'UPDATE drive_version SET lasting = 1 WHERE driveId = ? AND revision = ?'
      : 'DELETE FROM drive_version WHERE driveId = ? AND revision = ?',
    [driveId, revision],
  );
}
