import {
  type Adjuster,
  addBelt,
  type Belt,
  type Bolt,
  changeBelt,
  changeStation,
  type Drive,
  type Pulley,
  putItem,
  type Station,
} from '../drive';
import { putFinding } from '../inspect';
import { DEMO } from './demo';
import { driveOf, type Stop } from './examples';

/* Drives of every kind that a job card is written for. Not part of the public surface. */

/** A crank, a water pump and an alternator by one V-belt; `alt` takes the adjuster. */
const THREE: Stop[] = [
  ['crank', 0, 0, 140],
  ['pump', -60, 250, 130, 'drive', { role: 'water-pump' }],
  ['alt', 210, 170, 70, 'drive', { role: 'alternator' }],
];
const vee = (adjuster?: Adjuster, belt: Partial<Belt> = {}): Drive =>
  changeStation(driveOf(THREE, { section: 'AV10', ...belt }, { crankRotation: 'cw' }), 'alt', {
    label: 'Alternator',
    ...(adjuster && { adjuster }),
  });
const SLOT: Adjuster = { kind: 'slot-pivot', pivot: { x: 150, y: 90 }, inAngle: 72, outAngle: 38 };
const SLIDE: Adjuster = { kind: 'slide', direction: 20, travel: 35 };
const LINK: Adjuster = {
  ...{ kind: 'turnbuckle', pivot: { x: 150, y: 90 }, anchor: { x: 60, y: 210 }, lug: { x: 190, y: 215 } },
  ...{ minLength: 100, maxLength: 160 },
};
const SHIMS: Adjuster = { kind: 'shims', shims: [0.5, 0.5, 0.5, 0.5], spare: [0.5] };

const bolted = (drive: Drive, bolts: readonly Omit<Bolt, 'station'>[], station = 'alt'): Drive =>
  bolts.reduce((now, bolt) => putItem(now, 'job.bolts', { station, ...bolt }), drive);

/** A second groove on every shaft of a drive, so far out, with a belt of its own round some of them. */
function second(drive: Drive, over: readonly string[], plane: number, belt: Partial<Belt>): Drive {
  const stations = drive.stations.map((station): Station => {
    if (!over.includes(station.id)) return station;
    const [pulley] = station.pulleys as readonly [Pulley];
    return { ...station, pulleys: [...station.pulleys, { ...pulley, id: `${station.id}-2`, plane }] };
  });
  const [first] = drive.belts as readonly [Belt];
  return addBelt(
    { ...drive, stations },
    {
      id: 'second',
      section: first.section,
      ...(first.ribs !== undefined && { ribs: first.ribs }),
      length: null,
      route: over.map((id) => ({ pulley: `${id}-2`, side: 'drive' as const })),
      ...belt,
    },
  );
}

/** The demo's serpentine, with its arm changed. */
const armed = (change: Partial<Extract<Adjuster, { kind: 'sprung-arm' }>>): Drive => {
  const { adjuster } = DEMO.rescue.stations.find(({ id }) => id === 'ten')!;
  return changeStation(DEMO.rescue, 'ten', { adjuster: { ...adjuster, ...change } as Adjuster });
};
const withoutMarks = (): Drive => {
  const { shortMark, longMark, ...arm } = DEMO.rescue.stations.find(({ id }) => id === 'ten')!.adjuster as Extract<
    Adjuster,
    { kind: 'sprung-arm' }
  >;
  if (shortMark === undefined || longMark === undefined) throw new Error('The demo arm has its marks.');
  return changeStation(DEMO.rescue, 'ten', { adjuster: arm });
};
const withoutAdjuster = (drive: Drive): Drive => ({
  ...drive,
  stations: drive.stations.map(({ adjuster: _none, ...station }) => station),
});

const bolts: readonly Omit<Bolt, 'station'>[] = [
  { id: 'lock', use: 'lock', size: 'M8', tool: '13 mm socket', torqueNm: 25 },
  { id: 'pivot', use: 'pivot', size: 'M10', tool: '15 mm socket', torqueNm: 47, angleDeg: 60, reuse: 'new' },
  { id: 'screw', use: 'adjust', size: 'M6', tool: '10 mm socket' },
  { id: 'jam', use: 'jam', tool: '10 mm spanner', torqueNm: 12 },
  { id: 'mount', use: 'mount', size: 'M10', torqueNm: 50 },
  { id: 'shroud', use: 'cover', name: 'shroud bolts', tool: '8 mm socket', torqueNm: 8 },
];

/** One belt on the demo truck, made to stretch on in place of its arm. */
const stretched = changeBelt(withoutAdjuster(DEMO.rescue), 'main', { build: 'stretch' });

const pair = second(vee(SLOT, { length: 1168 }), ['crank', 'pump', 'alt'], 14, { length: 1172 });

const nested = second(DEMO.rescue, ['crank', 'ac'], 40, { id: 'outer', build: 'stretch', ribs: 4 });

/** What a card is written for, by name; of some for one belt alone. */
export const JOB_DRIVES: Readonly<Record<string, { drive: Drive; belt?: string }>> = {
  'sprung-arm': { drive: DEMO.rescue },
  'sprung-arm-without-marks': { drive: withoutMarks() },
  'hydraulic-strut': {
    drive: armed({
      strut: {
        anchor: { x: -220, y: 40 },
        lug: { x: -150, y: 120 },
        closed: 80,
        points: [
          { stroke: 0, force: 900 },
          { stroke: 40, force: 300 },
        ],
      },
    }),
  },
  'slot-with-all-bolts': { drive: bolted(vee(SLOT), bolts) },
  'slot-in-the-manuals-order': {
    drive: bolted(vee(SLOT), [
      { id: 'pivot', use: 'pivot', torqueNm: 47, order: 1 },
      { id: 'lock', use: 'lock', torqueNm: 25, order: 2 },
    ]),
  },
  'slide-outward': { drive: vee(SLIDE) },
  'idler-that-presses-inward': {
    drive: changeStation(
      driveOf(
        [
          ['crank', 0, 0, 150],
          ['idler', 150, 60, 70, 'back', { role: 'idler' }],
          ['alt', 220, 250, 70, 'drive', { role: 'alternator' }],
          ['pump', -80, 260, 130, 'drive', { role: 'water-pump' }],
        ],
        { ribs: 5 },
      ),
      'idler',
      { label: 'Idler', adjuster: { kind: 'slide', direction: 170, travel: 40 } },
    ),
  },
  turnbuckle: { drive: vee(LINK) },
  'split-sheave': { drive: vee(SHIMS) },
  'fixed-centres': { drive: vee({ kind: 'fixed' }) },
  'stretch-fit': { drive: stretched },
  'nothing-said': { drive: vee() },
  'pair-on-one-adjuster': { drive: pair },
  'two-belts-one-adjuster': { drive: DEMO.pickup },
  'one-belt-of-two-on-one-adjuster': { drive: DEMO.pickup, belt: 'outer' },
  'stretch-fit-in-front-of-a-serpentine': { drive: nested },
  toothed: { drive: DEMO.climb },
  jackshaft: { drive: DEMO.groomer },
  'two-belts-on-one-arm': { drive: second(DEMO.rescue, ['crank', 'ten', 'alt'], -30, { ribs: 4 }) },
  'worn-and-dirty': {
    drive: (
      [
        [
          { on: 'arm', target: 'ten-1' },
          { check: 'stroke', outcome: 'stuck' },
        ],
        [
          { on: 'pulley', target: 'alt-1' },
          { check: 'spin', outcome: 'grinds' },
        ],
        [
          { on: 'pulley', target: 'crank-1' },
          { check: 'grooves', outcome: 'paint' },
        ],
        [
          { on: 'belt', target: 'main' },
          { check: 'oil', outcome: 'yes' },
        ],
      ] as const
    ).reduce(
      (now, [part, found]) => putFinding(now, part, found, { at: '2026-11-20T08:00:00Z' }),
      bolted(DEMO.rescue, [{ id: 'mount', use: 'mount', torqueNm: 42 }], 'ten'),
    ),
  },
  'no-belt': { drive: { ...vee(SLOT), belts: [] } },
};
