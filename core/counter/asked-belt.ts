import { type Belt, newBelt, newDrive } from '../drive';
import type { BeltBuild } from '../section';

/** A belt of which no more is said than at the counter: it runs on no drive. */
export function askedBelt(section: string, ribs?: number | null, build?: BeltBuild): Belt {
  return {
    ...newBelt(newDrive(''), section),
    ...(ribs !== undefined && ribs !== null && { ribs }),
    ...(build !== undefined && { build }),
  };
}
