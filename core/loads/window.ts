import { type LimitOf, writtenLimit } from '../accessory';
import type { Point } from '../path';
import { demandOf, type Running } from './demand';
import { type DriveTension, runDrive } from './drive-tension';
import { offsetOf, type Rise, risesOf } from './running';
import type { StaticBelt } from './static-belt';

/** A margin that leaves room for wear, dirt and doubt. A default. */
export const SAFE_MARGIN = 0.25;
/** Of a toothed belt: the slack side keeps this much of what its pulleys take, or teeth ride up. A default. */
const TOOTHED_SLACK = 0.15;

/** What sets one end of a window: a pulley or shaft, in which state. */
export interface WindowEnd {
  tensionN: number;
  pulley: string;
  station: string;
  running: Running;
}

/** Tensions at rest between which a belt is right. */
export interface TensionWindow {
  /** Keeps every margin; null where nothing can slip, 0 where no pulley takes anything. */
  least: WindowEnd | null;
  leastN: number | null;
  /** Pulleys that no tension keeps from slipping: their wrap and grip are too little. */
  never: { pulley: string; station: string; running: Running }[];
  /** Every shaft within its limit; null without limits. */
  most: WindowEnd | null;
  mostN: number | null;
}

/**
 * The tension at rest, N, from which a pulley keeps a margin: the capstan equation solved for it. Null where no tension
 * does; −∞ where the pulley takes nothing. `hold` is its grip times its wrap, `pulls` N by which its spans differ.
 */
export function leastFor(
  { hold, rise, pull, offset }: { hold: number | null; rise: number; pull: number; offset: number },
  margin = SAFE_MARGIN,
): number | null {
  if (pull === 0) return -Infinity;
  // Teeth do not slip; they climb when the slack side has nothing left to hold them in.
  if (hold === null) return TOOTHED_SLACK * pull + offset - rise;
  const left = Math.exp(hold) - 1 - margin;
  return left > 1e-9 ? ((1 + margin) * pull) / left + offset - rise : null;
}

/** What `leastFor` asks of each pulley in a state. */
export function asksOf(standing: StaticBelt, torques: readonly number[], running: Running) {
  const rises = risesOf(standing, torques);
  const offset = offsetAt(standing, rises, running);
  return rises.map(({ contact, torqueNm, arrives, leaves }) => ({
    contact,
    hold: contact.gripExponent && contact.gripExponent[running.wet ? 'wet' : 'dry'],
    rise: Math.min(arrives, leaves),
    pull: torqueNm === 0 ? 0 : Math.abs(arrives - leaves),
    offset,
  }));
}

const offsetAt = (standing: StaticBelt, rises: readonly Rise[], { rpm }: Running) =>
  offsetOf(standing, rises, standing.kgPerMetre * (standing.beltSpeedPerRpm * rpm) ** 2);

/** The right window of a belt's tension at rest over some states of the drive. Null for a belt that cannot lie. */
export function windowOf(
  tension: DriveTension,
  beltId: string,
  states: readonly Running[],
  limitOf: LimitOf = writtenLimit,
): TensionWindow | null {
  const b = tension.lines.findIndex(({ id }) => id === beltId);
  const standing = tension.staticBelts[b];
  if (!standing) return null;
  let min: WindowEnd | null = null;
  let max: WindowEnd | null = null;
  const never: TensionWindow['never'] = [];
  for (const running of states) {
    const torques = demandOf(tension.transmission, tension.lines, running).torques[b] ?? [];
    for (const { contact, ...asked } of asksOf(standing, torques, running)) {
      const { pulley, station } = contact;
      const tensionN = leastFor(asked);
      if (tensionN === null) never.push({ pulley, station, running });
      else if (Number.isFinite(tensionN) && (min === null || tensionN > min.tensionN))
        min = { tensionN: Math.max(0, tensionN), pulley, station, running };
    }
    for (const { end, fromN } of boundsFor(tension, b, standing, torques, running, limitOf)) {
      if (max === null || end.tensionN < max.tensionN) max = end;
      // Another belt pulls the shaft the other way: below this it alone is too much.
      if (fromN > 0 && (min === null || fromN > min.tensionN)) min = { ...end, tensionN: fromN };
    }
  }
  const [low, high] = [min as WindowEnd | null, max as WindowEnd | null];
  return {
    least: low,
    leastN: never.length > 0 ? null : (low?.tensionN ?? 0),
    never,
    most: high,
    mostN: high?.tensionN ?? null,
  };
}

/**
 * The most tension at rest that each shaft of the belt bears in a state, and the least (`fromN`, mostly 0) where
 * another belt pulls it the other way; its other belts pull as they stand.
 */
function boundsFor(
  tension: DriveTension,
  b: number,
  standing: StaticBelt,
  torques: readonly number[],
  running: Running,
  limitOf: LimitOf,
): { end: WindowEnd; fromN: number }[] {
  const { contacts } = standing;
  const limited = tension.drive.stations.flatMap((station) => {
    const limit = limitOf(station);
    const on = contacts.find((contact) => contact.station === station.id);
    return limit === undefined || !on ? [] : [{ station: station.id, limit, pulley: on.pulley }];
  });
  if (limited.length === 0) return [];
  const rises = risesOf(standing, torques);
  const offset = offsetAt(standing, rises, running);
  const others = runDrive(
    { ...tension, staticBelts: tension.staticBelts.map((staticBelt, k) => (k === b ? null : staticBelt)) },
    running,
  );
  return limited.flatMap(({ station, limit, pulley }): { end: WindowEnd; fromN: number }[] => {
    // The load is `fixed` + T · `grows`.
    const fixed = { ...(others.shafts.get(station) ?? { x: 0, y: 0 }) };
    const grows = { x: 0, y: 0 };
    for (const { contact, arrives, leaves } of rises.filter((rise) => rise.contact.station === station)) {
      const [back, on] = [contact.arrives.along, contact.leaves.along];
      fixed.x += (leaves - offset) * on.x - (arrives - offset) * back.x;
      fixed.y += (leaves - offset) * on.y - (arrives - offset) * back.y;
      grows.x += on.x - back.x;
      grows.y += on.y - back.y;
    }
    const range = withinLimit(fixed, grows, limit);
    return range === null ? [] : [{ end: { tensionN: range.to, pulley, station, running }, fromN: range.from }];
  });
}

/**
 * The T of 0 or more with |fixed + T·grows| ≤ limit: from 0 where the shaft bears what pulls it besides, from more
 * where this belt has to hold against it. Both ends 0 where there is none; null where no T is too much.
 */
function withinLimit(fixed: Point, grows: Point, limit: number): { from: number; to: number } | null {
  const a = grows.x ** 2 + grows.y ** 2;
  const half = fixed.x * grows.x + fixed.y * grows.y;
  const c = fixed.x ** 2 + fixed.y ** 2 - limit ** 2;
  if (a < 1e-12) return c <= 0 ? null : { from: 0, to: 0 };
  const inside = half ** 2 - a * c;
  if (inside < 0) return { from: 0, to: 0 };
  const [low, high] = [(-Math.sqrt(inside) - half) / a, (Math.sqrt(inside) - half) / a];
  return high < 0 ? { from: 0, to: 0 } : { from: Math.max(0, low), to: high };
}

/** The most that a shaft bears over some states with one belt at a tension at rest, N. */
export function hardestLoad(
  tension: DriveTension,
  beltId: string,
  station: string,
  states: readonly Running[],
  tensionN: number,
): number {
  return states.reduce((max, running) => {
    const load = runDrive(tension, running, { [beltId]: tensionN }).shafts.get(station) ?? { x: 0, y: 0 };
    return Math.max(max, Math.hypot(load.x, load.y));
  }, 0);
}

/** Bearing life of a load against another, as a ratio: it goes with the load to the power −3. */
export function lifeRatio(loadN: number, againstN: number): number | null {
  return loadN > 0 && againstN > 0 ? (againstN / loadN) ** 3 : null;
}
