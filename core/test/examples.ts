import type { Belt, Drive, Pulley, Role, Rotation, Station, SurveyReading } from '../drive';
import type { Side } from '../section';

/** Drives for tests, written in one line each. Not part of the public surface. */

/** `[id, x, y, diameter, side, extra]`: one station with one pulley of that id, and the side the belt rides on. */
export type Stop = [
  id: string,
  x: number,
  y: number,
  diameter: number,
  side?: Side,
  extra?: Partial<Pulley> & { role?: Role; requires?: Rotation },
];

export function station(
  [id, x, y, diameter, side = 'drive', extra = {}]: Stop,
  surface: Pulley['surface'] = 'ribbed',
): Station {
  const { role = id === 'crank' ? 'crankshaft' : 'other', requires, ...pulley } = extra;
  const face = side === 'back' ? 'smooth' : surface;
  const grooves = face === 'ribbed' ? { grooves: 6 } : {};
  return {
    id,
    role,
    x,
    y,
    ...(requires && { requires }),
    // A test says what it needs of a face, teeth among it.
    pulleys: [{ id, surface: face, diameter, plane: 0, ...grooves, ...pulley } as Pulley],
  };
}

/** A tape that read so much more, mm; an angle as it was. */
export function reread(reading: SurveyReading, by: number): SurveyReading {
  return reading.kind === 'angle' ? reading : { ...reading, mm: reading.mm + by };
}

export function driveOf(stops: Stop[], belt: Partial<Belt> = {}, change: Partial<Drive> = {}): Drive {
  const section = belt.section ?? 'PK';
  const surface = section === 'PK' ? 'ribbed' : section === 'L' || section === 'H' ? 'toothed' : 'vee';
  return {
    format: 'emery-drive',
    version: 1,
    name: 'test drive',
    crankRotation: 'ccw',
    stations: stops.map((stop) => station(stop, surface)),
    belts: [
      {
        id: 'main',
        section,
        ...(section === 'PK' && { ribs: 6 }),
        length: null,
        route: stops.map(([pulley, , , , side = 'drive']) => ({ pulley, side })),
        ...belt,
      },
    ],
    ...change,
  };
}

/** A serpentine with two back-side pulleys that closes, listed for a crank that turns clockwise. */
export const SERPENTINE: Stop[] = [
  ['crank', 0, 0, 168],
  ['ten', -96, 118, 72, 'back', { role: 'tensioner' }],
  ['pump', -178, 260, 132],
  ['idler', 52, 222, 76, 'back', { role: 'idler' }],
  ['alt', 178, 306, 58, 'drive', { role: 'alternator' }],
  ['ac', 198, 66, 118, 'drive', { role: 'ac-compressor' }],
];
