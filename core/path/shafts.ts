import type { Belt, Drive, PlacedPulley } from '../drive';
import { bodyRadiusMm, cordRadiusMm, type Section, sectionFor, type Side } from '../section';
import type { PathFinding } from './finding';

/** How a shaft turns: +1 counter-clockwise, and how many times for each turn of the crank. */
export interface Shaft {
  turn: 1 | -1;
  ratio: number;
  /** The belt that turns it, from which pulley to which of its own; none for the crank. */
  via?: { belt: string; driver: string; driven: string };
}

/** The turning of every shaft the crank reaches, the sense of every belt, and what does not agree. */
export interface Shafts {
  byStation: Map<string, Shaft>;
  /** By belt id: +1 where the belt bends counter-clockwise on its drive side. */
  senses: Map<string, 1 | -1>;
  findings: Map<string, PathFinding[]>;
  driven: Set<string>;
  /** By belt id: mm of cord that pass in one turn of the crank. */
  cordPerTurn: Map<string, number>;
  /** By belt id: the pulley that turns it. */
  drivers: Map<string, string>;
}

/** Two belts that turn one shaft at speeds further apart than this share fight over it; less is rounding. */
const SAME_RATIO = 2e-4;
/** Belts that can slip wear from so much, and cannot be run from so much. Defaults. */
const FIGHT = { watch: 0.005, fault: 0.03 };

/**
 * Follows the turning from the crank from belt to belt, through jackshafts. On one belt all drive-side pulleys turn one
 * way and all back-side pulleys the other, with cord speed the same at every contact. A shaft that two belts turn must
 * come to one speed by both.
 */
export function followShafts(drive: Drive, pulleys: ReadonlyMap<string, PlacedPulley>): Shafts {
  const crankTurn = drive.crankRotation === 'ccw' ? 1 : -1;
  const shafts: Shafts = {
    byStation: new Map(),
    senses: new Map(),
    findings: new Map(),
    driven: new Set(),
    cordPerTurn: new Map(),
    drivers: new Map(),
  };
  const crank = drive.stations.find(({ role }) => role === 'crankshaft');
  if (crank) shafts.byStation.set(crank.id, { turn: crankTurn, ratio: 1 });
  const waiting = new Set(drive.belts);
  for (let reached = true; reached;) {
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
    return {
      pulley,
      side,
      station: placed.station,
      radius: measured ? cordRadiusMm(placed.pulley, side, section) : Number.NaN,
    };
  });
  const driver =
    stops.find(({ station }) => station.role === 'crankshaft' && shafts.byStation.has(station.id)) ??
    stops.find(({ station }) => shafts.byStation.has(station.id));
  if (!driver) return false;
  const known = shafts.byStation.get(driver.station.id)!;
  const sense = turnOn(driver.side, known.turn);
  shafts.senses.set(belt.id, sense);
  shafts.driven.add(belt.id);
  shafts.drivers.set(belt.id, driver.pulley);
  const cordPerRadian = known.ratio * driver.radius;
  if (cordPerRadian > 0) shafts.cordPerTurn.set(belt.id, 2 * Math.PI * cordPerRadian);
  const findings: PathFinding[] = [];
  for (const stop of stops) {
    const turn = turnOn(stop.side, sense);
    const before = shafts.byStation.get(stop.station.id);
    if (!before) {
      const ratio = stop.radius > 0 ? cordPerRadian / stop.radius : Number.NaN;
      shafts.byStation.set(stop.station.id, {
        turn,
        ratio,
        via: { belt: belt.id, driver: driver.pulley, driven: stop.pulley },
      });
    } else if (before.turn !== turn) {
      findings.push({
        code: 'fights',
        severity: 'fault',
        pulley: stop.pulley,
        figures: { way: turn === 1 ? 'ccw' : 'cw' },
      });
    } else {
      const apart = cordPerRadian / stop.radius / before.ratio - 1;
      if (Math.abs(apart) > SAME_RATIO)
        findings.push({
          code: 'ratios-fight',
          severity: severityOf(Math.abs(apart), section.kind),
          pulley: stop.pulley,
          figures: { percent: 100 * apart },
        });
    }
  }
  shafts.findings.set(belt.id, findings);
  return true;
}

/** Teeth cannot slip; the others wear, and from some point on burn. */
function severityOf(apart: number, kind: Section['kind']): PathFinding['severity'] {
  if (kind === 'toothed' || apart >= FIGHT.fault) return 'fault';
  return apart >= FIGHT.watch ? 'watch' : 'note';
}

/**
 * A drive-side pulley turns with the belt's sense, a back-side one against it; the same rule read backwards gives the
 * sense.
 */
export function turnOn(side: Side, sense: 1 | -1): 1 | -1 {
  if (side === 'drive') return sense;
  return sense === 1 ? -1 : 1;
}
