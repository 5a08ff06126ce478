import type { PlacedPulley } from '../drive/look-up';
import type { Belt, Drive, Side } from '../drive/types';
import { bodyRadiusMm, cordRadiusMm, sectionFor } from '../section';
import type { Finding } from './finding';

/** How a shaft turns: +1 counter-clockwise, and how many times for each turn of the crank. */
export interface Shaft {
  turn: 1 | -1;
  ratio: number;
}

/** The turning of every shaft the crank reaches, the sense of every belt, and what does not agree. */
export interface Shafts {
  byStation: Map<string, Shaft>;
  /** By belt id: +1 where the belt bends counter-clockwise on its drive side. */
  senses: Map<string, 1 | -1>;
  findings: Map<string, Finding[]>;
  driven: Set<string>;
}

/**
 * Follows the turning from the crank from belt to belt, through jackshafts. On one belt all drive-side pulleys turn one way and
 * all back-side pulleys the other, with cord speed the same at every contact.
 */
export function followShafts(drive: Drive, pulleys: ReadonlyMap<string, PlacedPulley>): Shafts {
  const crankTurn = drive.crankRotation === 'ccw' ? 1 : -1;
  const shafts: Shafts = { byStation: new Map(), senses: new Map(), findings: new Map(), driven: new Set() };
  const crank = drive.stations.find(({ role }) => role === 'crankshaft');
  if (crank) shafts.byStation.set(crank.id, { turn: crankTurn, ratio: 1 });
  const waiting = new Set(drive.belts);
  for (let reached = true; reached; ) {
    reached = false;
    for (const belt of waiting) {
      if (!driveBelt(belt, pulleys, shafts)) continue;
      waiting.delete(belt);
      reached = true;
    }
  }
  for (const belt of waiting) shafts.senses.set(belt.id, crankTurn);
  return shafts;
}

function driveBelt(belt: Belt, pulleys: ReadonlyMap<string, PlacedPulley>, shafts: Shafts): boolean {
  const section = sectionFor(belt.section, belt.sectionOverrides);
  if (!section) return false;
  const stops = belt.route.map(({ pulley, side }) => {
    const placed = pulleys.get(pulley)!;
    // A pulley that was never measured has a belt's thickness for a radius, and no speed to speak of.
    const measured = bodyRadiusMm(placed.pulley, section) > 0;
    return { pulley, side, station: placed.station, radius: measured ? cordRadiusMm(placed.pulley, side, section) : Number.NaN };
  });
  const driver =
    stops.find(({ station }) => station.role === 'crankshaft' && shafts.byStation.has(station.id)) ??
    stops.find(({ station }) => shafts.byStation.has(station.id));
  if (!driver) return false;
  const known = shafts.byStation.get(driver.station.id)!;
  const sense = turnOn(driver.side, known.turn);
  shafts.senses.set(belt.id, sense);
  shafts.driven.add(belt.id);
  const findings: Finding[] = [];
  for (const stop of stops) {
    const turn = turnOn(stop.side, sense);
    const before = shafts.byStation.get(stop.station.id);
    if (!before) {
      const ratio = stop.radius > 0 ? (known.ratio * driver.radius) / stop.radius : Number.NaN;
      shafts.byStation.set(stop.station.id, { turn, ratio });
    } else if (before.turn !== turn) {
      findings.push({ code: 'fights', severity: 'fault', pulley: stop.pulley, figures: { way: turn === 1 ? 'ccw' : 'cw' } });
    }
  }
  shafts.findings.set(belt.id, findings);
  return true;
}

/** A drive-side pulley turns with the belt's sense, a back-side one against it; the same rule read backwards gives the sense. */
export function turnOn(side: Side, sense: 1 | -1): 1 | -1 {
  return side === 'drive' ? sense : sense === 1 ? -1 : 1;
}
