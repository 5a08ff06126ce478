import type { Drive } from '../drive';
import { fitPhoto, type PhotoFit, photosOf } from './photo';
import { indexOfPulleys, type Observation } from './readings';

/** What the pictures of a drive put into the network. */
export interface Pictures {
  fits: PhotoFit[];
  observations: Observation[];
  /** Of each picture in `fits`, the correlations of its coordinates. */
  correlations: number[][][];
}

/**
 * The circles of a drive's pictures as observations: each coordinate with its ±, and how those of one picture err
 * together.
 */
export function picturesOf(drive: Drive): Pictures {
  const index = indexOfPulleys(drive);
  const fits = photosOf(drive).map((photo) => fitPhoto(drive, photo));
  const correlations: number[][][] = [];
  const observations = fits.flatMap((fit, picture) => {
    const covariance = withoutFrame(fit);
    const sigmas = covariance.map((row, k) => Math.sqrt(row[k]!));
    correlations.push(covariance.map((row, i) => row.map((value, j) => value / (sigmas[i]! * sigmas[j]!))));
    return fit.circles.flatMap((circle, k) =>
      (['seen-x', 'seen-y'] as const).map((kind, axis): Observation => ({
        id: `${fit.photo} ${circle.pulley}`,
        kind,
        from: -1,
        to: index.get(circle.pulley)!,
        value: axis === 0 ? circle.x : circle.y,
        sigma: sigmas[2 * k + axis]!,
        rims: 0,
        radii: [0, 0],
        seen: { picture, row: 2 * k + axis },
      })),
    );
  });
  return { fits, observations, correlations };
}

/**
 * The covariance of a picture's centres without the part that is a shift or a turn of the whole: these say how the
 * camera was held, not where pulleys sit, and the network has unknowns of their own for them. A little of both is put
 * back, so that the matrix can be inverted.
 */
function withoutFrame({ circles, covariance }: PhotoFit): number[][] {
  const size = 2 * circles.length;
  const [mx, my] = [
    circles.reduce((sum, { x }) => sum + x, 0) / circles.length,
    circles.reduce((sum, { y }) => sum + y, 0) / circles.length,
  ];
  const modes = [
    circles.flatMap(() => [1, 0]),
    circles.flatMap(() => [0, 1]),
    circles.flatMap(({ x, y }) => [my - y, x - mx]),
  ].flatMap((mode) => {
    const length = Math.hypot(...mode);
    return length > 1e-9 ? [mode.map((value) => value / length)] : [];
  });
  const frame = Array.from({ length: size }, (_, i) =>
    Array.from({ length: size }, (_, j) => modes.reduce((sum, mode) => sum + mode[i]! * mode[j]!, 0)),
  );
  const rest = frame.map((row, i) => row.map((value, j) => (i === j ? 1 : 0) - value));
  const times = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]) =>
    a.map((row) => b[0]!.map((_, j) => row.reduce((sum, value, k) => sum + value * b[k]![j]!, 0)));
  if (size === 0) return [];
  const own = times(times(rest, covariance), rest);
  const level = Math.max(0.01, own.reduce((sum, row, k) => sum + row[k]!, 0) / size);
  return own.map((row, i) => row.map((value, j) => value + level * frame[i]![j]!));
}
