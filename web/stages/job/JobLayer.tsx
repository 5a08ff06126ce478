import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useJobStage } from './JobProvider';
import { useCard } from './sums';
import './job.css';
import { type Drive, stationOf } from '@emery/core/drive';
import { spanMidpoints } from '@emery/core/path';
import { releasesAt } from './releases';

/** The order of the belts, which way an arm is turned, the rim that comes last, and the step that is looked at. */
export default function JobLayer({ k, radii }: LayerProps) {
  const { drive, shown } = useBench('drive', 'shown');
  const { card } = useCard();
  const { step: looked } = useJobStage();
  const releases = releasesAt(drive);
  if (!card || shown.drive !== drive) return null;
  const step = card.steps.find(({ id }) => id === looked);
  const here =
    step?.pulley !== undefined ? stationOf(drive, step.pulley) : drive.stations.find(({ id }) => id === step?.station);
  const radiusOf = (station: Drive['stations'][number]) =>
    Math.max(0, ...station.pulleys.map(({ id }) => radii.get(id) ?? 0));
  return (
    <g className="job-layer" aria-hidden>
      {releases.map(({ station, turn, pivot }) => {
        const r = 26 / k;
        const [left, right] = [pivot.x - r, pivot.x + r];
        const [from, to, sweep] = turn === 'ccw' ? [right, left, 0] : [left, right, 1];
        return (
          <g key={station} className="job-release">
            <path d={`M${from} ${-pivot.y}A${r} ${r} 0 0 ${sweep} ${to} ${-pivot.y}`} />
            <path
              className="job-release-head"
              transform={`translate(${to} ${-pivot.y}) scale(${1 / k})`}
              d="M-6 -2L0 9L6 -2Z"
            />
          </g>
        );
      })}
      {here && <circle className="job-here" cx={here.x} cy={-here.y} r={radiusOf(here) + 12 / k} />}
      {card.order.off.map((id, place) => {
        const solved = shown.solution.belts.find((belt) => belt.id === id);
        const longest = solved?.closed
          ? spanMidpoints(solved).reduce((best, next) => (next.length > best.length ? next : best))
          : null;
        return longest ? (
          <g
            key={id}
            className={`job-badge${step?.belt === id ? ' is-here' : ''}`}
            transform={`translate(${beside(longest, drive, 26 / k)}) scale(${1 / k})`}
          >
            <circle r={15} />
            <text textAnchor="middle" y={6}>
              {place + 1}
            </text>
          </g>
        ) : null;
      })}
    </g>
  );
}

/** A place beside the middle of a span, away from the middle of the drive; y down. */
function beside({ x, y, directionDeg }: { x: number; y: number; directionDeg: number }, drive: Drive, by: number) {
  const middle = (axis: 'x' | 'y') =>
    drive.stations.reduce((sum, station) => sum + station[axis], 0) / drive.stations.length;
  const angle = ((directionDeg + 90) * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle) * by, Math.sin(angle) * by];
  const outward = dx * (x - middle('x')) + dy * (y - middle('y')) >= 0 ? 1 : -1;
  return `${x + outward * dx} ${-(y + outward * dy)}`;
}
