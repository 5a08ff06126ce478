import type { Drive } from '@emery/core/drive';
import { type DriveSolution, spanMidpoints } from '@emery/core/path';

/** The radius of a badge, and how far it stands off its belt, px. */
export const BADGE_PX = 15;
const OFF_PX = 26;

/** Where the number of each belt stands in the order they come off: beside its longest span, mm, y up. */
export function badgePlaces(off: readonly string[], { belts }: DriveSolution, drive: Drive, k: number) {
  const middle = (axis: 'x' | 'y') =>
    drive.stations.reduce((sum, station) => sum + station[axis], 0) / drive.stations.length;
  return off.flatMap((id, index) => {
    const solved = belts.find((belt) => belt.id === id);
    if (!solved?.closed) return [];
    const { x, y, directionDeg } = spanMidpoints(solved).reduce((best, next) =>
      next.length > best.length ? next : best,
    );
    const angle = ((directionDeg + 90) * Math.PI) / 180;
    const [dx, dy] = [(Math.cos(angle) * OFF_PX) / k, (Math.sin(angle) * OFF_PX) / k];
    // Away from the middle of the drive.
    const outward = dx * (x - middle('x')) + dy * (y - middle('y')) >= 0 ? 1 : -1;
    return [{ id, place: index + 1, x: x + outward * dx, y: y + outward * dy }];
  });
}
