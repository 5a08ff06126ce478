import {
  addBelt,
  addStation,
  type Adjuster,
  type Belt,
  changeBelt,
  type Drive,
  newBelt,
  newDrive,
  newStation,
  proposedSide,
  type Pulley,
  type Role,
  type RouteStop,
  STARTING_SIZES,
  type Station,
} from '../drive';
import { SECTIONS } from '../section';

/** A bare arrangement to start from: our own, of round figures, for nobody's engine. */
export const LAYOUTS = ['crank', 'two', 'three', 'four', 'arm', 'two-belts'] as const;
export type Layout = (typeof LAYOUTS)[number];

export const LAYOUT_WORDS: Record<Layout, string> = {
  crank: 'The crank alone',
  two: 'Two pulleys',
  three: 'Three pulleys',
  four: 'Four pulleys',
  arm: 'One belt with an arm',
  'two-belts': 'Two V-belts',
};

/** Which belt each is mostly run with. */
export const LAYOUT_SECTION: Record<Layout, string> = {
  crank: 'PK',
  two: 'AV10',
  three: 'AV10',
  four: 'PK',
  arm: 'PK',
  'two-belts': 'AV10',
};

/** One pulley of a layout: what it drives, where its shaft is, mm, and on which belts it carries a sheave. */
interface Place {
  role: Role;
  x: number;
  y: number;
  /** The belts, by number, that run on its drive side; those that ride over it on a smooth face. */
  on?: readonly number[];
  back?: true;
  adjuster?: Adjuster;
}

/** Two V sheaves on a shaft stand so far apart, mm. */
const SHEAVE_STEP = 16;

const SLOT = (x: number, y: number, inAngle: number, outAngle: number): Adjuster => ({
  kind: 'slot-pivot',
  pivot: { x, y },
  inAngle,
  outAngle,
});
const CRANK: Place = { role: 'crankshaft', x: 0, y: 0, on: [0] };

/** In the order in which the belt meets them, the crank turning clockwise. */
const PLACES: Record<Layout, readonly Place[]> = {
  crank: [CRANK],
  two: [CRANK, { role: 'alternator', x: -190, y: 170, on: [0], adjuster: SLOT(-150, 80, 104, 132) }],
  three: [
    CRANK,
    { role: 'alternator', x: -200, y: 170, on: [0], adjuster: SLOT(-160, 80, 104, 132) },
    { role: 'water-pump', x: 0, y: 250, on: [0] },
  ],
  four: [
    CRANK,
    { role: 'alternator', x: -210, y: 150, on: [0], adjuster: SLOT(-170, 60, 104, 132) },
    { role: 'water-pump', x: -30, y: 270, on: [0] },
    { role: 'ac-compressor', x: 200, y: 120, on: [0] },
  ],
  arm: [
    CRANK,
    {
      role: 'tensioner',
      x: -96,
      y: 118,
      back: true,
      on: [0],
      adjuster: {
        kind: 'sprung-arm',
        pivot: { x: -136, y: 49 },
        armLength: 79.8,
        freeAngle: 36,
        fullAngle: 100,
        shortMark: 88,
        longMark: 48,
      },
    },
    { role: 'power-steering', x: -178, y: 260, on: [0] },
    { role: 'idler', x: 52, y: 222, back: true, on: [0] },
    { role: 'alternator', x: 178, y: 306, on: [0] },
    { role: 'ac-compressor', x: 198, y: 66, on: [0] },
  ],
  'two-belts': [
    { ...CRANK, on: [0, 1] },
    { role: 'alternator', x: -200, y: 170, on: [0], adjuster: SLOT(-160, 80, 104, 132) },
    { role: 'water-pump', x: 0, y: 250, on: [0] },
    { role: 'power-steering', x: 210, y: 130, on: [1], adjuster: SLOT(180, 40, 76, 48) },
  ],
};

/** How many belts a layout has. */
const beltsOf = (layout: Layout) => 1 + Math.max(...PLACES[layout].flatMap(({ on = [] }) => on));

/**
 * A drive that starts from a layout with belts of a section: every pulley of a starting size at a rough place, the
 * belts on their routes where there is more than the crank. All of it is to be measured.
 */
export function layoutDrive(layout: Layout, name: string, section: string): Drive {
  const places = PLACES[layout];
  const named = SECTIONS.some((known) => known.name === section) ? section : LAYOUT_SECTION[layout];
  const belted = Array.from({ length: beltsOf(layout) }).reduce<Drive>(
    (drive) => addBelt(drive, newBelt(drive, named)),
    newDrive(name),
  );
  const routes = belted.belts.map((): RouteStop[] => []);
  const drive = places.reduce((before, place) => {
    const { station, stops } = stationOf(before, place, named);
    stops.forEach((stop, belt) => stop && routes[belt]!.push(stop));
    return addStation(before, station);
  }, belted);
  if (places.length < 2) return drive;
  return drive.belts.reduce((routed, { id }, k) => changeBelt(routed, id, { route: routes[k]! }), drive);
}

/** A place of a layout as a shaft, with a sheave for each belt on it, and where each belt meets it. */
function stationOf(
  drive: Drive,
  { role, x, y, on = [], back, adjuster }: Place,
  section: string,
): { station: Station; stops: (RouteStop | undefined)[] } {
  const made = newStation(drive, role, x, y, section);
  const first = made.pulleys[0]!;
  const sheaves = on.map((belt, k): { belt: number; pulley: Pulley } => ({
    belt,
    pulley: back
      ? { id: first.id, plane: 0, surface: 'smooth', diameter: STARTING_SIZES[role] }
      : { ...first, id: k === 0 ? first.id : `${made.id}-${k + 2}`, plane: belt * SHEAVE_STEP },
  }));
  const stops: (RouteStop | undefined)[] = [];
  for (const { belt, pulley } of sheaves) stops[belt] = { pulley: pulley.id, side: proposedSide(pulley) };
  return {
    station: { ...made, pulleys: sheaves.map(({ pulley }) => pulley), ...(adjuster && { adjuster }) },
    stops,
  };
}

/**
 * Another drive to start from: its shafts where they stand, its obstacles and routes, with its parts (sizes, adjusters,
 * sections, what accessories give and take) or with pulleys of starting sizes to be measured. What was read, found and
 * done on it stays with it.
 */
export function startedFrom(drive: Drive, name: string, parts: boolean): Drive {
  const {
    survey: _survey,
    speedChecks: _checks,
    use: _use,
    noise: _noise,
    inspect: _inspect,
    job: _job,
    ...more
  } = drive;
  const { align, loads, ...rest } = more;
  return {
    ...rest,
    name,
    ...(parts && align?.moves && { align: { moves: align.moves } }),
    ...(parts && loads && { loads }),
    belts: drive.belts.map((belt) => beltFrom(belt, parts)),
    stations: parts ? drive.stations : drive.stations.map(bareStation),
  };
}

function beltFrom(
  { measurements: _measured, tensionReadings: _read, care: _care, length: _length, ...belt }: Belt,
  parts: boolean,
): Belt {
  const { staticTension: _set, kgPerMetre: _weighed, ...bare } = belt;
  return parts ? { ...belt, length: null } : { ...bare, length: null };
}

/** A shaft without its own parts: each pulley of its role's starting size. */
function bareStation({ id, role, label, x, y, requires, optional, pulleys, adjuster }: Station): Station {
  return {
    id,
    role,
    ...(label !== undefined && { label }),
    x,
    y,
    ...(requires && { requires }),
    ...(optional && { optional }),
    ...(adjuster && { adjuster }),
    pulleys: pulleys.map((pulley): Pulley =>
      pulley.surface === 'toothed' ? pulley : { ...pulley, diameter: STARTING_SIZES[role] },
    ),
  };
}
