import { NEW_BELT_FACTOR, SET_AGAIN_FRACTION } from '../adjuster';
import type { TensionWindow } from './window';

/** Without a limit of its shafts, a belt is right up to so much over the least it needs. A default. */
const ROOM_OVER_LEAST = 4;

/**
 * Where in a window a belt is best set, N: as many times over the least as under the most (their geometric mean), for
 * slip and bearing life both go by ratios. Without a limit of its shafts, as if they bore `ROOM_OVER_LEAST`. Null for a
 * window without room, and for a belt that needs no tension.
 */
export function targetTension({ leastN, mostN }: Pick<TensionWindow, 'leastN' | 'mostN'>): number | null {
  if (leastN === null || leastN <= 0) return null;
  const top = mostN ?? ROOM_OVER_LEAST * leastN;
  return top >= leastN ? Math.sqrt(leastN * top) : null;
}

/** The three figures of a new belt on fixed centres, N. Null where there is nothing to aim at. */
export interface NewBeltFigures {
  setN: number;
  runInN: number;
  againBelowN: number;
  /** True where the first figure was held back by what the shafts bear. */
  held: boolean;
}

export function newBeltFigures(window: Pick<TensionWindow, 'leastN' | 'mostN'>): NewBeltFigures | null {
  const aim = targetTension(window);
  return aim === null ? null : newBeltAt(aim, window);
}

/** The same for a belt that is to stand at so much once it has run in, N. */
export function newBeltAt(
  aimN: number,
  { leastN, mostN }: Pick<TensionWindow, 'leastN' | 'mostN'> = { leastN: null, mostN: null },
): NewBeltFigures {
  const wanted = aimN * NEW_BELT_FACTOR;
  const setN = Math.min(wanted, mostN ?? Infinity);
  return {
    setN,
    runInN: aimN,
    againBelowN: Math.max(leastN ?? 0, aimN * SET_AGAIN_FRACTION),
    held: setN < wanted,
  };
}
