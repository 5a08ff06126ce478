import { once } from '../../state/once';
import type { Drive, Rotation } from '@emery/core/drive';
import { puttingOn } from '@emery/core/seating';

/** How large the sign of it is, px: an arc over the pivot. */
export const RELEASE_PX = 26;

/** An arm that a belt hangs on: about where it turns, and which way it is turned to let the belt go. */
export interface Release {
  station: string;
  turn: Rotation;
  pivot: { x: number; y: number };
}

/** Every arm that a belt of the drive hangs on, and which way it is turned. */
export const releasesAt = once((drive: Drive): Release[] => {
  const found = drive.belts.flatMap(({ id }) => puttingOn(drive, id)?.release ?? []);
  return [...new Map(found.map((sign) => [sign.station, sign])).values()].flatMap(({ station, turn }) => {
    const { adjuster } = drive.stations.find(({ id }) => id === station)!;
    return adjuster?.kind === 'sprung-arm' ? [{ station, turn, pivot: adjuster.pivot }] : [];
  });
});
