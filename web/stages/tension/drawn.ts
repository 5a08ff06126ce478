import { shortForce } from '@emery/core/tension';
import type { DrawnMark } from '../stage';
import { spanTextMark } from '../SpanText';
import type { useTensionSums } from './sums';
import type { Point } from '@emery/core/path';

type Sums = Pick<ReturnType<typeof useTensionSums>, 'tension' | 'run' | 'belt' | 'drive'>;

/** The longest arrow, and the least that is drawn, px. */
const [LONGEST, LEAST] = [76, 5];
/** A span that is shorter has no figure, px. */
const ROOM = 74;

/** The load on every shaft as an arrow: where it begins, which way it goes, and how long it is, px. */
export function loadArrows({ drive, run }: Pick<Sums, 'drive' | 'run'>) {
  const max = Math.max(1, ...[...run.shafts.values()].map(({ x, y }) => Math.hypot(x, y)));
  return drive.stations.flatMap((station) => {
    const load = run.shafts.get(station.id);
    const sizePx = load ? (Math.hypot(load.x, load.y) / max) * LONGEST : 0;
    return load && sizePx >= LEAST ? [{ station, load, sizePx }] : [];
  });
}

interface SpanFigure {
  index: number;
  span: { start: Point; end: Point };
  text: string;
}

/** The tension of every span of the belt in hand that is long enough to carry it. */
export function spanFigures({ tension, run, belt }: Sums, k: number): readonly SpanFigure[] {
  const b = tension.staticBelts.findIndex((standing) => standing?.belt.id === belt?.source.id);
  return (run.belts[b]?.pulleys ?? []).flatMap(({ contact: { leaves }, leavesN }, index) =>
    leaves.length * k > ROOM ? [{ index, span: leaves, text: shortForce(leavesN) }] : [],
  );
}

/** All that names keep off. */
export function tensionMarks(sums: Sums, k: number): DrawnMark[] {
  const arrows = loadArrows(sums).map(({ station: { x, y }, load, sizePx }): DrawnMark => {
    const length = Math.hypot(load.x, load.y) * k;
    return {
      start: { x, y },
      end: { x: x + (load.x / length) * sizePx, y: y + (load.y / length) * sizePx },
      halfPx: 4,
    };
  });
  return [...arrows, ...spanFigures(sums, k).map(({ span, text }) => spanTextMark(span, k, text))];
}
