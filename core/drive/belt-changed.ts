import type { Drive } from './drive';
import { momentOf } from './moment';

/** What is read of a new belt while it is set, so long before its change is signed for, is the new one's, ms. */
const SETTING_MS = 12 * 3600 * 1000;

/** When a belt was last changed for a new one, ms since 1970; null where it never was, or nobody dated it. */
export function lastChangedAt({ inspect }: Drive, beltId: string): number | null {
  const times = (inspect?.changed ?? []).flatMap(({ on, target, at }) =>
    on === 'belt' && target === beltId ? (momentOf(at) ?? []) : [],
  );
  return times.length === 0 ? null : Math.max(...times);
}

/**
 * Whether something dated tells of the belt that is on now, and not of one that came off: a belt changed is a new
 * sitting for tension, noise and inspection alike. What says that it was read on a new belt may be a little older than
 * the change, which is signed for last. Without a date it tells of the old one, once there was a change.
 */
export function ofBeltNow(drive: Drive, beltId: string, { at, when }: { at?: string; when?: string }): boolean {
  const changed = lastChangedAt(drive, beltId);
  if (changed === null) return true;
  const time = momentOf(at);
  return time !== null && time >= changed - (when === 'new' || when === 'run-in' ? SETTING_MS : 0);
}
