import { randomLcg } from 'd3-random';
import { type Drive, pulleysById } from '../drive';
import { normals } from '../numeric';
import { bodyRadiusMm } from '../section';

/** What a laser and its target read, mm out from the crank's plane, with one standard deviation. */
export interface LaserReading {
  mm: number;
  plusMinus: number;
}

/** A laser on the crank and a target held to a pulley's rim. A real one is read the same way. */
export interface LaserSource {
  readonly name: string;
  /** A stand-in that ships with Emery, and reads nothing real. */
  readonly simulated: boolean;
  /** Reads a pulley at a place of its rim, degrees, or its hub: with the engine pulling, or after a turn by so much. */
  read: (pulley: string, at: number | null, state?: { load?: boolean; turned?: number }) => LaserReading;
}

/** What the stand-in hides of one pulley. Lengths mm, angles radians. */
export interface HiddenPlane {
  offset: number;
  tilt: readonly [number, number];
  wobble: number;
  /** How much further it tilts with the engine pulling. */
  gives: number;
}

const NOISE_MM = 0.1;
const degrees = (value: number) => (value * Math.PI) / 180;

/** The planes that a stand-in hides: all a little off, one by two to three mm, one bracket that gives. */
export function hiddenPlanes(drive: Drive, seed: number): Map<string, HiddenPlane> {
  const next = normals(seed);
  const uniform = randomLcg(seed + 1);
  const pulleys = drive.stations.flatMap(({ role, pulleys: own }) => (role === 'crankshaft' ? [] : own));
  const off = Math.floor(uniform() * pulleys.length);
  const soft = Math.floor(uniform() * pulleys.length);
  return new Map(
    pulleys.map(({ id }, k) => [
      id,
      {
        offset: 0.25 * next() + (k === off ? (uniform() < 0.5 ? -1 : 1) * (2 + uniform()) : 0),
        tilt: [degrees(0.1 * next()), degrees(0.1 * next())],
        wobble: degrees(0.05 * Math.abs(next())),
        gives: k === soft ? degrees(0.6) : degrees(0.05),
      },
    ]),
  );
}

/** A laser that ships with Emery: it reads planes it has made up, as pulleys that were moved since have them. */
export function simulatedLaser(drive: Drive, seed = 12): LaserSource {
  const hidden = hiddenPlanes(drive, seed);
  const known = pulleysById(drive);
  const next = normals(seed + (drive.align?.readings?.length ?? 0) + 2);
  return {
    name: 'Simulated laser',
    simulated: true,
    read: (pulley, at, { load = false, turned = 0 } = {}) => {
      const knownOf = known.get(pulley);
      const plane = hidden.get(pulley) ?? { offset: 0, tilt: [0, 0] as const, wobble: 0, gives: 0 };
      const radius = knownOf ? bodyRadiusMm(knownOf.pulley, null) : 0;
      const done = (drive.align?.done ?? []).filter((move) => move.pulley === pulley);
      const squared = done.some(({ kind }) => kind === 'square');
      const moved = done.reduce((sum, { mm = 0 }) => sum + mm, 0);
      const [x, y] = at === null ? [0, 0] : [Math.cos(degrees(at)), Math.sin(degrees(at))];
      const tilt = squared ? 0 : plane.tilt[0] * x + plane.tilt[1] * y;
      const wobble = at === null ? 0 : plane.wobble * Math.cos(degrees(at - turned));
      const gives = load ? plane.gives * y : 0;
      const mm = plane.offset + moved + radius * (tilt + wobble + gives) + NOISE_MM * next();
      return { mm: Math.round(100 * mm) / 100, plusMinus: NOISE_MM };
    },
  };
}
