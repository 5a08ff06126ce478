import { useBench } from '../../state/bench';
import type { LayerProps } from '../stage';
import { useInspect } from './InspectProvider';
import { useInspection, usePartInHand } from './sums';
import './inspect.css';
import { stationOf } from '@emery/core/drive';
import { RING_PX } from './figures';
import { verdictAt } from './verdict-at';

/** Each shaft's verdict beside it and around it, and the part that is looked at. */
export default function InspectLayer({ k, radii }: LayerProps) {
  const { drive, items } = useInspection();
  const { view } = useInspect();
  const { shown } = useBench('shown');
  const part = usePartInHand();
  if (shown.drive !== drive) return null;
  const here = view === 'walk' && part && part.on !== 'belt' ? stationOf(drive, part.target) : undefined;
  const belt = view === 'walk' && part?.on === 'belt' ? part.target : undefined;
  const spans = shown.solution.belts.find(({ id }) => id === belt)?.spans ?? [];
  const radiusOf = (station: (typeof drive.stations)[number]) =>
    Math.max(0, ...station.pulleys.map(({ id }) => radii.get(id) ?? 0));
  return (
    <g className="inspect-layer" aria-hidden>
      {drive.stations.map((station) => {
        const verdict = verdictAt(station.id, drive, items);
        return verdict === 'replace' || verdict === 'watch' ? (
          <circle
            key={station.id}
            className={`verdict-ring is-${verdict}`}
            cx={station.x}
            cy={-station.y}
            r={radiusOf(station) + RING_PX / k}
          />
        ) : null;
      })}
      {spans.map(
        ({ from, start, end, length }) =>
          length !== null && (
            <line key={from} className="inspect-here" x1={start.x} y1={-start.y} x2={end.x} y2={-end.y} />
          ),
      )}
      {here && <circle className="inspect-here" cx={here.x} cy={-here.y} r={radiusOf(here) + 13 / k} />}
    </g>
  );
}
