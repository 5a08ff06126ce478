import type { ElectricalLoad, OutputPoint } from '../drive';
import { inOrder, monotoneAt } from '../numeric';

/**
 * The output at a speed between entered points: a monotone curve through them. Held at the last point beyond it; below
 * the first there is nothing to go by, and it counts as none. Null with no point to go by.
 */
export function outputAt(points: readonly OutputPoint[], rpm: number): number | null {
  const sorted = curveOf(points);
  if (sorted.length === 0) return null;
  return rpm < sorted[0]!.x ? 0 : monotoneAt(sorted, rpm);
}

const curveOf = (points: readonly OutputPoint[]) => inOrder(points.map(({ rpm, amps }) => ({ x: rpm, y: amps })));

/** What is switched on, A. */
export function loadOf(loads: readonly ElectricalLoad[]): number {
  return loads.reduce((sum, { amps, on }) => sum + (on ? amps : 0), 0);
}

/**
 * The lowest speed, rev/min of the alternator, from which its output meets a load; null where it never does. Found on
 * the curve to a hundredth of a rev/min.
 */
export function breakEvenRpm(points: readonly OutputPoint[], loadA: number): number | null {
  const sorted = curveOf(points);
  const reached = sorted.findIndex(({ y }) => y >= loadA);
  if (reached < 0) return null;
  let [low, high] = [reached === 0 ? sorted[0]!.x : sorted[reached - 1]!.x, sorted[reached]!.x];
  while (high - low > 0.005) {
    const middle = (low + high) / 2;
    if (monotoneAt(sorted, middle) >= loadA) high = middle;
    else low = middle;
  }
  return high;
}

/**
 * A fan's or pump's power at a speed, from its power at another: it grows with the cube of speed. Flow grows with speed
 * itself.
 */
export function cubedPower(known: { rpm: number; kw: number }, rpm: number): number {
  return known.kw * (rpm / known.rpm) ** 3;
}
