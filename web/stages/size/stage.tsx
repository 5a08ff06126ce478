import { lazyPart } from '../../parts/lazy-part';
import { useBench } from '../../state/bench';
import type { DragRule, LayerProps, PulleyFigures, PulleyPlace, Stage, StageState } from '../stage';
import { wrapFigure } from '../wrap-figure';
import { adjusterMarks } from './adjuster-drawn';
import { AdjusterDrawing } from './AdjusterDrawing';
import { SizingProvider } from './SizingProvider';
import { travelOf, adjusterKind } from '@emery/core/adjuster';
import { changeStation, type Drive, type Station } from '@emery/core/drive';
import type { Point } from '@emery/core/path';

/** Size: which belt to bring home. */
export const size: Stage = {
  id: 'size',
  name: 'Size',
  state,
  Ledger: lazyPart('Size', () => import('./SizeLedger')),
  Chart: lazyPart('The chart of Size', () => import('./SizeChart'), <section className="unrolled sheet" aria-busy />),
  Provider: SizingProvider,
  Layer: SizeLayer,
  pulleyFigure: useSizeFigure,
  drag: alongTheTravel,
  WhatIf: lazyPart('The what-if of Size', () => import('./SizeWhatIf')),
};

function state({ belts }: Drive): StageState {
  const chosen = belts.filter(({ length }) => typeof length === 'number' && length > 0).length;
  if (chosen === 0) return 'untouched';
  return chosen === belts.length ? 'settled' : 'in progress';
}

/** The wrap at each pulley; names keep off the adjuster's marks. */
function useSizeFigure(): PulleyFigures {
  const { shown, source } = useShownBelt();
  return Object.assign((place: PulleyPlace) => wrapFigure(place), {
    marks: (k: number) => (source ? adjusterMarks(shown.drive, source, k) : []),
  });
}

/** The belt in hand, of the drive as it is shown. */
function useShownBelt() {
  const { shown } = useBench('shown');
  return { shown, source: shown.drive.belts.find(({ id }) => id === shown.belt?.id) };
}

function SizeLayer({ k }: LayerProps) {
  const { shown, source } = useShownBelt();
  return source ? <AdjusterDrawing drive={shown.drive} source={source} k={k} /> : null;
}

/** Only the adjuster of the belt in hand moves, along its own way. */
function alongTheTravel(...[drive, belt, station]: Parameters<DragRule>): ReturnType<DragRule> {
  const travel = belt && travelOf(drive, belt);
  if (!travel || travel.station !== station) return null;
  const { moves } = adjusterKind(travel.kind);
  if (moves === 'belt') return null;
  const way = Array.from({ length: 241 }, (_, k) => travel.at(k / 240).stations.find(({ id }) => id === station)!);
  return (to) => {
    const there = nearestOn(way, to);
    // A slide's travel starts where it stands, so moving it for good would move its ends: it is only looked at there.
    if (moves === 'shaft-from-here')
      return {
        pose: {
          ...drive,
          stations: drive.stations.map((otherStation) => (otherStation.id === station ? there : otherStation)),
        },
      };
    const { x, y, adjuster } = there;
    return { change: (now) => changeStation(now, station, { x, y, adjuster }) };
  };
}

function nearestOn(way: readonly Station[], to: Point): Station {
  const far = ({ x, y }: Point) => Math.hypot(x - to.x, y - to.y);
  return way.reduce((best, next) => (far(next) < far(best) ? next : best));
}
