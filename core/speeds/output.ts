import type { ElectricalLoad, OutputPoint } from '../drive';
/**
 * The output at a speed between entered points, by monotone cubic interpolation (Fritsch and Carlson 1980): the curve
 * passes through every point and nowhere rises where they fall. Held at the last point beyond it; below the first there
 * is nothing to go by, and it counts as none. Null with no point to go by.
 */
export function outputAt(points: readonly OutputPoint[], rpm: number): number | null {
  const sorted = tidy(points);
  if (sorted.length === 0) return null;
  const [first, last] = [sorted[0]!, sorted.at(-1)!];
  if (rpm < first.rpm) return 0;
  if (rpm >= last.rpm) return last.amps;
  const slopes = slopesOf(sorted);
  const k = sorted.findIndex((point) => point.rpm > rpm) - 1;
  const [a, b] = [sorted[k]!, sorted[k + 1]!];
  const width = b.rpm - a.rpm;
  const t = (rpm - a.rpm) / width;
  return (
    (1 + 2 * t) * (1 - t) ** 2 * a.amps +
    t * (1 - t) ** 2 * width * slopes[k]! +
    t * t * (3 - 2 * t) * b.amps +
    t * t * (t - 1) * width * slopes[k + 1]!
  );
}

/** By speed, one point a speed: the last one entered counts. */
function tidy(points: readonly OutputPoint[]): OutputPoint[] {
  return [...new Map(points.map((point) => [point.rpm, point])).values()].sort((a, b) => a.rpm - b.rpm);
}

function slopesOf(points: readonly OutputPoint[]): number[] {
  const secants = points.slice(1).map((point, k) => (point.amps - points[k]!.amps) / (point.rpm - points[k]!.rpm));
  const slopes = points.map((_, k) => {
    const [before, after] = [secants[k - 1], secants[k]];
    if (before === undefined || after === undefined) return before ?? after ?? 0;
    return before * after <= 0 ? 0 : (before + after) / 2;
  });
  secants.forEach((secant, k) => {
    if (secant === 0) {
      slopes[k] = 0;
      slopes[k + 1] = 0;
      return;
    }
    const [a, b] = [slopes[k]! / secant, slopes[k + 1]! / secant];
    const size = Math.hypot(a, b);
    if (size <= 3) return;
    slopes[k] = (3 * a * secant) / size;
    slopes[k + 1] = (3 * b * secant) / size;
  });
  return slopes;
}

/** What is switched on, A. */
export function loadOf(loads: readonly ElectricalLoad[]): number {
  return loads.reduce((sum, { amps, on }) => sum + (on ? amps : 0), 0);
}

/**
 * The lowest speed, rev/min of the alternator, from which its output meets a load; null where it never does. Found on
 * the curve to a hundredth of a rev/min.
 */
export function breakEvenRpm(points: readonly OutputPoint[], loadA: number): number | null {
  const sorted = tidy(points);
  const reached = sorted.findIndex(({ amps }) => amps >= loadA);
  if (reached < 0) return null;
  let [low, high] = [reached === 0 ? sorted[0]!.rpm : sorted[reached - 1]!.rpm, sorted[reached]!.rpm];
  while (high - low > 0.005) {
    const middle = (low + high) / 2;
    if (outputAt(sorted, middle)! >= loadA) high = middle;
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
