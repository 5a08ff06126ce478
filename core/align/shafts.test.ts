import type { AlignMove, AlignReading, Drive } from '../drive';
import { normals } from '../numeric';
import { alignmentOf, worstDeg } from '../planes';
import { driveOf, type Stop } from '../test/examples';
import { movesDone } from './edit';
import { alignFindings } from './findings';
import { likelyWorst } from './likely';
import { planFor } from './plan';

const THREE: Stop[] = [
  ['crank', 0, 0, 150],
  ['pump', 0, 230, 130],
  ['alt', 260, 60, 75],
];
/** Readings of a pulley that stands so far out, three round its rim. */
const readAt = (pulley: string, mm: number): AlignReading[] =>
  [0, 120, 240].map((at) => ({ id: `${pulley} ${at}`, tool: 'laser' as const, pulley, at, mm }));
const threeOf = (section = 'PK'): Drive => driveOf(THREE, { section }, { crankRotation: 'cw' });
const withAlign = (drive: Drive, readings: AlignReading[], moves: AlignMove[]): Drive => ({
  ...drive,
  align: { readings, moves },
});
const plansOf = (drive: Drive, belt = 'main') => planFor(drive, alignmentOf(drive, belt)!).plans;

describe('a groove to go over to', () => {
  const drive = (grooves: number, steps: number): Drive => {
    const plain = threeOf();
    const wide = {
      ...plain,
      stations: plain.stations.map((station) =>
        station.id === 'alt'
          ? { ...station, pulleys: station.pulleys.map((pulley) => ({ ...pulley, grooves })) }
          : station,
      ),
    };
    // The alternator stands a rib in, so that the belt would have to go one groove out on it.
    return withAlign(wide, [...readAt('pump', 0), ...readAt('alt', -3.56)], [{ pulley: 'alt', kind: 'groove', steps }]);
  };

  test('a pulley of as many grooves as the belt has ribs has none, and no plan goes there', () => {
    expect(plansOf(drive(6, 1))).toEqual([]);
    const six = drive(6, 1);
    expect(alignFindings(six, six.belts[0]!, alignmentOf(six, 'main')).map(({ code }) => code)).toContain(
      'groove-not-there',
    );
  });

  test('with a groove more the belt goes over; inward of the first groove there is none', () => {
    const [plan] = plansOf(drive(7, 1));
    expect(plan!.moves).toEqual([{ pulley: 'alt', kind: 'groove', steps: 1 }]);
    expect(plan!.worstDeg).toBeLessThan(0.01);
    expect(plansOf(drive(7, -1))).toEqual([]);
    expect(plansOf(drive(7, 3)).every(({ moves }) => moves.every(({ steps }) => steps === 1))).toBe(true);
  });
});

describe('two sheaves of one shaft', () => {
  /** A second belt in front, from the crank's second sheave over the alternator's to a pump of its own. */
  const twin = (outerMm: number, moves: AlignMove[]): Drive => {
    const drive = threeOf('AV10');
    const front = (id: string) => ({ id, surface: 'vee' as const, diameter: 75, plane: 16 });
    const stations = drive.stations.map((station) =>
      station.id === 'pump' ? station : { ...station, pulleys: [...station.pulleys, front(`${station.id}-2`)] },
    );
    const vacuum = { id: 'vac', role: 'vacuum-pump' as const, x: -10, y: -220, pulleys: [front('vac')] };
    const second = {
      ...drive.belts[0]!,
      id: 'second',
      route: ['crank-2', 'alt-2', 'vac'].map((pulley) => ({ pulley, side: 'drive' as const })),
    };
    return withAlign(
      { ...drive, stations: [...stations, vacuum], belts: [...drive.belts, second] },
      [...readAt('pump', 0), ...readAt('vac', 0), ...readAt('alt', 4), ...readAt('alt-2', outerMm)],
      moves,
    );
  };
  const shim: AlignMove = { pulley: 'alt', kind: 'shim', sizes: [-1, -2, -3, -4] };
  const press: AlignMove = { pulley: 'alt', kind: 'press', min: -6, max: 6 };

  test.each([
    ['a spacer', shim],
    ['a press', press],
  ])('%s behind one moves the other with it, whichever belt is asked', (_name, move) => {
    const drive = twin(4, [move]);
    for (const belt of ['main', 'second']) {
      const [plan] = plansOf(drive, belt);
      expect(plan!.moves).toHaveLength(1);
      expect(plan!.moves[0]).toMatchObject({ pulley: 'alt' });
      expect(plan!.moves[0]!.mm!).toBeCloseTo(-4, 1);
      expect(plan!.worstDeg).toBeLessThan(0.05);
      const [other] = plan!.others;
      expect(other!.belt).toBe(belt === 'main' ? 'second' : 'main');
      expect(other!.afterDeg).toBeLessThan(0.05);
    }
  });

  test('where the other sheave stood true, the plan says what it does to that belt', () => {
    const [plan] = plansOf(twin(0, [shim]));
    expect(plan!.others).toHaveLength(1);
    expect(plan!.others[0]!.beforeDeg).toBeLessThan(0.01);
    expect(plan!.others[0]!.afterDeg).toBeGreaterThan(0.5);
  });

  test('after the moves, what was read of either sheave counts no more', () => {
    const done = movesDone(twin(4, [shim]), 'main', [{ pulley: 'alt', kind: 'shim', mm: -4 }], '2026-01-01');
    const past = done.align!.readings!.filter((reading) => reading.past).map(({ pulley }) => pulley);
    expect(new Set(past)).toEqual(new Set(['alt', 'alt-2']));
  });
});

test('calibration: the worst run after a plan is on the mean what the plan says is likely, not what it aims at', () => {
  const normal = normals(4);
  let [said, aimed, actual, within] = [0, 0, 0, 0];
  let planned = 0;
  /** Three readings of a plane that stands out and leans, each out by so much. */
  const readings = (pulley: string, [out, tx, ty]: number[], noise: () => number) =>
    readAt(pulley, 0).map((reading) => {
      const [radius, at] = [pulley === 'alt' ? 37.5 : 65, (reading.at! * Math.PI) / 180];
      return { ...reading, mm: out! + radius * (tx! * Math.cos(at) + ty! * Math.sin(at)) + noise() };
    });
  for (let n = 0; n < 90; n += 1) {
    const hidden = (out: number) => [out + normal(), 0.004 * normal(), 0.004 * normal()];
    const [pump, alt] = [hidden(0), hidden(3)];
    const moves = ['alt', 'pump'].flatMap((pulley): AlignMove[] => [
      { pulley, kind: 'press', min: -8, max: 8 },
      { pulley, kind: 'square' },
    ]);
    const noisy = () => 0.3 * normal();
    const read = [...readings('pump', pump, noisy), ...readings('alt', alt, noisy)];
    const [plan] = plansOf(withAlign(threeOf(), read, moves));
    if (!plan) continue;
    planned += 1;
    const planes = alignmentOf(withAlign(threeOf(), read, []), 'main')!.planes;
    const leftOf = (pulley: string, tilt: number[]) =>
      tilt.map((value, axis) => value - planes.find((plane) => plane.pulley === pulley)!.tilt[axis]!);
    // The pulleys as they really stand, with the plan's moves made.
    const moved = (pulley: string, [out, ...tilt]: number[]) => [
      out! + plan.moves.reduce((sum, move) => sum + (move.pulley === pulley ? (move.mm ?? 0) : 0), 0),
      // A bracket is squared by what was read of it: what was read wrongly stays.
      ...(plan.moves.some((move) => move.pulley === pulley && move.kind === 'square') ? leftOf(pulley, tilt) : tilt),
    ];
    const none = () => 0;
    const exact = [...readings('pump', moved('pump', pump), none), ...readings('alt', moved('alt', alt), none)];
    const truth = worstDeg(alignmentOf(withAlign(threeOf(), exact, []), 'main')!.runs);
    said += plan.likely.deg;
    aimed += plan.worstDeg;
    actual += truth;
    if (Math.abs(truth - plan.likely.deg) <= 2 * plan.likely.plusMinusDeg) within += 1;
  }
  expect(planned).toBeGreaterThan(50);
  expect(aimed / actual).toBeLessThan(0.9);
  expect(said / actual).toBeGreaterThan(0.9);
  expect(said / actual).toBeLessThan(1.5);
  expect(within / planned).toBeGreaterThan(0.88);
});

test('what is likely is exact for planes that are known, and the same at every call', () => {
  const drive = withAlign(threeOf(), [], []);
  const alignment = alignmentOf(drive, 'main')!;
  const known = { ...alignment, planes: alignment.planes.map((plane) => ({ ...plane, covariance: Array(9).fill(0) })) };
  expect(likelyWorst(drive, known)).toEqual({
    deg: worstDeg(known.runs),
    plusMinusDeg: expect.closeTo(0, 6) as number,
  });
  expect(likelyWorst(drive, alignment)).toEqual(likelyWorst(drive, alignment));
});
