import type { Belt, Drive } from '../drive';
import { sectionFor } from '../section';
import { type LengthCurve, pathLength } from './curve';
import { armAngles } from './travel';

/** Stiffness of a belt's cords, EA in N. Defaults: by rib of PK or by section, scaled with the width for others. */
export function stiffnessN(belt: Belt): number {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  if (section.kind === 'ribbed') return 14_000 * (section.width / 3.56) * (belt.ribs ?? 1);
  if (section.kind === 'vee') return 60_000 + ((section.width - 10) * (90_000 - 60_000)) / 3;
  return 200_000;
}

/**
 * Static tension in a belt that a sprung arm holds at a fraction of its travel, N: by virtual work the spring's torque
 * over the change of path with the arm's angle (T = torque / (dL/dφ)). Null where the spring is not known or the path
 * has stopped growing.
 */
export function armTension(drive: Drive, belt: Belt, { travel }: LengthCurve, fraction: number): number | null {
  const { adjuster } = drive.stations.find(({ id }) => id === travel.station)!;
  if (adjuster?.kind !== 'sprung-arm') return null;
  const { free, full } = armAngles(adjuster);
  const { springTorqueAtFree: atFree, springRate: rate = 0 } = adjuster;
  if (atFree === undefined) return null;
  const torqueNm = atFree + rate * Math.abs(travel.readingAt(fraction) - free);
  const step = 1e-4;
  const [less, more] = [pathLength(travel.at(fraction - step), belt), pathLength(travel.at(fraction + step), belt)];
  if (less === null || more === null) return null;
  const perRadian = (more - less) / (2 * step * Math.abs(free - full) * (Math.PI / 180));
  return perRadian > 1e-6 ? (torqueNm * 1000) / perRadian : null;
}

/**
 * Tension of a belt stretched round a path longer than itself, N; 0 where it hangs loose. Lengths are cord lengths, mm.
 */
export function stretchTension(belt: Belt, pathMm: number, beltMm: number): number {
  return Math.max(0, (stiffnessN(belt) * (pathMm - beltMm)) / beltMm);
}
