import { type Drive, stationOf } from '../drive';
import { type DriveSolution, solveDrive } from '../path';
import { sectionFor } from '../section';

export type RateKind = 'belt' | 'pulley' | 'tooth' | 'engine';

/** Something of a drive that comes round so many times a second. */
export interface Rate {
  what: RateKind;
  /** A belt; a pulley, the first of its shaft that a belt meets; of the engine, `firing`. */
  id: string;
  hz: number;
  /** The crank's own shaft: it runs in plain bearings, and beats as the engine does. */
  crank?: true;
}

/** Cylinders where a drive says none. A default: a four-stroke fires half as often a turn as it has of them. */
export const DEFAULT_CYLINDERS = 4;

/**
 * How often everything in a drive comes round at an engine speed, rev/min: each belt (its speed over the length of its
 * cord), each shaft that the crank reaches, the teeth of a toothed belt, and the firing of a four-stroke engine.
 */
export function ratesOf(drive: Drive, rpm: number, solution: DriveSolution = solveDrive(drive)): Rate[] {
  const turns = rpm / 60;
  const rates: Rate[] = [];
  const seen = new Set<string>();
  for (const [b, { id, cordPerTurn, cordLength, contacts }] of solution.belts.entries()) {
    if (cordPerTurn !== null && cordLength !== null && cordLength > 0)
      rates.push({ what: 'belt', id, hz: (turns * cordPerTurn) / cordLength });
    for (const { pulley, station, speedRatio } of contacts) {
      if (speedRatio === null || seen.has(station)) continue;
      seen.add(station);
      const crank = stationOf(drive, pulley)?.role === 'crankshaft';
      rates.push({ what: 'pulley', id: pulley, hz: turns * speedRatio, ...(crank && { crank }) });
    }
    const belt = drive.belts[b]!;
    const section = sectionFor(belt.section, belt.sectionOverrides);
    if (section?.kind === 'toothed' && cordPerTurn !== null && section.pitch > 0)
      rates.push({ what: 'tooth', id, hz: (turns * cordPerTurn) / section.pitch });
  }
  const cylinders = drive.noise?.cylinders ?? DEFAULT_CYLINDERS;
  rates.push({ what: 'engine', id: 'firing', hz: (turns * cylinders) / 2 });
  return rates.filter(({ hz }) => Number.isFinite(hz) && hz > 0);
}
