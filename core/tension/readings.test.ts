import fc from 'fast-check';
import { armTorque } from '../adjuster';
import type { Drive, Station, TensionReading } from '../drive';
import { driveOf } from '../test/examples';
import { hotRise, newBeltFigures, tensionOf } from '../loads';
import { armHealth } from './arm-health';
import { calibrated, combineReadings, meaningOf, pointerTension } from './readings';
import { settingFor, sharedSettings } from './setting';
import { spanFigures, waysOf } from './ways';

/** Crank and alternator on ribs, the alternator in a slide. */
const slide = (setN: number): Drive => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 150],
      ['alt', 350, 0, 60],
    ],
    { staticTension: setN },
  );
  const adjuster = { kind: 'slide' as const, direction: 0, travel: 30, pitches: [1.25] };
  return {
    ...drive,
    stations: drive.stations.map((station): Station => (station.id === 'alt' ? { ...station, adjuster } : station)),
  };
};
/** The same with a sprung arm whose roller lies on the back of the upper span. */
const armed = (): Drive => {
  const drive = driveOf([
    ['crank', 0, 0, 150],
    ['alt', 400, 0, 70],
    ['ten', 260, 55, 60, 'back', { role: 'tensioner' }],
  ]);
  const adjuster = {
    kind: 'sprung-arm' as const,
    pivot: { x: 200, y: 110 },
    armLength: Math.hypot(60, 55),
    freeAngle: -80,
    fullAngle: -10,
    shortMark: -25,
    longMark: -65,
    springTorqueAtFree: 10,
    springRate: 0.2,
  };
  return {
    ...drive,
    stations: drive.stations.map((station): Station => (station.id === 'ten' ? { ...station, adjuster } : station)),
  };
};
const reading = (way: TensionReading['way'], figures: object, from = 'crank', to = 'alt'): TensionReading =>
  ({ id: 'r', way, span: { from, to }, ...figures }) as TensionReading;

test('what every school should read at a tension means that tension when it is read', () => {
  fc.assert(
    fc.property(fc.double({ min: 80, max: 1500, noNaN: true }), (setN) => {
      const drive = slide(setN);
      const standing = tensionOf(drive).staticBelts[0]!;
      const [check] = waysOf(standing, setN);
      for (const made of [
        reading('push', { newtons: check!.pushN, mm: check!.pushMm }),
        reading('free-play', { mm: check!.freePlayMm }),
        reading('twist', { degrees: 90, nm: check!.twistNm }),
        reading('gauge', { kgf: check!.gaugeKgf }),
        reading('gauge', { lbf: check!.gaugeLbf }),
        reading('pluck', { hz: check!.pluckHz }),
      ]) {
        const meaning = meaningOf(drive, standing, made);
        if (typeof meaning === 'string') throw new Error(`${made.way}: ${meaning}`);
        expect(meaning.tensionN).toBeCloseTo(setN, 4);
        expect(meaning.scatterN).toBeGreaterThan(0);
      }
    }),
    { numRuns: 40 },
  );
});

test('a push tells nothing of a sprung arm, a pointer nothing without one; a pointer reads its spring', () => {
  const [fixed, sprung] = [slide(400), armed()];
  const at = (drive: Drive, reading: TensionReading) => meaningOf(drive, tensionOf(drive).staticBelts[0]!, reading);
  expect(at(sprung, reading('push', { newtons: 30, mm: 4 }))).toBe('arm-yields');
  expect(at(fixed, reading('pointer', { degrees: 20 }))).toBe('no-arm');
  expect(at(fixed, reading('pluck', { hz: 100 }, 'alt', 'nowhere'))).toBe('no-span');
  expect(at(fixed, reading('twist', {}))).toBe('no-figure');
  expect(at(sprung, reading('pointer', { degrees: -42.5 }))).toMatchObject({
    tensionN: pointerTension(sprung, sprung.belts[0]!, -42.5),
  });
});

test('many readings of one school are no surer than what they share; schools that contradict say so', () => {
  const entry = { tensionN: 500, scatterN: 40, sharedN: 60 };
  const many = combineReadings(Array.from({ length: 400 }, () => ({ way: 'free-play' as const, meaning: entry })))!;
  expect(many.sigma).toBeGreaterThan(60);
  expect(many.sigma).toBeLessThan(61);
  const two = combineReadings([
    { way: 'pluck', meaning: { tensionN: 600, scatterN: 6, sharedN: 8 } },
    { way: 'gauge', meaning: { tensionN: 400, scatterN: 20, sharedN: 0 } },
  ])!;
  expect(two.disagree).toBe(true);
  expect(two.sigma).toBeGreaterThan(20);
  expect(combineReadings([])).toBeNull();
});

test('a thumb calibrated on a known belt reads that belt right', () => {
  const drive = slide(500);
  const standing = tensionOf(drive).staticBelts[0]!;
  const { value, plusMinus } = calibrated(spanFigures(standing, 0), 500, { way: 'free-play', mm: 6 });
  const hand = { thumbN: value, thumbPlusMinusN: plusMinus, twistNm: 0.45, twistPlusMinusNm: 0.1 };
  expect(meaningOf(drive, standing, reading('free-play', { mm: 6 }), hand)).toMatchObject({
    tensionN: expect.closeTo(500, 6) as number,
  });
});

test('moving the adjuster as told brings the stretch that was asked for, by the belt’s own path', () => {
  const drive = slide(300);
  const standing = tensionOf(drive).staticBelts[0]!;
  const setting = settingFor(drive, standing, 700)!;
  const moved = {
    ...drive,
    stations: drive.stations.map((station) => (station.id === 'alt' ? { ...station, x: 350 + setting.mm! } : station)),
  };
  const longer = tensionOf(moved).staticBelts[0]!.cordLength - standing.cordLength;
  // By the belt's own length with nothing pulling it.
  const own = standing.cordLength / (1 + 300 / 84_000);
  expect((84_000 * longer) / own).toBeCloseTo(400, 3);
  expect(setting.turns).toBeCloseTo(setting.mm! / 1.25, 9);
  expect(settingFor(drive, standing, 1e6)!.mm).toBeNull();
  expect(settingFor(armed(), tensionOf(armed()).staticBelts[0]!, 500)).toBeNull();
});

test('two belts on one adjuster: each gains by its own path; the other one is told where it will stand', () => {
  const single = slide(300);
  const drive: Drive = {
    ...single,
    stations: single.stations.map((shaft) => ({
      ...shaft,
      pulleys: [
        ...shaft.pulleys,
        { ...shaft.pulleys[0]!, id: `${shaft.id}-b`, plane: 40 } as (typeof shaft.pulleys)[0],
      ],
    })),
    belts: [
      ...single.belts,
      {
        id: 'second',
        section: 'PK',
        ribs: 3,
        staticTension: 120,
        route: [
          { pulley: 'crank-b', side: 'drive' },
          { pulley: 'alt-b', side: 'drive' },
        ],
      },
    ],
  };
  const { staticBelts } = tensionOf(drive);
  const setting = settingFor(drive, staticBelts[0]!, 500)!;
  const [shared] = sharedSettings(drive, staticBelts, 'main', setting);
  expect(shared).toMatchObject({ belt: 'second', sameAdjuster: true });
  // The same path with half the ribs: half the newtons for a mm.
  expect(shared!.perMm).toBeCloseTo(setting.perMm / 2, 6);
  expect(shared!.thenN).toBeCloseTo(120 + 100, 0);
});

test('an arm: good, weak, binding, stuck and a belt of the wrong length are told apart', () => {
  const drive = armed();
  const angle = -42.5;
  const length =
    tensionOf({ ...drive, belts: [{ ...drive.belts[0]!, length: null }] }).staticBelts[0]!.cordLength - 4 * Math.PI;
  const belted: Drive = { ...drive, belts: [{ ...drive.belts[0]!, length }] };
  const should = pointerTension(belted, belted.belts[0]!, angle)!;
  const verdict = (share: number, pointer = angle, split = 0.1) => {
    const at = pointerTension(belted, belted.belts[0]!, pointer)! * share;
    return armHealth(belted, 'main', pointer, {
      forward: { at: at * (1 + split / 2), sigma: 0.03 * should },
      back: { at: at * (1 - split / 2), sigma: 0.03 * should },
    }).verdict;
  };
  expect(verdict(1)).toBe('good');
  expect(verdict(0.6)).toBe('weak');
  expect(verdict(1, angle, 0.6)).toBe('binding');
  expect(verdict(0.4, -25)).toBe('stuck');
  expect(verdict(1, -60)).toBe('wrong-length');
  expect(armHealth(belted, 'main', angle, {}).verdict).toBe('cannot-say');
});

test('a pointer is the same however its angle is written, and reads where the arm stands', () => {
  const drive = armed();
  const belt = drive.belts[0]!;
  const standing = tensionOf(drive).staticBelts[0]!;
  expect(standing.armAngle).toBeCloseTo((Math.atan2(-55, 60) * 180) / Math.PI, 9);
  expect(pointerTension(drive, belt, standing.armAngle!)).toBeCloseTo(standing.tensionN, 6);
  expect(pointerTension(drive, belt, standing.armAngle! + 360)).toBeCloseTo(standing.tensionN, 6);
  const pull = { plain: { at: standing.tensionN, sigma: 10 } };
  for (const degrees of [standing.armAngle!, standing.armAngle! - 360]) {
    const { verdict, left, inWindow } = armHealth(drive, 'main', degrees, pull);
    expect([verdict, inWindow, left!.at]).toEqual(['good', true, expect.closeTo(1, 9)]);
  }
});

test('a strut: its force times how fast its eyes part as the arm turns, whatever is drawn', () => {
  const drive = armed();
  const shaft = drive.stations.find(({ id }) => id === 'ten')!;
  const arm = shaft.adjuster as Extract<Station['adjuster'], { kind: 'sprung-arm' }>;
  const strut = { anchor: { x: 150, y: 170 }, lug: { x: 225, y: 90 }, closed: 60, points: [{ stroke: 0, force: 400 }] };
  const adjuster = { ...arm, springTorqueAtFree: 0, springRate: 0, strut };
  const eyes = (turn: number) => {
    const [x, y] = [strut.lug.x - arm.pivot.x, strut.lug.y - arm.pivot.y];
    const [dx, dy] = [Math.cos(turn) * x - Math.sin(turn) * y, Math.sin(turn) * x + Math.cos(turn) * y];
    return Math.hypot(arm.pivot.x + dx - strut.anchor.x, arm.pivot.y + dy - strut.anchor.y);
  };
  // Free is the smaller angle: toward it is a turn below zero.
  const parts = -(eyes(1e-5) - eyes(-1e-5)) / 2e-5;
  const now = (Math.atan2(-55, 60) * 180) / Math.PI;
  expect(armTorque({ ...shaft, adjuster }, now)!).toBeCloseTo((400 * parts) / 1000, 6);
  const both = { ...adjuster, springTorqueAtFree: 7 };
  expect(armTorque({ ...shaft, adjuster: both }, now)! - armTorque({ ...shaft, adjuster }, now)!).toBeCloseTo(7, 9);
});

test('shims out of a split sheave: each lifts the belt by t / (2·tan 18°), stretches it, and slows the sheave', () => {
  const drive = driveOf(
    [
      ['crank', 0, 0, 140],
      ['gen', 300, 0, 140],
    ],
    { section: 'AV10', staticTension: 200 },
  );
  const adjuster = { kind: 'shims' as const, shims: [1, 1, 1] };
  const split = {
    ...drive,
    stations: drive.stations.map((station): Station => (station.id === 'gen' ? { ...station, adjuster } : station)),
  };
  const standing = tensionOf(split).staticBelts[0]!;
  const { shims, turns, barN } = settingFor(split, standing, 300)!;
  const lift = 1 / (2 * Math.tan(Math.PI / 10));
  const [from, to] = [70 - 2.07, 70 - 2.07 + lift];
  expect(shims![0]!.ratioPercent).toBeCloseTo(100 * (from / to - 1), 9);
  // Of two nearly equal circles the belt grows by π of the lift, and next to nothing for its lean.
  expect(shims![0]!.addsN).toBeCloseTo((60_000 * (Math.PI * lift + lift ** 2 / 300)) / standing.cordLength, 0);
  expect([turns, barN]).toEqual([null, null]);
});

test('a new belt is set higher, held by what its shafts bear; a warm block tightens fixed centres only', () => {
  const aim = Math.sqrt(300 * 500);
  expect(newBeltFigures({ leastN: 300, mostN: 500 })).toEqual({
    setN: 500,
    runInN: aim,
    againBelowN: 0.8 * aim,
    held: true,
  });
  expect(newBeltFigures({ leastN: 300, mostN: 200 })).toBeNull();
  const drive = slide(400);
  const standing = tensionOf(drive).staticBelts[0]!;
  // Only the free spans grow with the block: by 70 K × 0.023e-3 of the distance of the centres each, in effect.
  const span = standing.spans[0]!.length;
  const grown = (2 * 0.023e-3 * 70 * 350 ** 2) / span;
  expect(hotRise(drive, standing)).toBeCloseTo((84_000 * grown) / standing.cordLength, -1);
  expect(hotRise(armed(), tensionOf(armed()).staticBelts[0]!)).toBe(0);
});
