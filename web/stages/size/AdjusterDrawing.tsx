import { useMemo } from 'react';
import { adjusterKind, travelOf } from '@emery/core/adjuster';
import type { Belt, Drive, Point } from '@emery/core/drive';

/**
 * How the belt is tightened: the way its shaft can go, its ends and marks, its pivot and arm or link. In mm, y down.
 */
export function AdjusterDrawing({ drive, source, k }: { drive: Drive; source: Belt; k: number }) {
  const drawn = useMemo(() => {
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
  }, [drive, source]);
  if (!drawn) return null;
  const { station, adjuster, way, window: between, ends, marks } = drawn;
  const path = (places: Point[]) => `M${places.map(({ x, y }) => `${x} ${-y}`).join('L')}`;
  const pivot = 'pivot' in adjuster ? adjuster.pivot : null;
  const link = 'anchor' in adjuster ? adjuster : null;
  return (
    <g className="adjuster" aria-hidden>
      <path className="adjuster-way" d={path(way)} />
      <path className="adjuster-window" d={path(between)} />
      {ends.map(({ x, y }, n) => (
        <circle key={n} className="adjuster-end" cx={x} cy={-y} r={4 / k} />
      ))}
      {marks.map(({ x, y }, n) => (
        <g key={n} transform={`translate(${x} ${-y}) scale(${1 / k})`}>
          {/* Letters, for the names would lie on the pulley's own; the chart below spells them out. */}
          <circle className="adjuster-mark" r={9} />
          <text textAnchor="middle" dy={4.5}>
            {n === 0 ? 'S' : 'L'}
          </text>
        </g>
      ))}
      {pivot && <line className="adjuster-arm" x1={pivot.x} y1={-pivot.y} x2={station.x} y2={-station.y} />}
      {link && (
        <line className="adjuster-link" x1={link.anchor.x} y1={-link.anchor.y} x2={link.lug.x} y2={-link.lug.y} />
      )}
      {pivot && <circle className="adjuster-pivot" cx={pivot.x} cy={-pivot.y} r={8 / k} />}
    </g>
  );
}
