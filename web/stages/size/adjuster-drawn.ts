import { once } from '../../state/once';
import type { DrawnMark } from '../stage';
import { adjusterKind, travelOf } from '@emery/core/adjuster';
import type { Belt, Drive } from '@emery/core/drive';

/** The radius of a mark's letter, px. */
export const MARK_PX = 9;

/** Where a belt's adjuster can go, its ends and marks, mm; null where no shaft of it moves. */
export const adjusterDrawn = once((drive: Drive, source: Belt) => {
  const travel = travelOf(drive, source);
  if (!travel || adjusterKind(travel.kind).moves === 'belt') return null;
  const at = (fraction: number) => travel.at(fraction).stations.find(({ id }) => id === travel.station)!;
  const station = drive.stations.find(({ id }) => id === travel.station)!;
  const [from, to] = travel.marks ? [travel.marks.short, travel.marks.long] : [0, 1];
  const line = (a: number, b: number) => Array.from({ length: 33 }, (_, n) => at(a + ((b - a) * n) / 32));
  return {
    station,
    adjuster: station.adjuster!,
    way: line(0, 1),
    window: line(from, to),
    ends: [at(0), at(1)],
    marks: travel.marks ? [at(from), at(to)] : [],
  };
});

/** The letters of its marks and the pivot of its arm, which names keep off. */
export function adjusterMarks(drive: Drive, source: Belt, k: number): DrawnMark[] {
  const drawn = adjusterDrawn(drive, source);
  if (!drawn) return [];
  const { adjuster, marks } = drawn;
  const reach = MARK_PX / k;
  const places = [...marks, ...('pivot' in adjuster ? [adjuster.pivot] : [])];
  return places.map(({ x, y }) => ({ start: { x: x - reach, y }, end: { x: x + reach, y }, halfPx: MARK_PX }));
}
