import { type Adjusted, type Network, pictureAt, type Places } from './least-squares';
import { quickFit, type QuickFit } from './quick-fit';
import { isTape, type Observation } from './readings';
import { toDegrees } from '../numeric';

/** A mirror image costs no more than this above the fit, in sums of squares, where it fits as well. */
const AS_WELL = 2;
/** A mirror image nearer than this, mm, or than so many ± of the place, is no other place. */
const APART = { mm: 5, deviations: 3 };

/** Shafts, by index, that each shaft is taped to. */
export function tapedTo(station: number, observations: readonly Observation[]): number[] {
  const found = observations.flatMap(({ kind, from, to }) =>
    isTape(kind) && (from === station || to === station) ? [from === station ? to : from] : [],
  );
  return [...new Set(found)].filter((other) => other >= 0 && other !== station);
}

/**
 * Places with one shaft across the line its neighbours lie along; null where they are fewer than two, or on one spot.
 */
export function acrossFrom(station: number, places: Places, observations: readonly Observation[]): number[] | null {
  const near = tapedTo(station, observations);
  if (near.length < 2) return null;
  const mean = (axis: 0 | 1) => near.reduce((sum, k) => sum + places[2 * k + axis]!, 0) / near.length;
  const [mx, my] = [mean(0), mean(1)];
  let [xx, xy, yy] = [0, 0, 0];
  for (const k of near) {
    const [x, y] = [places[2 * k]! - mx, places[2 * k + 1]! - my];
    [xx, xy, yy] = [xx + x * x, xy + x * y, yy + y * y];
  }
  if (xx + yy < 1) return null;
  const along = 0.5 * Math.atan2(2 * xy, xx - yy);
  const [c, s] = [Math.cos(2 * along), Math.sin(2 * along)];
  const [px, py] = [places[2 * station]! - mx, places[2 * station + 1]! - my];
  const start = [...places];
  start[2 * station] = mx + c * px + s * py;
  start[2 * station + 1] = my + s * px - c * py;
  return start;
}

/**
 * Shafts put across, one after another, for as long as that makes the readings agree better: a sketch may have them on
 * the wrong side.
 */
export function bestSides(observations: readonly Observation[], start: QuickFit, network: Network): QuickFit {
  const { count, datum } = network;
  let best = start;
  for (let round = 0; round < count; round += 1) {
    const tries = Array.from({ length: count }, (_, station) => station).flatMap((station) => {
      const across = station === datum ? null : acrossFrom(station, best.places, observations);
      return across ? [quickFit(observations, across, network)] : [];
    });
    const better = tries.reduce<QuickFit | null>(
      (best, next) => (best === null || next.cost < best.cost ? next : best),
      null,
    );
    if (!better || better.cost > best.cost - 9) break;
    best = better;
  }
  return best;
}

/**
 * Tells which shafts lie on another side of the line between two of their neighbours than they do in the reference:
 * tapes alone cannot tell the sides apart. A shaft nearer than `min` mm to that line has no side.
 */
export function crossedOver(
  observations: readonly Observation[],
  reference: Places,
  { count, datum }: Network,
  min: number,
): (places: Places) => number[] {
  const area = (places: Places, a: number, b: number, c: number) =>
    (places[2 * b]! - places[2 * a]!) * (places[2 * c + 1]! - places[2 * a + 1]!) -
    (places[2 * b + 1]! - places[2 * a + 1]!) * (places[2 * c]! - places[2 * a]!);
  const triples = Array.from({ length: count }, (_, station) => station).flatMap((station) => {
    if (station === datum) return [];
    const near = tapedTo(station, observations);
    const pairs = near.flatMap((a, k) =>
      near.slice(k + 1).map((b) => {
        const size = area(reference, a, b, station);
        return { station, a, b, size, height: Math.abs(size) / Math.max(1, apart(reference, a, b)) };
      }),
    );
    const furthest = pairs.reduce<(typeof pairs)[number] | null>(
      (best, next) => (best === null || next.height > best.height ? next : best),
      null,
    );
    return furthest && furthest.height > min ? [furthest] : [];
  });
  return (places) =>
    triples.filter(({ station, a, b, size }) => area(places, a, b, station) * size < 0).map(({ station }) => station);
}

/**
 * Where each shaft would be across from its neighbours, for those that fit there as well. The whole drive turned or
 * mirrored as one is no other place of any of its shafts.
 */
export function mirrorImages(
  observations: readonly Observation[],
  fit: Adjusted,
  network: Network,
): { station: number; x: number; y: number }[] {
  const stations = Array.from({ length: network.count }, (_, station) => station);
  const crossed = crossedOver(observations, fit.places, network, APART.mm / 2);
  return stations.flatMap((station) => {
    if (station === network.datum || fit.free[station]) return [];
    const min = leastMove(fit, station);
    const start = acrossFrom(station, fit.places, observations);
    if (!start || moved(start, fit.places, station) < min) return [];
    const other = quickFit(observations, start, network);
    if (other.cost > fit.cost + AS_WELL || moved(other.places, fit.places, station) < min) return [];
    const over = crossed(other.places);
    // Of a drive mirrored as one, those that did not cross are the odd ones.
    const odd = over.length > network.count / 2 ? !over.includes(station) : over.includes(station);
    if (!odd) return [];
    const rest = stations.filter((k) => k !== station);
    const reshaped = rest.some((k) => Math.abs(apart(other.places, station, k) - apart(fit.places, station, k)) > min);
    const alone = rest.every((k) => moved(other.places, fit.places, k) < min);
    return reshaped || alone ? [{ station, x: other.places[2 * station]!, y: other.places[2 * station + 1]! }] : [];
  });
}

function apart(places: Places, a: number, b: number): number {
  return Math.hypot(places[2 * a]! - places[2 * b]!, places[2 * a + 1]! - places[2 * b + 1]!);
}

function moved(to: Places, from: Places, station: number): number {
  return Math.hypot(to[2 * station]! - from[2 * station]!, to[2 * station + 1]! - from[2 * station + 1]!);
}

/** Less than this is no move of a shaft, mm. */
function leastMove({ covariance }: Adjusted, station: number): number {
  return Math.max(
    APART.mm,
    APART.deviations *
      Math.hypot(...[2 * station, 2 * station + 1].map((at) => Math.sqrt(Math.max(0, covariance.get(at, at))))),
  );
}

/**
 * The other way the whole drive may be turned, where all that tells its direction is how far one shaft lies across, or
 * up: that one lies as far on either side of the axis. Null where anything else settles it. `deg` is from the fit to
 * the other way.
 */
export function otherWayRound(
  observations: readonly Observation[],
  fit: Adjusted,
  network: Network,
): { deg: number; station: number; x: number; y: number } | null {
  const telling = observations.filter(({ kind }) => kind === 'x' || kind === 'y');
  if (telling.length === 0 || observations.some(({ kind }) => kind === 'angle')) return null;
  const [{ kind, to }] = telling as [Observation];
  const [cx, cy] = [fit.places[2 * network.datum]!, fit.places[2 * network.datum + 1]!];
  const stands = Math.atan2(fit.places[2 * to + 1]! - cy, fit.places[2 * to]! - cx);
  const turn = (kind === 'x' ? 0 : Math.PI) - 2 * stands;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const start = [...fit.places];
  for (let k = 0; k < network.count; k += 1) {
    const [x, y] = [start[2 * k]! - cx, start[2 * k + 1]! - cy];
    [start[2 * k], start[2 * k + 1]] = [cx + c * x - s * y, cy + s * x + c * y];
  }
  network.pictures.forEach((_, picture) => (start[pictureAt(network, picture) + 2]! -= turn));
  const other = quickFit(observations, start, network);
  const moves = Array.from({ length: network.count }, (_, k) => moved(other.places, fit.places, k));
  const station = moves.indexOf(Math.max(...moves));
  if (other.cost > fit.cost + AS_WELL || moves[station]! < leastMove(fit, station)) return null;
  const deg = (((toDegrees(turn) % 360) + 540) % 360) - 180;
  return { deg, station, x: other.places[2 * station]!, y: other.places[2 * station + 1]! };
}
