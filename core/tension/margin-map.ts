import { demandOf, type DriveTension, runBelt, type Running, worstOf } from '../loads';

/** The worst margin at one load, as a fraction of the state's own torques; null where nothing can slip. */
export interface MarginCell {
  load: number;
  margin: number | null;
  /** The pulley that slips first there. */
  pulley: string | null;
}

/** The worst margin of a belt over engine speed and load. */
export interface MarginMap {
  /** By engine speed, the slowest first; the loads of each from 0 on, the same in all. */
  columns: readonly { rpm: number; cells: readonly MarginCell[] }[];
  rpmFrom: number;
  rpmTo: number;
  /** The highest load of the map. */
  mostLoad: number;
  /** The lowest load, and the engine speed there, at which a pulley slips; null where none does within the map. */
  first: { rpm: number; load: number; pulley: string } | null;
}

export interface MapAsk {
  belt: string;
  running: Running;
  rpmFrom: number;
  rpmTo: number;
  columns?: number;
  rows?: number;
}

/** The map goes to half as much load again as the state's own; where nothing slips until then, to what does. */
const MOST_LOADS = [1.5, 2, 3, 4, 6, 8];

/**
 * The worst margin over engine speed and load, wet or dry as the state says. Torques grow with the load alike; null for
 * a belt that cannot lie.
 */
export function marginMap(
  tension: DriveTension,
  { belt, running, rpmFrom, rpmTo, columns = 60, rows = 40 }: MapAsk,
): MarginMap | null {
  const b = tension.lines.findIndex(({ id }) => id === belt);
  const standing = tension.staticBelts[b];
  if (!standing) return null;
  const spread = (from: number, to: number, count: number) =>
    Array.from({ length: count }, (_, k) => from + ((to - from) * k) / Math.max(1, count - 1));
  const rpms = spread(rpmFrom, rpmTo, columns);
  const speeds = rpms.map((rpm) => ({
    rpm,
    torques: demandOf(tension.transmission, tension.lines, { ...running, rpm, load: 1 }).torques[b] ?? [],
  }));
  const cell = (load: number, { rpm, torques }: (typeof speeds)[number]) =>
    worstOf(
      runBelt(
        standing,
        torques.map((nm) => load * nm),
        { rpm, wet: running.wet ?? false },
      ),
    );
  const slips = (load: number) => speeds.some((speed) => (cell(load, speed)?.margin ?? 0) < 0);
  const max = MOST_LOADS.slice(0, -1).find(slips) ?? MOST_LOADS.at(-1)!;
  const loads = spread(0, max, rows);
  const filled = speeds.map((speed) => ({
    rpm: speed.rpm,
    cells: loads.map((load): MarginCell => {
      const worst = cell(load, speed);
      return { load, margin: worst?.margin ?? null, pulley: worst?.pulley ?? null };
    }),
  }));
  return { columns: filled, rpmFrom, rpmTo, mostLoad: max, first: firstSlip(filled) };
}

/** The lowest load at which a pulley slips, and of its speeds the one with the least margin; null where none does. */
function firstSlip(columns: MarginMap['columns']): MarginMap['first'] {
  const slipping = columns.flatMap(({ rpm, cells }) =>
    cells.flatMap(({ load, margin, pulley }) =>
      margin !== null && margin < 0 && pulley !== null ? [{ rpm, load, margin, pulley }] : [],
    ),
  );
  const [first] = slipping.sort((a, b) => a.load - b.load || a.margin - b.margin);
  return first ? { rpm: first.rpm, load: first.load, pulley: first.pulley } : null;
}
