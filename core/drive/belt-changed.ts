import type { Drive } from './drive';
import type { ChangedPart } from './inspect';
import { momentOf } from './moment';

/** What is read of a new belt while it is set, so long before its change is signed for, is the new one's, ms. */
const SETTING_MS = 12 * 3600 * 1000;

/** Something that was read or done, and when; `when` says that it was done on a new belt. */
interface Dated {
  at?: string | undefined;
  when?: string;
}

/**
 * The change by which the belt came off that something dated tells of; null where it tells of the belt that is on now.
 * What says that it was read on a new belt may be a little older than the change, which is signed for last. Undefined
 * where it has no date, and there was a change.
 */
export function cameOffBy({ inspect }: Drive, beltId: string, { at, when }: Dated): ChangedPart | null | undefined {
  const changes = (inspect?.changed ?? [])
    .flatMap((change) => {
      const time = change.on === 'belt' && change.target === beltId ? momentOf(change.at) : null;
      return time === null ? [] : [{ change, time }];
    })
    .sort((a, b) => a.time - b.time);
  const time = momentOf(at);
  if (time === null) return changes.length === 0 ? null : undefined;
  const early = when === 'new' || when === 'run-in' ? SETTING_MS : 0;
  return changes.find((signed) => signed.time - early > time)?.change ?? null;
}

/**
 * Whether something dated tells of the belt that is on now, and not of one that came off: a belt changed is a new
 * sitting for tension, noise and inspection alike.
 */
export const ofBeltNow = (drive: Drive, beltId: string, dated: Dated): boolean =>
  cameOffBy(drive, beltId, dated) === null;
