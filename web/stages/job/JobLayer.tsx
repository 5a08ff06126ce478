import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useJobStage } from './JobProvider';
import { useCard } from './sums';
import './job.css';
import { type Drive, stationOf } from '@emery/core/drive';
import { BADGE_PX, badgePlaces } from './badges';
import { RELEASE_PX, releasesAt } from './releases';

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
        const r = RELEASE_PX / k;
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
      {badgePlaces(card.order.off, shown.solution, drive, k).map(({ id, place, x, y }) => (
        <g
          key={id}
          className={`job-badge${step?.belt === id ? ' is-here' : ''}`}
          transform={`translate(${x} ${-y}) scale(${1 / k})`}
        >
          <circle r={BADGE_PX} />
          <text textAnchor="middle" y={6}>
            {place}
          </text>
        </g>
      ))}
    </g>
  );
}
