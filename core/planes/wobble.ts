import { Matrix } from 'ml-matrix';
import { pseudoSolve } from '../numeric';
import { ONE_PLACE, type PlaneReading } from './fit-plane';

/** What turns with a pulley: its slope along x and y as it stood unturned, and one standard deviation of either. */
export interface Wobble {
  x: number;
  y: number;
  sigma: number;
}

/**
 * The wobble of a pulley, from readings at one place of its rim with the pulley turned between them: what turns with it
 * differs, all else is the same. The least wobble that explains them; null where no place was read after a turn.
 */
export function wobbleOf(readings: readonly PlaneReading[]): Wobble | null {
  const rows: number[][] = [];
  const values: number[] = [];
  let [spread, variance] = [0, 0];
  for (const group of samePlaces(readings)) {
    const slopes = group.map((reading) => slopesAt(reading));
    const mean = [0, 1].map((i) => slopes.reduce((sum, slope) => sum + slope[i]!, 0) / group.length);
    const level = group.reduce((sum, { mm }) => sum + mm, 0) / group.length;
    group.forEach(({ mm, sigma }, k) => {
      const row = slopes[k]!.map((slope, i) => slope - mean[i]!);
      if (Math.hypot(...row) < 1e-9) return;
      rows.push(row.map((part) => part / sigma));
      values.push((mm - level) / sigma);
      spread += row[0]! ** 2 + row[1]! ** 2;
      variance += (row[0]! ** 2 + row[1]! ** 2) * sigma ** 2;
    });
  }
  if (rows.length === 0) return null;
  const [x, y] = pseudoSolve(new Matrix(rows), values).change;
  return { x: x!, y: y!, sigma: Math.sqrt(variance) / spread };
}

/** A pulley wobbles worth a word from this much run-out on, mm, and twice its ±. A default. */
export const WOBBLES_MM = 0.5;

/** How far a rim of that radius, mm, runs out as it turns, and whether that is worth a word. */
export function runOutOf(wobble: Wobble | null, radius: number): { runOutMm: number; wobbles: boolean } {
  const steep = wobble ? Math.hypot(wobble.x, wobble.y) : 0;
  const runOutMm = 2 * radius * steep;
  return { runOutMm, wobbles: wobble !== null && steep > 2 * wobble.sigma && runOutMm >= WOBBLES_MM };
}

/** The readings as they would be without the wobble. */
export function withoutWobble(readings: readonly PlaneReading[], { x, y }: Wobble): PlaneReading[] {
  return readings.map((reading) => {
    const [alongX, alongY] = slopesAt(reading);
    return { ...reading, mm: reading.mm - x * alongX! - y * alongY! };
  });
}

/** Where the reading's place on the rim is on the pulley as it stood unturned. */
function slopesAt({ at, radius, turned }: PlaneReading): number[] {
  return at === null ? [0, 0] : [radius * Math.cos(at - turned), radius * Math.sin(at - turned)];
}

/** Readings at one place of the rim, where there are several. */
function samePlaces(readings: readonly PlaneReading[]): PlaneReading[][] {
  const groups: PlaneReading[][] = [];
  for (const reading of readings) {
    if (reading.at === null) continue;
    const group = groups.find(([first]) => 2 * Math.abs(Math.sin((first!.at! - reading.at!) / 2)) < ONE_PLACE);
    if (group) group.push(reading);
    else groups.push([reading]);
  }
  return groups.filter(({ length }) => length > 1);
}
