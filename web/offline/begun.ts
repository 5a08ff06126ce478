import { ApiProblem, ask } from '../api/client';
import { newSaveId } from '../api/shop';
import { browserStorage } from '../state/draft-store';
import { createStore } from '../state/store';
import { onceBack } from './away';
import { forgetAnswer, keepAnswer } from './kept-answers';
import type { DriveOpened } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';

/** A drive that was begun with the server away, as it goes up. */
interface Begun {
  id: string;
  vehicleId?: string;
  document: Drive;
}

const PREFIX = 'emery-begun:';

const all = (): Begun[] => {
  const storage = browserStorage();
  return Array.from({ length: storage?.length ?? 0 }, (_, k) => storage!.key(k)!)
    .filter((key) => key.startsWith(PREFIX))
    .flatMap((key) => {
      try {
        return [JSON.parse(storage!.getItem(key)!) as Begun];
      } catch {
        return [];
      }
    });
};

/** How many drives wait to go up; and the last that was not taken, with why. */
export const begunWaiting = createStore<{ count: number; refused: { id: string; problem: string } | null }>(
  { count: all().length, refused: null },
  (a, b) => a.count === b.count && a.refused?.id === b.refused?.id && a.refused?.problem === b.refused?.problem,
);

const isAway = (error: unknown) => error instanceof ApiProblem && error.status === 0;

/**
 * Makes a drive: with the server, or on this device until it is back. Rejects where the server says no, or this device
 * cannot keep it either.
 */
export async function beginDrive(
  document: Drive,
  vehicle: { id: string; name: string } | null,
): Promise<Pick<DriveOpened, 'id'>> {
  // Its name is its own from the first: asked again after a lost answer, it is no second drive.
  const begun: Begun = { id: newSaveId(), ...(vehicle && { vehicleId: vehicle.id }), document };
  try {
    return await ask<DriveOpened>('POST', '/drives', begun);
  } catch (error) {
    if (!isAway(error)) throw error;
    const opened: DriveOpened = {
      id: begun.id,
      vehicleId: vehicle?.id ?? '',
      vehicleName: vehicle?.name ?? 'Vehicle not named yet',
      name: document.name || 'Drive',
      revision: 1,
      updatedAt: new Date().toISOString(),
      savedBy: '',
      document,
    };
    try {
      browserStorage()!.setItem(`${PREFIX}${begun.id}`, JSON.stringify(begun));
    } catch {
      throw error;
    }
    await keepAnswer(`/drives/${begun.id}`, JSON.stringify(opened));
    count();
    return opened;
  }
}

const count = (refused: { id: string; problem: string } | null = null) =>
  begunWaiting.set({ count: all().length, refused });

const underWay = new Map<string, Promise<void>>();

/** Sends one up, where it waits; resolves once it is there, and rejects like any other request. */
export function sendBegun(id: string): Promise<void> {
  const begun = all().find((other) => other.id === id);
  if (!begun) return Promise.resolve();
  const going =
    underWay.get(id) ??
    ask('POST', '/drives', begun)
      .then(() => {
        browserStorage()?.removeItem(`${PREFIX}${id}`);
        count();
      })
      .finally(() => underWay.delete(id));
  underWay.set(id, going);
  return going;
}

/** Sends all of them; what is not taken stays, and is told. */
export async function sendAllBegun(): Promise<void> {
  for (const { id } of all())
    await sendBegun(id).catch((error: unknown) => {
      if (!isAway(error)) count({ id, problem: error instanceof Error ? error.message : String(error) });
    });
}

/** Sends one whose vehicle is gone with none: the shop makes one for it that is to be named. */
export async function sendWithoutVehicle(id: string): Promise<void> {
  const begun = all().find((other) => other.id === id);
  if (!begun) return;
  browserStorage()?.setItem(`${PREFIX}${id}`, JSON.stringify({ id, document: begun.document }));
  await sendAllBegun();
}

/** Lets one go that nobody wants any more. */
export function forgetBegun(id: string): void {
  browserStorage()?.removeItem(`${PREFIX}${id}`);
  void forgetAnswer(`/drives/${id}`);
  count();
}

/** From here on whatever waits goes up as soon as the server is there. */
export function startSending(): void {
  if (all().length > 0) void sendAllBegun();
  onceBack(() => void sendAllBegun());
}
