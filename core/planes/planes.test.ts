import fc from 'fast-check';
import { driveOf, SERPENTINE } from '../test/examples';
import type { AlignReading, Drive } from '../drive';
import { normals } from '../numeric';
import { solveBelt } from '../path';
import { withoutWobble } from './wobble';
import { alignmentOf, planeOf, readingsOf, type Shift, worstDeg } from './index';

const GUIDES = ['pump', 'alt', 'ac'] as const;
const DEG = Math.PI / 180;
const clockwise = { crankRotation: 'cw' } as const;
const base = driveOf(SERPENTINE, {}, clockwise);
const radiusOf = (pulley: string) => SERPENTINE.find(([id]) => id === pulley)![3] / 2;

/** What a plane reads at a place of its rim. */
const read = (pulley: string, [offset, x, y]: readonly number[], at: number) =>
  offset! + radiusOf(pulley) * (x! * Math.cos(at * DEG) + y! * Math.sin(at * DEG));
let count = 0;
const reading = (
  pulley: string,
  at: number | undefined,
  mm: number,
  more: Partial<AlignReading> = {},
): AlignReading => ({
  id: `r${(count += 1)}`,
  tool: 'straightedge',
  pulley,
  ...(at !== undefined && { at }),
  mm,
  ...more,
});
const withReadings = (readings: readonly AlignReading[], more: Partial<Drive> = {}): Drive => ({
  ...base,
  ...more,
  align: { ...more.align, readings },
});

const plane = fc.tuple(
  fc.double({ min: -8, max: 8, noNaN: true }),
  fc.double({ min: -0.03, max: 0.03, noNaN: true }),
  fc.double({ min: -0.03, max: 0.03, noNaN: true }),
);

test('exact readings at three places give the exact plane, whatever ± a tool has', () => {
  fc.assert(
    fc.property(
      plane,
      fc.integer({ min: 0, max: 119 }),
      fc.double({ min: 0.05, max: 0.8, noNaN: true }),
      (true_, at, plusMinus) => {
        const places = [at, at + 110, at + 230];
        const drive = withReadings(
          places.map((place) => reading('alt', place, read('alt', true_, place), { plusMinus })),
        );
        const { offset, tilt } = planeOf(drive, 'main', 'alt');
        [offset, ...tilt].forEach((value, k) => expect(value).toBeCloseTo(true_[k]!, 9));
      },
    ),
  );
});

test('one reading gives the offset, with the tilt 0 ± 0.3°; a second across gives the tilt along that line alone', () => {
  const plane = planeOf(withReadings([reading('pump', 30, 1.9, { plusMinus: 0.4 })]), 'main', 'pump');
  expect(plane.offset).toBeCloseTo(1.9, 9);
  expect(Math.hypot(...plane.tilt)).toBeCloseTo(0, 9);
  expect(Math.sqrt(plane.covariance[0]!)).toBeCloseTo(Math.hypot(0.4, 66 * 0.3 * DEG), 9);
  const two = planeOf(withReadings([reading('pump', 90, 2.4), reading('pump', -90, 0.4)]), 'main', 'pump');
  expect(two.offset).toBeCloseTo(1.4, 9);
  expect(two.tilt[0]).toBeCloseTo(0, 9);
  expect(two.tilt[1]).toBeCloseTo(2 / 132, 9);
  expect(Math.sqrt(two.covariance[4]!)).toBeCloseTo(0.3 * DEG, 9);
  expect(Math.sqrt(two.covariance[8]!)).toBeCloseTo((0.5 * Math.SQRT2) / 132, 9);
});

test('places too near together, or too unsure, tell nothing of a tilt, and do not throw the offset about', () => {
  const near = planeOf(withReadings([reading('pump', 88, 1.2), reading('pump', 92, 0.8)]), 'main', 'pump');
  expect(near.offset).toBeCloseTo(1, 6);
  expect(Math.hypot(...near.tilt)).toBeLessThan(0.3 * DEG);
  expect(near.tiltsSeen).toBe(0);
  expect(Math.sqrt(near.covariance[0]!)).toBeLessThan(0.6);
});

test('the claimed ± of offsets, tilts and angles is what readings scatter by', () => {
  const next = normals(7);
  const truth = { pump: [1.2, 0.004, -0.006], alt: [-0.7, 0, 0.003], ac: [0.4, -0.008, 0.002] } as const;
  const exact = withReadings(
    GUIDES.flatMap((pulley) => [0, 120, 240].map((at) => reading(pulley, at, read(pulley, truth[pulley], at)))),
  );
  const known = alignmentOf(exact, 'main')!;
  const [within, all] = [
    { one: 0, two: 0 },
    { plane: 0, run: 0 },
  ];
  const angles = { one: 0, two: 0 };
  for (let trial = 0; trial < 400; trial += 1) {
    const noisy = withReadings(
      GUIDES.flatMap((pulley) =>
        [10, 100, 190, 260].map((at) =>
          reading(pulley, at, read(pulley, truth[pulley], at) + 0.4 * next(), { plusMinus: 0.4 }),
        ),
      ),
    );
    const seen = alignmentOf(noisy, 'main')!;
    for (const plane of seen.planes.filter(({ readings }) => readings.length > 0)) {
      [plane.offset, ...plane.tilt].forEach((value, k) => {
        const off = Math.abs(value - truth[plane.pulley as 'alt'][k]!) / Math.sqrt(plane.covariance[4 * k]!);
        within.one += Number(off < 1);
        within.two += Number(off < 2);
        all.plane += 1;
      });
    }
    seen.runs.forEach(({ leaveDeg, arriveDeg, plusMinusDeg }, k) => {
      const worse = Math.abs(leaveDeg) >= Math.abs(arriveDeg);
      const off =
        Math.abs(worse ? leaveDeg - known.runs[k]!.leaveDeg : arriveDeg - known.runs[k]!.arriveDeg) / plusMinusDeg;
      angles.one += Number(off < 1);
      angles.two += Number(off < 2);
      all.run += 1;
    });
  }
  expect(within.one / all.plane).toBeGreaterThan(0.64);
  expect(within.one / all.plane).toBeLessThan(0.73);
  expect(within.two / all.plane).toBeGreaterThan(0.93);
  expect(angles.one / all.run).toBeGreaterThan(0.62);
  expect(angles.one / all.run).toBeLessThan(0.75);
  expect(angles.two / all.run).toBeGreaterThan(0.92);
});

test('the angles of a run are those between lines in space', () => {
  fc.assert(
    fc.property(plane, plane, (start, to) => {
      const drive = withReadings(
        (['alt', 'ac'] as const).flatMap((pulley, k) =>
          [0, 90, 180].map((at) => reading(pulley, at, read(pulley, [start, to][k]!, at))),
        ),
      );
      const { solution, runs } = alignmentOf(drive, 'main')!;
      const run = runs.find((run) => run.from === 'alt')!;
      const span = solution.spans.find(({ from }) => from === 'alt')!;
      // Each end in space, and the way a point of that pulley's own plane goes on along the span.
      const ends = (
        [
          ['alt', start, span.start],
          ['ac', to, span.end],
        ] as const
      ).map(([id, p, at]) => {
        const [, x, y] = SERPENTINE.find(([name]) => name === id)!;
        return p[0] + p[1] * (at.x - x) + p[2] * (at.y - y);
      });
      const [dx, dy] = [span.end.x - span.start.x, span.end.y - span.start.y];
      const flat = Math.hypot(dx, dy);
      const rise = ends[1]! - ends[0]!;
      const inPlane = (p: readonly number[]) => Math.atan2(p[1]! * dx + p[2]! * dy, flat);
      expect(run.lengthMm).toBeCloseTo(flat, 9);
      expect(run.leaveDeg).toBeCloseTo((Math.atan2(rise, flat) - inPlane(start)) / DEG, 9);
      expect(run.arriveDeg).toBeCloseTo((Math.atan2(rise, flat) - inPlane(to)) / DEG, 9);
    }),
  );
});

test('a run goes over smooth rollers, as long as the cord lies along it; flanges end it', () => {
  const { runs, solution } = alignmentOf(base, 'main')!;
  expect(runs.map(({ from, to, over }) => [from, ...over, to])).toEqual([
    ['crank', 'ten', 'pump'],
    ['pump', 'idler', 'alt'],
    ['alt', 'ac'],
    ['ac', 'crank'],
  ]);
  const arcs = GUIDES.concat('crank' as never).reduce(
    (sum, id) => sum + solution.contacts.find(({ pulley }) => pulley === id)!.arcLength!,
    0,
  );
  expect(runs.reduce((sum, { lengthMm }) => sum + lengthMm, arcs)).toBeCloseTo(solution.cordLength!, 6);
  const flanged = driveOf(
    SERPENTINE.map(([id, x, y, diameter, side = 'drive', more]) => [
      id,
      x,
      y,
      diameter,
      side,
      { ...more, ...(id === 'idler' && { flanged: true }) },
    ]),
    {},
    clockwise,
  );
  expect(alignmentOf(flanged, 'main')!.runs).toHaveLength(5);
});

test('a belt seen in a mirror, or from behind, has the same angles with their signs turned', () => {
  const readings = GUIDES.flatMap((pulley, k) =>
    [20, 140, 250].map((at) => reading(pulley, at, read(pulley, [k - 0.7, 0.004 * k, -0.003], at))),
  );
  const own = alignmentOf(withReadings(readings), 'main')!;
  const behind = alignmentOf(withReadings(readings.map((reading) => ({ ...reading, mm: -reading.mm }))), 'main')!;
  const mirrored = alignmentOf(
    {
      ...withReadings(readings.map((reading) => ({ ...reading, at: 180 - reading.at! }))),
      crankRotation: 'ccw',
      stations: base.stations.map((station) => ({ ...station, x: -station.x })),
    },
    'main',
  )!;
  own.runs.forEach((run, k) => {
    expect(behind.runs[k]!.leaveDeg).toBeCloseTo(-run.leaveDeg, 9);
    expect(behind.runs[k]!.arriveDeg).toBeCloseTo(-run.arriveDeg, 9);
    expect(mirrored.runs[k]!.leaveDeg).toBeCloseTo(run.leaveDeg, 9);
    expect(mirrored.runs[k]!.arriveDeg).toBeCloseTo(run.arriveDeg, 9);
  });
});

test('readings half a turn apart show the wobble, and their mean the plane; past ones and loaded ones do not count', () => {
  const drive = withReadings([
    reading('ac', 90, 1.3, { turned: 0 }),
    reading('ac', 90, 0.5, { turned: 180 }),
    reading('ac', 0, 9, { past: true }),
    reading('ac', 0, 5, { load: true, tool: 'laser' }),
  ]);
  const { offset, wobble, readings } = planeOf(drive, 'main', 'ac');
  expect(offset).toBeCloseTo(0.9, 9);
  expect(59 * wobble!.y).toBeCloseTo(0.4, 9);
  expect(readings).toHaveLength(2);
  expect(readingsOf(drive, 'ac', 'load')).toHaveLength(1);
  expect(planeOf(drive, 'main', 'ac', 'load').offset).toBeCloseTo(5, 9);
});

test('a straightedge that bears on little of the crank leaves a far pulley in doubt, a laser does not care', () => {
  const doubt = (tool: AlignReading['tool'], datum?: object) => {
    const drive = withReadings([reading('alt', 0, 1, { tool, plusMinus: 0.2 })], datum && { align: { datum } });
    return planeOf(drive, 'main', 'alt');
  };
  const far = Math.hypot(178, 306);
  const alone = doubt('straightedge').covariance[0]!;
  const wide = doubt('straightedge', { faceMm: 160, plusMinus: 0.1 });
  expect(wide.covariance[0]! - alone).toBeCloseTo(((far * 0.1 * Math.SQRT2) / 160) ** 2, 9);
  const short = doubt('straightedge', { faceMm: 160, straightedgeMm: far - 60, plusMinus: 0.1 });
  expect(short.covariance[0]! - alone).toBeCloseTo(((far * 0.1 * Math.SQRT2) / 20) ** 2, 9);
  expect(doubt('straightedge', { faceMm: 160, straightedgeMm: 200 }).outOfReach).toBe(true);
  expect(doubt('laser', { faceMm: 160 }).covariance[0]).toBeCloseTo(alone, 12);
});

test('a groove over, or a pulley moved by its pitch, comes to the same; squared, a pulley has no tilt', () => {
  const drive = withReadings([0, 90, 180].map((at) => reading('alt', at, read('alt', [1, 0.01, 0.02], at))));
  const at = (...shifts: Shift[]) => alignmentOf(drive, 'main', { shifts })!;
  const [over, moved] = [at({ pulley: 'alt', steps: 1 }), at({ pulley: 'alt', mm: 3.56 })];
  over.runs.forEach((run, k) => expect(run.leaveDeg).toBeCloseTo(moved.runs[k]!.leaveDeg, 9));
  expect(at({ pulley: 'alt', square: true, mm: -1 }).runs.map(({ leaveDeg }) => leaveDeg + 0)).toEqual([0, 0, 0, 0]);
  expect(worstDeg(at({ pulley: 'alt', square: true, mm: -1 }).runs)).toBe(0);
});

test('one rib off on one pulley is a step of 3.56 mm that both runs show; a path that is open has no runs', () => {
  const wide = driveOf(
    SERPENTINE.map(([id, x, y, diameter, side = 'drive', more]) => [id, x, y, diameter, side, { ...more, grooves: 7 }]),
    {},
    clockwise,
  );
  const entry = {
    ...wide,
    belts: wide.belts.map((belt) => ({
      ...belt,
      route: belt.route.map((stop) => ({
        ...stop,
        ...(stop.side === 'drive' && { front: stop.pulley === 'ac' ? 0 : 1 }),
      })),
    })),
  };
  const { runs } = alignmentOf(entry, 'main')!;
  const span = solveBelt(entry, 'main')!.spans.find(({ from }) => from === 'alt')!.length!;
  expect(runs.find(({ from }) => from === 'alt')!.leaveDeg).toBeCloseTo(Math.atan(3.56 / span) / DEG, 9);
  expect(runs.find(({ from }) => from === 'ac')!.leaveDeg).toBeLessThan(-0.5);
  expect(runs.find(({ from }) => from === 'pump')!.leaveDeg).toBeCloseTo(0, 9);
  expect(
    alignmentOf(
      driveOf([
        ['crank', 0, 0, 100],
        ['alt', 20, 0, 100],
      ]),
      'main',
    ),
  ).toBeNull();
});

test('a reading at the hub knows nothing of a wobble; one on the rim loses just what the wobble made of it', () => {
  const read = (at: number | null, turned = 0) => ({ mm: 1, at, radius: 50, sigma: 0.1, turned });
  const wobble = { x: 0.01, y: 0.02, sigma: 0.001 };
  expect(
    withoutWobble([read(null), read(0), read(Math.PI / 2), read(Math.PI, Math.PI)], wobble).map(({ mm }) => mm),
  ).toEqual([1, expect.closeTo(1 - 0.5, 12), expect.closeTo(1 - 1, 12), expect.closeTo(1 - 0.5, 12)]);
});
