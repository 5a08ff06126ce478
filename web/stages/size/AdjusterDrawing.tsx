import { adjusterDrawn, MARK_PX } from './adjuster-drawn';
import type { Belt, Drive, Point } from '@emery/core/drive';

/**
 * How the belt is tightened: the way its shaft can go, its ends and marks, its pivot and arm or link. In mm, y down.
 */
export function AdjusterDrawing({ drive, source, k }: { drive: Drive; source: Belt; k: number }) {
  const drawn = adjusterDrawn(drive, source);
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
          <circle className="adjuster-mark" r={MARK_PX} />
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
