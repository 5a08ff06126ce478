import { adjusterKind, travelFromSlack, travelOf } from '../adjuster';
import type { Adjuster, Belt, Drive, Rotation, Station } from '../drive';
import { centresAreFixed, isStretchFit, puttingOn, type PuttingOn } from '../seating';
import type { BeltOrder } from './order';
import { headingDeg } from '../numeric';

/** How a belt is slackened and set: by which kind of adjuster, by its stretch alone, or in a way that nobody said. */
export type HeldBy = Exclude<Adjuster['kind'], 'fixed'> | 'stretch-fit' | 'fixed' | 'not-said';

/** A belt of a job, with what holds it. */
export interface HeldBelt {
  belt: Belt;
  by: HeldBy;
  /** The shaft that is moved for it; null where none is. */
  station: Station | null;
  lastOn: string | null;
  release: PuttingOn['release'];
}

export const idOf = ({ belt }: Pick<HeldBelt, 'belt'>): string => belt.id;

/** What holds a belt, without working out where it goes on. */
export function heldBy(drive: Drive, belt: Belt): HeldBy {
  const kind = travelOf(drive, belt)?.kind;
  if (kind !== undefined && kind !== 'fixed') return kind;
  if (isStretchFit(belt)) return 'stretch-fit';
  return centresAreFixed(drive, belt) ? 'fixed' : 'not-said';
}

export function heldBelt(drive: Drive, belt: Belt): HeldBelt {
  const travel = travelOf(drive, belt);
  const { lastOn, release } = puttingOn(drive, belt.id) ?? { lastOn: null, release: null };
  const station = drive.stations.find(({ id }) => id === travel?.station) ?? null;
  return { belt, by: heldBy(drive, belt), station, lastOn: lastOn?.pulley ?? null, release };
}

/** Whether a hand sets it, and can set it again after its run-in. */
export const isSetByHand = ({ by }: Pick<HeldBelt, 'by'>): boolean => (kindBy(by)?.setting ?? null) !== null;

/** How a belt held so is slackened and set; null for one that nothing moves. */
export const stepsBy = (by: HeldBy | undefined) => kindBy(by)?.steps ?? null;

const kindBy = (by: HeldBy | undefined) =>
  by === undefined || by === 'stretch-fit' || by === 'not-said' ? null : adjusterKind(by);

/** The belts that a job is done on. */
export interface JobBelts {
  /** In the order in which they come off. */
  off: readonly HeldBelt[];
  /** Belts that stay on and come slack with one of those, for the same shaft tightens them. */
  along: readonly HeldBelt[];
}

export function jobBelts(drive: Drive, order: BeltOrder): JobBelts {
  const routed = drive.belts.filter(({ route }) => route.length > 1).map((belt) => heldBelt(drive, belt));
  const off = order.off.flatMap((id) => routed.find(({ belt }) => belt.id === id) ?? []);
  const moved = new Set(off.map(({ station }) => station?.id));
  const along = routed.filter((belt) => !off.includes(belt) && belt.station !== null && moved.has(belt.station.id));
  return { off, along };
}

/** Belts together by the shaft that holds them, in the order in which they first come. */
export function byStation(belts: readonly HeldBelt[]): { station: Station; belts: HeldBelt[] }[] {
  const groups = new Map<string, { station: Station; belts: HeldBelt[] }>();
  for (const belt of belts) {
    if (!belt.station) continue;
    const group = groups.get(belt.station.id);
    if (group) group.belts.push(belt);
    else groups.set(belt.station.id, { station: belt.station, belts: [belt] });
  }
  return [...groups.values()];
}

/** Which way a shaft goes on the drawing as its belt is tightened: about its pivot, and along. */
export interface TightWay {
  /** Degrees, counter-clockwise from the right. */
  angleDeg: number;
  turn: Rotation | null;
}

/** Null where nothing moves the shaft, as between the halves of a split sheave. */
export function tightWay(drive: Drive, { belt, station }: Pick<HeldBelt, 'belt' | 'station'>): TightWay | null {
  const travel = travelFromSlack(drive, belt);
  if (!travel || !station) return null;
  const [slack, tight] = [0, 1].map((end) => travel.at(end).stations.find(({ id }) => id === station.id)!);
  const [dx, dy] = [tight!.x - slack!.x, tight!.y - slack!.y];
  if (Math.hypot(dx, dy) < 1e-6) return null;
  const pivot = station.adjuster && 'pivot' in station.adjuster ? station.adjuster.pivot : null;
  const turned = pivot && (slack!.x - pivot.x) * (tight!.y - pivot.y) - (slack!.y - pivot.y) * (tight!.x - pivot.x);
  return {
    angleDeg: headingDeg(dx, dy),
    turn: turned === null ? null : senseOf(turned),
  };
}

const senseOf = (turned: number): Rotation => (turned > 0 ? 'ccw' : 'cw');
