import type { DataSource } from 'typeorm';
import { checked } from '../check';
import { Shop } from '../shop/entity';
import { change } from '../storage/change';
import { holdDrive } from '../storage/hold';
import { indexVehicles } from '../vehicles/search-index';
import { FOLLOWERS } from './limits-changed';
import { keepMemory } from './remember';
import { limitsKey } from '../check/limits-key';
import type { ShopLimit } from '@emery/core/drive';

/** Drives looked up at a time. */
const PAGE = 50;
/** What was changed is looked at so much later, when it is stored, ms; */
const SOON_MS = 300;
/** and this makes up for whatever that missed. */
const LOOK_AGAIN_MS = 60_000;
/** A look that failed is made again so much later, and twice as late each time it fails anew, ms. */
const FAILED_MS = 1_000;

/**
 * Keeps what is due in step with what the shop holds for every drive, beside the requests: a drive that is remembered
 * by other limits is remembered anew, one after the other. It goes by what each says it was remembered by, so nothing
 * is left out when it is cut short, or when a drive is saved by older limits meanwhile.
 */
export function followLimits(data: DataSource): { stop: () => void } {
  let stopped = false;
  let going = false;
  let wanted = false;
  let soon: NodeJS.Timeout | null = null;
  let pauseMs = FAILED_MS;
  const follow = async () => {
    wanted = true;
    if (going) return;
    going = true;
    try {
      while (wanted && !stopped) {
        wanted = false;
        await rememberStale(data, () => wanted || stopped);
      }
      pauseMs = FAILED_MS;
    } catch {
      // The database is away or busy.
      if (!stopped) soon ??= setTimeout(look, pauseMs).unref();
      pauseMs = Math.min(LOOK_AGAIN_MS, 2 * pauseMs);
    }
    going = false;
  };
  const look = () => {
    soon = null;
    void follow();
  };
  FOLLOWERS.set(data, () => (soon ??= setTimeout(look, SOON_MS).unref()));
  const timer = setInterval(look, LOOK_AGAIN_MS).unref();
  look();
  return {
    stop: () => {
      stopped = true;
      clearInterval(timer);
      if (soon) clearTimeout(soon);
      FOLLOWERS.delete(data);
    },
  };
}

/** Remembers by the limits there are now what is remembered by others; breaks off when it is told to. */
async function rememberStale(data: DataSource, brokenOff: () => boolean): Promise<void> {
  const { limits } = await data.getRepository(Shop).findOneByOrFail({ id: 1 });
  const key = limitsKey(limits);
  for (let last = ''; ;) {
    const page = await data.query<{ driveId: string }[]>(
      `SELECT driveId FROM drive_memory FORCE INDEX (drive_memory_limits) WHERE byLimits <> ? AND driveId > ?
       ORDER BY driveId LIMIT ${PAGE}`,
      [key, last],
    );
    if (page.length === 0) return;
    for (const { driveId } of page) {
      if (brokenOff()) return;
      await rememberBy(data, driveId, limits, key);
      last = driveId;
    }
  }
}

async function rememberBy(
  data: DataSource,
  id: string,
  limits: readonly ShopLimit[] | null,
  key: string,
): Promise<void> {
  const documentOf = async (from: Pick<DataSource, 'query'>) =>
    (await from.query<{ document: string }[]>('SELECT document FROM drive_document WHERE driveId = ?', [id]))[0]
      ?.document;
  const document = await documentOf(data);
  if (document === undefined) return;
  const memory = await checked('memory', { document, limits }, document.length);
  await change(data, async (manager) => {
    const held = await holdDrive(manager, id);
    // Saved meanwhile: what it is remembered by then is looked at in its turn.
    if (!held || (await documentOf(manager)) !== document) return;
    if (await keepMemory(manager, id, memory, key)) await indexVehicles(manager, [held.drive.vehicleId]);
  });
}
