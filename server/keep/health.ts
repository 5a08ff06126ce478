import type { DataSource } from 'typeorm';
import { accessOf } from '../access/access';
import { backupsOf } from './backups';
import { diskState, shopBytes } from './disk';
import { EMERY_VERSION } from './labels';
import { slowAnswersOf } from './slow-answers';
import { HEALTH } from './words';
import type { Health } from '@emery/core/api';
import { DAY_MS } from '@emery/core/quantity';

const STARTED = new Date();
/** Less of the disk than this, or of days until it is full or the certificate ends, is said. */
const LEAST_FREE = 2e9;
const LEAST_DAYS = 30;
/** A certificate of Emery's own is renewed a month before its end. */
const LEAST_CERTIFICATE_DAYS = 14;

/** All that somebody who keeps a shop wants to know of it. */
export async function healthOf(data: DataSource, now = Date.now()): Promise<Health<Date>> {
  const [row] = await data.query<{ version: string; last: string | null; versions: string; packed: string | null }[]>(
    `SELECT VERSION() AS version, (SELECT name FROM migrations ORDER BY timestamp DESC LIMIT 1) AS last,
       (SELECT COUNT(*) FROM drive_version) AS versions,
       (SELECT DATA_LENGTH FROM information_schema.TABLES
        WHERE TABLE_SCHEMA = DATABASE() AND TABLE_NAME = 'drive_version') AS packed`,
  );
  const health = {
    versions: {
      ...{ emery: EMERY_VERSION, node: process.versions.node },
      ...{ database: row?.version ?? '', shop: row?.last ?? '' },
    },
    startedAt: STARTED,
    shopBytes: await shopBytes(data),
    disk: await diskState(data, now),
    certificateEnds: accessOf(data).sharing.state().certificateEnds,
    queue: queueOf(data),
    slowest: [...slowAnswersOf(data)],
    history: { versions: Number(row?.versions ?? 0), bytes: Number(row?.packed ?? 0) },
    backups: await backupsOf(data).state(),
  };
  return { ...health, problems: problemsOf(health, now) };
}

function problemsOf({ disk, backups, certificateEnds }: Omit<Health<Date>, 'problems'>, now: number): string[] {
  const said: string[] = [];
  if (backups.problem !== null) said.push(HEALTH.backupFailed(backups.problem));
  if (backups.lastAt === null) said.push(HEALTH.noBackup);
  if (backups.says !== null) said.push(backups.says);
  if (disk && disk.freeBytes < LEAST_FREE) said.push(HEALTH.diskLow(disk.freeBytes));
  else if (disk?.fullOn && Date.parse(disk.fullOn) - now < LEAST_DAYS * DAY_MS)
    said.push(HEALTH.diskFills(disk.fullOn));
  if (certificateEnds && certificateEnds.getTime() - now < LEAST_CERTIFICATE_DAYS * DAY_MS)
    said.push(HEALTH.certificate(certificateEnds));
  if (backups.sameDisk === true) said.push(HEALTH.sameDisk);
  return said;
}

/** What TypeORM's pool of connections has of its own, as far as it tells. */
interface PoolInside {
  config?: { connectionLimit?: number };
  _allConnections?: { length: number };
  _freeConnections?: { length: number };
  _connectionQueue?: { length: number };
}

function queueOf(data: DataSource): Health['queue'] {
  const { pool } = data.driver as unknown as { pool?: PoolInside & { pool?: PoolInside } };
  const inside = pool?.pool ?? pool;
  return {
    used: (inside?._allConnections?.length ?? 0) - (inside?._freeConnections?.length ?? 0),
    most: inside?.config?.connectionLimit ?? 0,
    waiting: inside?._connectionQueue?.length ?? 0,
  };
}
