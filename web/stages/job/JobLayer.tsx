import { useEffect } from 'react';
import { useBench } from '../../state/bench';
import type { LayerProps, PulleyFigure } from '../stage';
import { useJobStage } from './JobProvider';
import { useCard } from './sums';
import './job.css';
import { type Drive, stationOf } from '@emery/core/drive';
import { beltName, type JobCard } from '@emery/core/job';
import { spanMidpoints } from '@emery/core/path';
import { puttingOn } from '@emery/core/seating';

/** The order of the belts, which way an arm is turned, the rim that comes last, and the step that is looked at. */
export default function JobLayer({ k, radii }: LayerProps) {
  const { drive, shown } = useBench('drive', 'shown');
  const { card } = useCard();
  const { figures, step: looked } = useJobStage();
  useEffect(() => {
    if (card) figures.set(figuresOf(drive, card));
  }, [drive, card, figures]);
  if (!card || shown.drive !== drive) return null;
  const step = card.steps.find(({ id }) => id === looked);
  const here =
    step?.pulley !== undefined ? stationOf(drive, step.pulley) : drive.stations.find(({ id }) => id === step?.station);
  const radiusOf = (station: Drive['stations'][number]) =>
    Math.max(0, ...station.pulleys.map(({ id }) => radii.get(id) ?? 0));
  return (
    <g className="job-layer" aria-hidden>
      {drive.stations.map((station) => {
        const release = releaseAt(drive, station.id);
        if (!release) return null;
        const { pivot } = release;
        const r = 26 / k;
        const way = release.turn === 'ccw' ? 0 : 1;
        const start = { x: pivot.x - r, y: -pivot.y };
        const end = { x: pivot.x + r, y: -pivot.y };
        const [from, to] = way === 1 ? [start, end] : [end, start];
        return (
          <g key={station.id} className="job-release">
            <path d={`M${from.x} ${from.y}A${r} ${r} 0 0 ${way} ${to.x} ${to.y}`} />
            <path
              className="job-release-head"
              transform={`translate(${to.x} ${to.y}) scale(${1 / k})`}
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
  const middle = (of: 'x' | 'y') => drive.stations.reduce((sum, one) => sum + one[of], 0) / drive.stations.length;
  const angle = ((directionDeg + 90) * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle) * by, Math.sin(angle) * by];
  const outward = dx * (x - middle('x')) + dy * (y - middle('y')) >= 0 ? 1 : -1;
  return `${x + outward * dx} ${-(y + outward * dy)}`;
}

function releaseAt(drive: Drive, station: string) {
  const { adjuster } = drive.stations.find(({ id }) => id === station)!;
  if (adjuster?.kind !== 'sprung-arm') return null;
  const release = drive.belts.map(({ id }) => puttingOn(drive, id)?.release).find((one) => one?.station === station);
  return release ? { turn: release.turn, pivot: adjuster.pivot } : null;
}

/** Beside each shaft: which way its arm is turned, or that its rim comes last. */
function figuresOf(drive: Drive, { steps }: JobCard): ReadonlyMap<string, PulleyFigure> {
  const figures = new Map<string, PulleyFigure>();
  const put = (station: string | undefined, text: string) => {
    if (station === undefined) return;
    const old = figures.get(station)?.text;
    figures.set(station, { text: old ? `${old}, ${text}` : text, mark: 'none' });
  };
  for (const { code, belt, pulley } of steps)
    if (code === 'lay' && pulley !== undefined)
      put(stationOf(drive, pulley)?.id, drive.belts.length > 1 ? `${beltName(drive, belt)} on last` : 'on last');
  for (const { id } of drive.stations) {
    const release = releaseAt(drive, id);
    if (release) put(id, release.turn === 'ccw' ? 'turn left' : 'turn right');
  }
  return figures;
}
