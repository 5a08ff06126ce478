import { useEffect } from 'react';
import { useBench } from '../../state/bench';
import type { LayerProps, PulleyFigure } from '../stage';
import { useInspect } from './InspectProvider';
import { useInspection, usePartInHand } from './sums';
import './inspect.css';
import { stationOf } from '@emery/core/drive';
import { type InspectItem, type Verdict, VERDICT_WORDS } from '@emery/core/inspect';

/** On one shaft a part that nobody looked at goes before a sound one: the shaft is not called sound. */
const ORDER: readonly Verdict[] = ['replace', 'watch', 'not looked at', 'keep'];
const worse = (a: Verdict, b: Verdict) => (ORDER.indexOf(a) <= ORDER.indexOf(b) ? a : b);
const MARKS: Record<Verdict, PulleyFigure['mark']> = {
  replace: 'fault',
  watch: 'watch',
  keep: 'none',
  'not looked at': 'none',
};

/** Each shaft's verdict beside it and around it, and the part that is looked at. */
export default function InspectLayer({ k, radii }: LayerProps) {
  const { drive, items } = useInspection();
  const { figures, view } = useInspect();
  const { shown } = useBench('shown');
  const part = usePartInHand();
  useEffect(() => {
    figures.set(
      new Map(
        drive.stations.map(({ id }) => {
          const verdict = verdictAt(id, drive, items);
          return [
            id,
            { text: verdict ? VERDICT_WORDS[verdict].toLowerCase() : '', mark: verdict ? MARKS[verdict] : 'none' },
          ];
        }),
      ),
    );
  }, [drive, items, figures]);
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
            r={radiusOf(station) + 7 / k}
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

/** The worst verdict of anything on a shaft. */
function verdictAt(
  station: string,
  drive: Parameters<typeof stationOf>[0],
  items: readonly InspectItem[],
): Verdict | null {
  const on = items.filter((item) => item.on !== 'belt' && stationOf(drive, item.target)?.id === station);
  return on.reduce<Verdict | null>((worst, { verdict }) => (worst ? worse(worst, verdict) : verdict), null);
}
