import { type Drive, seenTrack, stationOf } from '../drive';
import { type Alignment, alongOf, guides, heightAt, slopeAlong } from '../planes';
import { toDegrees } from '../numeric';

/** Off the middle of a smooth face by less than this a track needs no word, mm. A default. */
export const TRACK_WORTH_A_WORD = 1.5;

/** A smooth roller of a belt: to which side it steers, and where the belt should run on it. */
export interface RollerTrack {
  at: number;
  pulley: string;
  /** Its tilt against the belt that comes in, degrees: above 0 it steers the belt out. */
  steersDeg: number;
  /** Where the belt's middle should come to run, off the middle of the face, mm, out is +; its ± too. */
  trackMm: number;
  plusMinusMm: number;
  /** Where its track was seen; null where nobody looked. */
  seenMm: number | null;
}

/**
 * Where the belt runs on the smooth rollers of its route. A belt comes to meet a roller square to its axis (the normal
 * entry rule of web handling), so a tilted one carries it aside until the run that comes in lies in the roller's plane;
 * from there it goes on with the roller's own tilt.
 */
export function rollerTracks(drive: Drive, { belt, solution, planes, seatsMm }: Alignment): RollerTrack[] {
  const { route } = belt;
  const count = route.length;
  const tracks: RollerTrack[] = [];
  const start = route.findIndex((stop) => guides(drive, stop));
  if (start < 0) return [];
  // The belt's height where it leaves the pulley before, and the variance that has gathered since the last guide.
  let [height, variance] = [0, 0];
  for (let step = 0; step < count; step += 1) {
    const at = (start + step) % count;
    const [plane, span] = [planes[at]!, solution.spans[at]!];
    if (guides(drive, route[at]!)) {
      height = heightAt(plane, span.start) + seatsMm[at]!;
      variance = plane.covariance[0]!;
      continue;
    }
    const before = solution.spans[(at + count - 1) % count]!;
    const along = alongOf(before);
    const slope = slopeAlong(plane, along);
    const tilt = [plane.covariance[4]!, plane.covariance[8]!];
    const entry = height + slope * before.length!;
    variance += before.length! ** 2 * (along.x ** 2 * tilt[0]! + along.y ** 2 * tilt[1]!);
    const straight = straightSlope(drive, { belt, solution, planes, seatsMm }, at, height, before.length!);
    tracks.push({
      at,
      pulley: route[at]!.pulley,
      steersDeg: toDegrees(Math.atan(slope) - Math.atan(straight)),
      trackMm: entry - heightAt(plane, before.end),
      plusMinusMm: Math.sqrt(variance + plane.covariance[0]!),
      seenMm: seenTrack(drive, route[at]!.pulley)?.mm ?? null,
    });
    height = entry + heightAt(plane, span.start) - heightAt(plane, before.end);
  }
  return tracks;
}

/** What the belt would rise from where it is to the next guide if nothing steered it, mm a mm. */
function straightSlope(
  drive: Drive,
  { belt: { route }, solution, planes, seatsMm }: Pick<Alignment, 'belt' | 'solution' | 'planes' | 'seatsMm'>,
  from: number,
  height: number,
  already: number,
): number {
  let length = already;
  for (let step = 0, at = from; step < route.length; step += 1, at = (at + 1) % route.length) {
    if (guides(drive, route[at]!)) {
      const end = solution.spans[(at + route.length - 1) % route.length]!.end;
      return (heightAt(planes[at]!, end) + seatsMm[at]! - height) / Math.max(length, 1e-3);
    }
    length += solution.contacts[at]!.arcLength! + solution.spans[at]!.length!;
  }
  return 0;
}

/** An arm's roller that steers, or whose track is off, speaks of a cocked arm or a failing bearing. */
export const onAnArm = (drive: Drive, pulley: string): boolean =>
  stationOf(drive, pulley)?.adjuster?.kind === 'sprung-arm';
