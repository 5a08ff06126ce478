import { type Alignment, alongOf, heightAt, type Plane, slopeAlong } from '../planes';

/** One run, as it limits how far its two pulleys may stand apart: by whether either is squared. */
export interface RunLimits {
  from: string;
  to: string;
  /** The shafts of both. */
  fromShaft: string;
  toShaft: string;
  lengthMm: number;
  /** [from squared][to squared]: what it rises now, mm, and the slopes of both planes along it, radians. */
  variants: readonly (readonly { riseMm: number; low: number; high: number }[])[];
}

const FLAT = [0, 0] as const;

/** The runs of a belt as limits on its pulleys. */
export function runLimits({ solution, planes, seatsMm, runs }: Alignment): RunLimits[] {
  return runs.map(({ from, to, fromAt, toAt, spans, lengthMm }) => {
    const [first, last] = [solution.spans[fromAt]!, solution.spans[spans.at(-1)!]!];
    const end = (plane: Plane, squared: boolean): Plane => (squared ? { ...plane, tilt: FLAT } : plane);
    const variant = (leave: Plane, arrive: Plane) => {
      const slopes = [Math.atan(slopeAlong(leave, alongOf(first))), Math.atan(slopeAlong(arrive, alongOf(last)))];
      return {
        riseMm: heightAt(arrive, last.end) + seatsMm[toAt]! - heightAt(leave, first.start) - seatsMm[fromAt]!,
        low: Math.min(...slopes),
        high: Math.max(...slopes),
      };
    };
    const squares = [false, true];
    return {
      from,
      to,
      fromShaft: planes[fromAt]!.station,
      toShaft: planes[toAt]!.station,
      lengthMm: Math.max(lengthMm, 1e-3),
      variants: squares.map((a) => squares.map((b) => variant(end(planes[fromAt]!, a), end(planes[toAt]!, b)))),
    };
  });
}

/** How far the pulleys of a run may move against each other, mm, that its angles keep within `limit` radians. */
export function between(
  { lengthMm, variants }: RunLimits,
  fromSquared: boolean,
  toSquared: boolean,
  limit: number,
): [number, number] {
  const { riseMm, low, high } = variants[Number(fromSquared)]![Number(toSquared)]!;
  const steep = Math.PI / 2 - 1e-6;
  const min = Math.tan(Math.max(-steep, high - limit)) * lengthMm - riseMm;
  const max = Math.tan(Math.min(steep, low + limit)) * lengthMm - riseMm;
  return [min, max];
}

/** The worst angle of a run with its pulleys moved by so much, radians. */
export function angleWith(run: RunLimits, fromSquared: boolean, toSquared: boolean, moved: number): number {
  const { riseMm, low, high } = run.variants[Number(fromSquared)]![Number(toSquared)]!;
  const slope = Math.atan((riseMm + moved) / run.lengthMm);
  return Math.max(Math.abs(slope - low), Math.abs(slope - high));
}
