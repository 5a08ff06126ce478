import type { InspectFinding } from '../drive';
import type { BeltSolution } from '../path';

/** How sure a place on a belt is marked, mm, one standard deviation: a thumb on the drawing, a tape on the belt. */
const PLACE_SIGMA_MM = 4;
/** Fewer marks than these repeat with anything. */
const LEAST_PLACES = 3;
/** A pulley is named where marks at random would fit it, or any other of the drive, less often than this. */
const BY_CHANCE = 0.05;
/** Marks off their beat by more standard deviations than this do not belong to it. */
const APART = 2.5;

/** Damage along a belt that comes back once each turn of a pulley. */
export interface Repeat {
  pulley: string;
  /** What the pulley takes up of the belt in one turn, mm. */
  turnMm: number;
  /** Where the first of the beats lies, mm from the chalk mark. */
  firstMm: number;
  /** How often marks at random would fit as well. */
  byChance: number;
}

/** Where damage was marked along a belt, mm from its chalk mark, from all its findings, in order. */
export function placesOf(findings: readonly InspectFinding[]): number[] {
  return [...new Set(findings.flatMap(({ places = [] }) => places))].sort((a, b) => a - b);
}

/**
 * The pulley whose turn marked places along a belt repeat with: a nick in a groove or a stone in it hits the belt once
 * a turn. The one that marks at random would fit least often; null where chance may have done it.
 */
export function repeatOf(belt: BeltSolution, places: readonly number[]): Repeat | null {
  if (places.length < LEAST_PLACES || !belt.cordLength) return null;
  const met = new Set<string>();
  const turns = belt.contacts.flatMap(({ pulley, cordRadius }) => {
    const turnMm = 2 * Math.PI * (cordRadius ?? 0);
    // One that takes up half the belt in a turn has too few turns along it to be told.
    if (!(turnMm > 0) || met.has(pulley) || turnMm > belt.cordLength! / 2) return [];
    met.add(pulley);
    return [{ pulley, turnMm }];
  });
  const fits = turns.flatMap(({ pulley, turnMm }): Repeat[] => {
    const firstMm = beatOf(places, turnMm);
    const off = places.map((place) => Math.abs(offBeat(place - firstMm, turnMm)));
    if (off.some((mm) => mm > APART * PLACE_SIGMA_MM)) return [];
    // Places at random all lie within the same width of the turn, wherever that begins.
    const width = Math.min(1, (2 * APART * PLACE_SIGMA_MM) / turnMm);
    const byChance = Math.min(1, turns.length * places.length * width ** (places.length - 1));
    return [{ pulley, turnMm, firstMm, byChance }];
  });
  const best = fits.reduce<Repeat | null>((best, fit) => (best && best.byChance <= fit.byChance ? best : fit), null);
  return best && best.byChance < BY_CHANCE ? best : null;
}

/** How far a place lies from the nearest beat, mm. */
const offBeat = (mm: number, turnMm: number) => mm - turnMm * Math.round(mm / turnMm);

/** The beat that places lie nearest to: their mean on the circle of one turn, mm from 0 to a turn. */
function beatOf(places: readonly number[], turnMm: number): number {
  const angle = (place: number) => (2 * Math.PI * place) / turnMm;
  const mean = Math.atan2(
    places.reduce((sum, place) => sum + Math.sin(angle(place)), 0),
    places.reduce((sum, place) => sum + Math.cos(angle(place)), 0),
  );
  return (((mean / (2 * Math.PI)) * turnMm) % turnMm) + (mean < 0 ? turnMm : 0);
}
