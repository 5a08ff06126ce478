import { createContext, useCallback, useContext, useEffect, useId, useSyncExternalStore, type ReactNode } from 'react';
import { browserStorage } from '../state/draft-store';
import { isRefusing } from '../state/full-drive';
import { Listeners } from '../state/listeners';

/*
 * What is being typed and not taken over yet, by the place it is typed at. It outlives the field: a stage change, a
 * what-if, another pulley taken in hand and a reload all give it back. It goes when it is taken over or given up.
 */
const PREFIX = 'emery-typed:';
/** At a job it outlives the tab as well: a telephone lets go of a page whenever it likes. */
const AT_A_JOB = /^job /;
const ofTab = browserStorage('sessionStorage');
const ofDevice = browserStorage();
const texts = new Map<string, unknown>();
const listeners = new Listeners();

// What this tab has is newer than what any tab left.
for (const storage of [ofDevice, ofTab])
  for (let k = 0; k < (storage?.length ?? 0); k += 1) {
    const key = storage!.key(k)!;
    if (!key.startsWith(PREFIX)) continue;
    try {
      texts.set(key.slice(PREFIX.length), JSON.parse(storage!.getItem(key)!));
    } catch {
      // Not ours after all.
    }
  }

function keep(place: string, value: unknown, lasting: boolean): void {
  // The edit that it was typed for was refused: it is not taken over.
  if (value === undefined && isRefusing()) return;
  if (value === undefined) texts.delete(place);
  else texts.set(place, value);
  for (const storage of lasting ? [ofTab, ...(AT_A_JOB.test(place) ? [ofDevice] : [])] : [])
    try {
      if (value === undefined) storage?.removeItem(PREFIX + place);
      else storage?.setItem(PREFIX + place, JSON.stringify(value));
    } catch {
      // Full or forbidden: it is in the page all the same.
    }
  listeners.tell();
}

const Place = createContext<string | null>(null);

/**
 * Where fields stand, such as a drive and within it a pulley: fields of one label in two places do not meet. Outside
 * any, what is typed lives as long as its field.
 */
export function TypedPlace({ at, children }: { at: string; children: ReactNode }) {
  const outer = useContext(Place);
  return <Place value={outer === null ? at : `${outer}/${at}`}>{children}</Place>;
}

/** True where something of that place is kept from before, such as a form that was open when the page was read anew. */
export function hasTyped(place: string): boolean {
  return [...texts.keys()].some((key) => key === place || key.startsWith(`${place}/`));
}

/**
 * Like `useState` for what is typed into the field or form `name` of this place; `start` stands where nothing is typed,
 * and setting it forgets.
 */
export function useTyped<T>(name: string, start: T): [T, (value: T | ((now: T) => T)) => void] {
  const outer = useContext(Place);
  const own = useId();
  const place = outer === null ? `${own}/${name}` : `${outer}/${name}`;
  const value = useSyncExternalStore(listeners.add, () => (texts.has(place) ? (texts.get(place) as T) : start));
  const put = useCallback(
    (next: T | ((now: T) => T)) => {
      const now = texts.has(place) ? (texts.get(place) as T) : start;
      const wanted = typeof next === 'function' ? (next as (now: T) => T)(now) : next;
      keep(place, JSON.stringify(wanted) === JSON.stringify(start) ? undefined : wanted, outer !== null);
    },
    [place, start, outer],
  );
  useEffect(() => {
    if (outer === null) return () => void texts.delete(place);
  }, [outer, place]);
  return [value, put];
}

/** What was kept at `place` as a whole, and nothing is typed into, such as a what-if; undefined where nothing is. */
export const keptAt = (place: string): unknown => texts.get(place);
export const keepAt = (place: string, value: unknown): void => keep(place, value, true);

/** Forgets all that is typed at this place and within it: it has been taken over, or given up. */
export function useForgetTyped(): () => void {
  const outer = useContext(Place);
  return () => {
    if (outer !== null) forgetTyped(outer);
  };
}

export function forgetTyped(place: string): void {
  for (const key of [...texts.keys()]) if (key === place || key.startsWith(`${place}/`)) keep(key, undefined, true);
}

/** Takes over what stands in a field when the page goes away. */
export function useOnLeave(commit: () => void): void {
  useEffect(() => {
    // Ahead of what looks at the drive as it then is.
    window.addEventListener('pagehide', commit, true);
    return () => window.removeEventListener('pagehide', commit, true);
  });
}
