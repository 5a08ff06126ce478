import { demandOf, type DriveTension, runBelt, type Running, worstOf } from '../loads';

/** The worst margin of a belt over engine speed and load. */
export interface MarginMap {
  rpms: readonly number[];
  /** Loads as a fraction of the state's own torques. */
  loads: readonly number[];
  /** By load, then by speed; null where nothing can slip. */
  margin: (number | null)[][];
  /** The pulley that goes first there. */
  pulley: (string | null)[][];
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
  const standing = tension.standings[b];
  if (!standing) return null;
  const spread = (from: number, to: number, count: number) =>
    Array.from({ length: count }, (_, k) => from + ((to - from) * k) / Math.max(1, count - 1));
  const rpms = spread(rpmFrom, rpmTo, columns);
  const whole = rpms.map(
    (rpm) => demandOf(tension.transmission, tension.lines, { ...running, rpm, load: 1 }).torques[b]!,
  );
  const cell = (load: number, column: number) => {
    const torques = whole[column]!.map((nm) => load * nm);
    return worstOf(standing, runBelt(standing, torques, { rpm: rpms[column]!, wet: running.wet ?? false }));
  };
  const slips = (load: number) => rpms.some((_, column) => (cell(load, column)?.margin ?? 0) < 0);
  const most = MOST_LOADS.slice(0, -1).find(slips) ?? MOST_LOADS.at(-1)!;
  const loads = spread(0, most, rows);
  const cells = loads.map((load) => rpms.map((_, column) => cell(load, column)));
  let first: MarginMap['first'] = null;
  cells.forEach((row, r) => {
    if (first) return;
    const slipping = row.flatMap((cell, c) => (cell && cell.margin < 0 ? [{ ...cell, rpm: rpms[c]! }] : []));
    const worst = slipping.sort((x, y) => x.margin - y.margin)[0];
    if (worst) first = { rpm: worst.rpm, load: loads[r]!, pulley: worst.pulley };
  });
  return {
    rpms,
    loads,
    margin: cells.map((row) => row.map((cell) => cell?.margin ?? null)),
    pulley: cells.map((row) => row.map((cell) => cell?.pulley ?? null)),
    first,
  };
}
