import {
  addBelt,
  addStation,
  changeBelt,
  type Drive,
  newBelt,
  newDrive,
  newStation,
  proposedSide,
  type Role,
  type Station,
  SURFACE_OF,
} from '../drive';
import { type DriveSolution, loopRound, solveDrive } from '../path';
import { cordRadiusMm, markedLengthMm, type Section, sectionFor } from '../section';

/** A pulley's size as it is read: across it, mm, or in teeth. */
export type PulleySize = { diameter: number } | { teeth: number };

export interface TwoPulleysAsk {
  section: string;
  ribs?: number;
  crank: PulleySize;
  other: PulleySize;
  role: Role;
  /** Between the shafts, mm. */
  distanceMm: number | null;
  /** Marked length of the belt, mm, in place of the distance. */
  lengthMm: number | null;
}

/** What a belt round two pulleys cannot be: it would not go round them even were they side by side. */
export type TwoPulleysProblem = 'belt-too-short' | 'no-belt-between';

export interface TwoPulleys {
  /** The two as a drive, crank first, with what was asked; at a distance of Emery's choosing where nobody gave one. */
  drive: Drive;
  /** The other pulley's shaft. */
  station: string;
  solution: DriveSolution;
  /** Its turns for one of the crank. */
  ratio: number;
  /** Null where neither distance nor length is known, or no belt goes round. */
  distanceMm: number | null;
  lengthMm: number | null;
  wrapDeg: { crank: number; other: number } | null;
  problem: TwoPulleysProblem | null;
}

/** With nothing said, the shafts stand so many times the pulleys' radii apart. For the drawing alone. */
const ASSUMED_APART = 1.6;

/**
 * Length, wraps and ratio of a belt round the crank and one other pulley; or, from its marked length, the distance of
 * the shafts. Null where a size is not above zero, or the section is none Emery knows.
 */
export function twoPulleys(ask: TwoPulleysAsk): TwoPulleys | null {
  const section = sectionFor(ask.section);
  const base = section && bare(ask, section);
  if (!base) return null;
  const [crank, other] = base.stations as [Station, Station];
  const radii = [crank, other].map(({ pulleys: [pulley] }) => cordRadiusMm(pulley!, 'drive', section)) as [
    number,
    number,
  ];
  if (!(radii[0] > 0 && radii[1] > 0)) return null;
  const given = ask.distanceMm ?? (ask.lengthMm === null ? null : distanceFor(ask.lengthMm, radii, section));
  const apart = given ?? ASSUMED_APART * (radii[0] + radii[1]);
  const drive = {
    ...base,
    stations: [crank, { ...other, x: apart }],
    belts: base.belts.map((belt) => (ask.lengthMm === null ? belt : { ...belt, length: ask.lengthMm })),
  };
  const solution = solveDrive(drive);
  const [solved] = solution.belts;
  const known = given !== null && solved!.length.mm !== null;
  return {
    drive,
    station: other.id,
    solution,
    ratio: radii[0] / radii[1],
    distanceMm: known ? given : null,
    lengthMm: known ? solved!.length.mm : null,
    wrapDeg: known ? { crank: solved!.contacts[0]!.wrapDeg!, other: solved!.contacts[1]!.wrapDeg! } : null,
    problem: problemOf(ask, given, known),
  };
}

/** Why there is no answer: the belt is too short for the pulleys, or their rims meet at that distance. */
function problemOf(
  { distanceMm, lengthMm }: Pick<TwoPulleysAsk, 'distanceMm' | 'lengthMm'>,
  given: number | null,
  known: boolean,
): TwoPulleys['problem'] {
  if (distanceMm === null && lengthMm !== null && given === null) return 'belt-too-short';
  return given !== null && !known ? 'no-belt-between' : null;
}

/** Crank and other pulley with the belt on both, both at the datum yet. */
function bare({ section, ribs, crank, other, role }: TwoPulleysAsk, { kind }: Section): Drive | null {
  if (![crank, other].every((size) => ('teeth' in size ? size.teeth : size.diameter) > 0)) return null;
  if (kind === 'toothed' ? !('teeth' in crank && 'teeth' in other) : 'teeth' in crank || 'teeth' in other) return null;
  const empty = newDrive('Two pulleys');
  const belt = { ...newBelt(empty, section), ...(kind === 'ribbed' && ribs !== undefined && { ribs }) };
  const stations = (
    [
      ['crankshaft', crank],
      [role, other],
    ] as const
  ).map(([as, size]): Station => {
    const made = newStation(empty, as, 0, 0, section);
    const grooves = kind === 'ribbed' && ribs !== undefined ? { grooves: ribs } : {};
    // Whatever it does, the belt's drive side runs on it.
    const surface = SURFACE_OF[kind];
    const { id } = made.pulleys[0]!;
    return { ...made, pulleys: [{ id, plane: 0, surface, ...size, ...grooves } as Station['pulleys'][number]] };
  });
  const drive = stations.reduce(addStation, addBelt(empty, belt));
  const route = stations.map(({ pulleys: [pulley] }) => ({ pulley: pulley!.id, side: proposedSide(pulley!) }));
  return changeBelt(drive, belt.id, { route });
}

/** The distance at which a belt of a marked length lies round two cord circles, mm; null for one that is too short. */
function distanceFor(lengthMm: number, [first, second]: readonly [number, number], section: Section): number | null {
  const cord = lengthMm - markedLengthMm(0, section);
  const at = (apart: number) =>
    loopRound([
      { x: 0, y: 0, radius: first, turn: 1 },
      { x: apart, y: 0, radius: second, turn: 1 },
    ])?.length ?? 0;
  // Longer the further they stand apart: from one circle just inside the other to nothing but two straight spans.
  let [near, far] = [Math.abs(first - second) + 1e-9, cord / 2];
  if (!(far > near) || at(near) > cord) return null;
  for (let round = 0; round < 80; round += 1) {
    const middle = (near + far) / 2;
    if (at(middle) > cord) far = middle;
    else near = middle;
  }
  return (near + far) / 2;
}
