import fc from 'fast-check';
import { driveOf, SERPENTINE, type Stop } from '../test/examples';
import { fractionFor, lengthCurve, pathLength, stiffnessN } from '../adjuster';
import type { Adjuster, Belt, Drive, SprungArm } from '../drive';
import { solveDrive } from '../path';
import { answerFor, responseOf, uncertaintyOf } from '../size';
import { puttingOn } from './putting-on';
import { sizeBelt } from './size-belt';

const withAdjuster = (stops: Stop[], station: string, adjuster: Adjuster, belt: Partial<Belt> = {}): Drive => {
  const drive = driveOf(stops, belt, { crankRotation: 'cw' });
  return { ...drive, stations: drive.stations.map((s) => (s.id === station ? { ...s, adjuster } : s)) };
};
/**
 * Marked length of an open PK belt on two pulleys: cord radii are 2 mm over the ribs, and so is the marked length's
 * line.
 */
const openBelt = (big: number, small: number, apart: number) => {
  const lean = Math.asin((big - small) / 2 / apart);
  return 2 * apart * Math.cos(lean) + (Math.PI / 2) * (big + small + 8) + (big - small) * lean - 4 * Math.PI;
};
const slide = (travel = 40, direction = 0) =>
  withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60],
    ],
    'alt',
    { kind: 'slide', direction, travel },
  );

test('a slide on two pulleys: window and place as the open belt has them', () => {
  const { window, candidates } = sizeBelt(slide(), 'main', { lengths: [openBelt(160, 60, 317)] })!;
  expect(window.slackEnd).toBeCloseTo(openBelt(160, 60, 300), 6);
  expect(window.tightEnd).toBeCloseTo(openBelt(160, 60, 340), 6);
  expect(candidates[0]).toMatchObject({
    verdict: 'fits',
    position: expect.closeTo(17 / 40, 6) as number,
    travel: expect.closeTo(17, 5) as number,
  });
  expect(candidates[0]!.reserveMm).toBeCloseTo(openBelt(160, 60, 340) - openBelt(160, 60, 317), 6);
});

test('a slide that slackens outward is taken from its other end', () => {
  const { window, candidates } = sizeBelt(slide(40, 180), 'main', { lengths: [openBelt(160, 60, 290)] })!;
  expect(window.slackEnd).toBeCloseTo(openBelt(160, 60, 260), 6);
  expect(window.tightEnd).toBeCloseTo(openBelt(160, 60, 300), 6);
  expect(candidates[0]!.position).toBeCloseTo(0.75, 6);
  expect(candidates[0]!.travel).toBeCloseTo(30, 5);
});

test('a slot swings about its pivot from in to out', () => {
  // Pivot straight below the alternator, so that swinging moves it along a circle of 100.
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60],
    ],
    'alt',
    { kind: 'slot-pivot', pivot: { x: 300, y: -100 }, inAngle: 90, outAngle: 70 },
  );
  const at = (angle: number) =>
    openBelt(
      160,
      60,
      Math.hypot(300 + 100 * Math.cos((angle * Math.PI) / 180), -100 + 100 * Math.sin((angle * Math.PI) / 180)),
    );
  const { window, candidates } = sizeBelt(drive, 'main', { lengths: [at(82)] })!;
  expect(window.slackEnd).toBeCloseTo(at(90), 6);
  expect(window.tightEnd).toBeCloseTo(at(70), 6);
  expect(candidates[0]!.position).toBeCloseTo(0.4, 6);
  expect(candidates[0]!.travel).toBeCloseTo((100 * 8 * Math.PI) / 180, 5);
});

test('a turnbuckle turns the accessory as its three sides say', () => {
  const adjuster: Adjuster = {
    kind: 'turnbuckle',
    pivot: { x: 300, y: -100 },
    anchor: { x: 200, y: 60 },
    lug: { x: 300, y: 40 },
    minLength: 90,
    maxLength: 130,
  };
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60],
    ],
    'alt',
    adjuster,
  );
  const curve = lengthCurve(drive, drive.belts[0]!)!;
  // Where the link is as long as it now is, the shaft is where it now is.
  const now = curve.travel.at(curve.travel.now).stations[1]!;
  expect(Math.hypot(now.x - 300, now.y)).toBeLessThan(1e-6);
  for (const fraction of [0, 0.3, 1]) {
    const { x, y } = curve.travel.at(fraction).stations[1]!;
    expect(Math.hypot(x - 300, y + 100)).toBeCloseTo(100, 6);
    // Put there for good, it has the same travel still, and stands at that fraction of it.
    const put = lengthCurve(curve.travel.at(fraction), drive.belts[0]!)!;
    expect(put.travel.now).toBeCloseTo(curve.travel.readingAt(fraction) / 40, 6);
    expect(put.lengths[0]).toBeCloseTo(curve.lengths[0]!, 6);
    expect(put.lengths.at(-1)).toBeCloseTo(curve.lengths.at(-1)!, 6);
  }
});

test('taking out a shim lets the belt ride higher by t / (2·tan(half the groove angle)) between halves that stay as large', () => {
  const adjuster: Adjuster = { kind: 'shims', shims: [0.8, 0.8, 1], spare: [0.5] };
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['gen', 300, 0, 80],
    ],
    'gen',
    adjuster,
    { section: 'AV10' },
  );
  const { travel } = lengthCurve(drive, drive.belts[0]!)!;
  const at = (fraction: number) => travel.at(fraction).stations[1]!.pulleys[0]!;
  expect(at(travel.now).ride).toBeCloseTo(0, 9);
  expect(at(1).ride).toBeCloseTo(2.6 / 2 / Math.tan(Math.PI / 10), 9);
  expect(at(0).ride).toBeCloseTo(-0.5 / 2 / Math.tan(Math.PI / 10), 9);
  expect(at(1).diameter).toBe(80);
});

/** A smooth tensioner on an arm that pushes the lower span in from outside. */
const arm = (change: Partial<SprungArm> = {}): Drive =>
  withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['ten', -30, 190, 70, 'back', { role: 'tensioner' }],
      ['alt', 0, 400, 60],
    ],
    'ten',
    {
      kind: 'sprung-arm',
      pivot: { x: -110, y: 130 },
      armLength: 100,
      freeAngle: 20,
      fullAngle: 75,
      shortMark: 60,
      longMark: 30,
      springTorqueAtFree: 15,
      springRate: 0.2,
      ...change,
    },
  );

test('a sprung arm: marks, window and position; tension by virtual work is what the two spans pull on the arm', () => {
  const drive = arm();
  const belt = drive.belts[0]!;
  const { window, candidates } = sizeBelt(drive, 'main', {
    lengths: [0, 0.25, 0.5, 1].map((fraction) =>
      pathLength(lengthCurve(drive, belt)!.travel.at((75 - 60 + fraction * 30) / 55), belt)!,
    ),
  })!;
  expect(window.full!).toBeLessThan(window.shortMark!);
  expect(window.shortMark!).toBeLessThan(window.longMark!);
  expect(candidates.map(({ position }) => Math.abs(Math.round(position! * 1e5) / 1e5))).toEqual([0, 0.25, 0.5, 1]);
  expect(candidates.map(({ verdict }) => verdict)).toEqual(['fits', 'fits', 'fits', 'fits']);
  for (const { armAngle, tensionN } of candidates) {
    const fraction = (75 - armAngle!) / 55;
    const there = lengthCurve(drive, belt)!.travel.at(fraction);
    const { x, y } = there.stations[1]!;
    // Moment of both spans' pull about the pivot against the spring's.
    const [from, to] = solveDrive(there).belts[0]!.spans;
    const pull = [
      [from!.end, from!.start],
      [to!.start, to!.end],
    ].map(([here, far]) => {
      const apart = Math.hypot(far!.x - here!.x, far!.y - here!.y);
      return { x: (far!.x - here!.x) / apart, y: (far!.y - here!.y) / apart };
    });
    const moment = pull.reduce((sum, way) => sum + (x + 110) * way.y - (y - 130) * way.x, 0) * tensionN!;
    const springNm = 15 + 0.2 * (armAngle! - 20);
    expect(Math.abs(moment) / 1000).toBeCloseTo(springNm, 3);
  }
});

test('verdicts run from too short to too long, and a longer belt never sits shorter', () => {
  const drive = arm();
  const lengths = Array.from({ length: 60 }, (_, k) => sizeBelt(drive, 'main')!.window.full! - 8 + k * 1.2);
  const { candidates } = sizeBelt(drive, 'main', { lengths })!;
  const order = ['will-not-go-on', 'tight', 'fits', 'slack', 'out-of-travel'];
  const ranks = candidates.map(({ verdict }) => order.indexOf(verdict));
  expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
  expect(new Set(ranks).size).toBe(5);
  const positions = candidates.flatMap(({ position }) => (position === null ? [] : [position]));
  expect(positions).toEqual([...positions].sort((a, b) => a - b));
});

test('an arm past its best push says so, and sits on the branch where tightening tightens', () => {
  const drive = arm({ pivot: { x: -110, y: 200 }, freeAngle: -40, fullAngle: 75, longMark: -30 });
  const peaked = sizeBelt(drive, 'main')!.curve!;
  const max = pathLength(peaked.travel.at(peaked.peak!), drive.belts[0]!)!;
  const { findings, candidates, curve, window } = sizeBelt(drive, 'main', {
    lengths: [(max + pathLength(peaked.travel.at(0), drive.belts[0]!)!) / 2],
  })!;
  expect(findings.map(({ code }) => code)).toContain('past-best-push');
  expect(candidates[0]!.fraction!).toBeLessThan(curve!.peak!);
  expect(window.free).toBeLessThan(pathLength(curve!.travel.at(curve!.peak!), drive.belts[0]!)!);
});

test('an adjuster drawn past its end or its mark is told', () => {
  const moved = (angle: number) => {
    const drive = arm();
    const [x, y] = [-110 + 100 * Math.cos((angle * Math.PI) / 180), 130 + 100 * Math.sin((angle * Math.PI) / 180)];
    return sizeBelt({ ...drive, stations: drive.stations.map((s) => (s.id === 'ten' ? { ...s, x, y } : s)) }, 'main', {
      lengths: [],
    })!.findings.map(({ code }) => code);
  };
  expect(moved(45)).toEqual([]);
  expect(moved(25)).toEqual(['past-mark']);
  expect(moved(70)).toEqual(['past-mark']);
  expect(moved(85)).toEqual(['past-end']);
  expect(moved(10)).toEqual(['past-end']);
});

test('marks on one spot or the wrong way round are a finding, and no position is NaN', () => {
  for (const [shortMark, longMark] of [
    [45, 45],
    [30, 60],
  ] as const) {
    const drive = arm({ shortMark, longMark });
    const { findings, candidates } = sizeBelt(drive, 'main')!;
    expect(findings.map(({ code }) => code)).toContain('marks-swapped');
    expect(candidates.every(({ position }) => position === null || Number.isFinite(position))).toBe(true);
  }
});

test('an arm that swings clear of the belt leaves it as if the roller were not there, at either end', () => {
  const stops: Stop[] = [
    ['crank', 0, 0, 160],
    ['alt', 300, 0, 60],
    ['ten', 150, -80, 70, 'back', { role: 'tensioner' }],
  ];
  const clear = (freeAngle: number, fullAngle: number) =>
    withAdjuster(stops, 'ten', { kind: 'sprung-arm', pivot: { x: 150, y: -160 }, armLength: 80, freeAngle, fullAngle });
  const bare = openBelt(160, 60, 300);
  const beyond = lengthCurve(clear(60, 130), clear(60, 130).belts[0]!)!;
  expect(beyond.lengths.at(-1)).toBeCloseTo(bare, 6);
  expect(beyond.peak).not.toBeNull();
  // Neighbouring positions differ by little: nowhere does the path jump by the roller's own girth.
  const smooth = (lengths: readonly (number | null)[]) =>
    lengths.forEach((length, k) => k > 0 && expect(Math.abs(length! - lengths[k - 1]!)).toBeLessThan(2));
  smooth(beyond.lengths);
  // Pulled right off the belt by the wrench: the belt goes on as on two pulleys, and then sits where the spring takes
  // it.
  const off = clear(95, 20);
  const curve = lengthCurve(off, off.belts[0]!)!;
  smooth(curve.lengths);
  const { window, candidates } = sizeBelt(off, 'main', { lengths: [bare - 1, bare + 0.5] })!;
  expect(window.full).toBeCloseTo(bare, 6);
  expect(candidates.map(({ verdict }) => verdict)).toEqual(['will-not-go-on', 'fits']);
});

test('angles that pass 360 are the same arm', () => {
  const a = sizeBelt(arm(), 'main')!;
  const b = sizeBelt(arm({ freeAngle: 380, fullAngle: 75, shortMark: 420, longMark: -330 }), 'main')!;
  for (const key of ['full', 'shortMark', 'longMark', 'free'] as const)
    expect(b.window[key]).toBeCloseTo(a.window[key]!, 9);
});

test('with ribs all round a belt has to climb the rim, so it needs more than the slack end', () => {
  const { lastOn, window } = sizeBelt(slide(), 'main')!;
  expect(lastOn!.pulley).toBe('alt');
  // The ribs lie on the rib tips, 3.3 − 2 mm higher, over the smaller wrap.
  expect(lastOn!.needsMm).toBeGreaterThan(window.slackEnd!);
  expect(lastOn!.needsMm).toBeLessThan(window.slackEnd! + 1.3 * Math.PI + 0.5);
  expect(sizeBelt(slide(), 'main', { lengths: [window.slackEnd! + 0.5] })!.candidates[0]!.verdict).toBe(
    'will-not-go-on',
  );
});

test('a worn V-belt rides deeper, so its shaft has to go further out', () => {
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 80],
    ],
    'alt',
    { kind: 'slide', direction: 0, travel: 40 },
    { section: 'AV10' },
  );
  const length = pathLength(lengthCurve(drive, drive.belts[0]!)!.travel.at(0.4), drive.belts[0]!)!;
  const { worn, position } = sizeBelt(drive, 'main', { lengths: [length] })!.candidates[0]!;
  const deeper = 1 / (2 * Math.tan(Math.PI / 10));
  expect(worn!.deeperMm).toBeCloseTo(deeper, 9);
  // The marked line falls with the belt, all round: 2π times as much, and the shaft makes it up over two nearly
  // parallel spans.
  const lean = Math.asin(40 / 316);
  expect((worn!.position! - position!) * 40).toBeCloseTo((2 * Math.PI * deeper) / (2 * Math.cos(lean)), 1);
  expect(sizeBelt(slide(), 'main')!.candidates[0]!.worn).toBeUndefined();
});

test("the reserve kept for stretch is the belt's own where it says one", () => {
  const drive = slide();
  const { window } = sizeBelt(drive, 'main')!;
  const lengths = [window.tightEnd! - 8];
  const codes = (reserve?: number) =>
    sizeBelt({ ...drive, belts: [{ ...drive.belts[0]!, ...(reserve !== undefined && { reserve }) }] }, 'main', {
      lengths,
    })!.candidates[0]!.findings.map(({ code }) => code);
  expect(codes()).not.toContain('little-reserve');
  expect(codes(0.02)).toContain('little-reserve');
});

test('fixed centres stretch the belt: T = EA · stretch', () => {
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 60],
    ],
    'alt',
    { kind: 'fixed' },
  );
  const path = openBelt(160, 60, 300);
  const { candidates, findings } = sizeBelt(drive, 'main', { lengths: [path - 8, path + 1, path * 0.9] })!;
  expect(findings).toEqual([]);
  expect(candidates.map(({ verdict }) => verdict)).toEqual(['fits', 'out-of-travel', 'will-not-go-on']);
  const cord = path - 8 + 4 * Math.PI;
  expect(candidates[0]!.tensionN).toBeCloseTo((stiffnessN(drive.belts[0]!) * 8) / cord, 6);
});

test('property: where a belt sits, the path is as long as the belt', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (fraction) => {
      const drive = arm();
      const belt = drive.belts[0]!;
      const curve = lengthCurve(drive, belt)!;
      const length = pathLength(curve.travel.at(fraction), belt)!;
      expect(pathLength(curve.travel.at(fractionFor(curve, belt, length)!), belt)).toBeCloseTo(length, 6);
    }),
    { numRuns: 40 },
  );
});

test('from a stock those about the window are looked at, two to either side', () => {
  const { window } = sizeBelt(slide(), 'main')!;
  const at = (fraction: number) => window.slackEnd! + fraction * (window.tightEnd! - window.slackEnd!);
  const stock = [at(0.5), at(-0.3), at(-0.1), at(-2), at(0.9), at(1.1), at(1.5), at(3)];
  expect(sizeBelt(slide(), 'main', { stock })!.candidates.map(({ lengthMm }) => lengthMm)).toEqual([
    at(-0.3),
    at(-0.1),
    at(0.5),
    at(0.9),
    at(1.1),
    at(1.5),
  ]);
});

test('no route, no belt, no size: findings or null, no throw and no NaN', () => {
  const bare = driveOf([
    ['crank', 0, 0, 0],
    ['alt', 0, 0, 0],
  ]);
  for (const drive of [
    bare,
    { ...bare, belts: [{ ...bare.belts[0]!, route: [] }] },
    withAdjuster(
      [
        ['crank', 0, 0, 160],
        ['alt', 20, 0, 60],
      ],
      'alt',
      { kind: 'slide', direction: 0, travel: 0 },
    ),
  ]) {
    const sized = sizeBelt(drive, 'main', { lengths: [0, 1000, 1e9] })!;
    expect(
      JSON.stringify(sized.candidates, (_, value: unknown) =>
        typeof value === 'number' && Number.isNaN(value) ? 'NaN' : value,
      ),
    ).not.toContain('"NaN"');
  }
  expect(sizeBelt(bare, 'none')).toBeNull();
});

test('a split sheave takes the belt between its halves: no rim is climbed, and a belt as long as the slack path goes on', () => {
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 150],
      ['gen', 156, 208, 80],
    ],
    'gen',
    { kind: 'shims', shims: [0.8, 0.8, 0.8] },
    { section: 'AV10' },
  );
  const { window } = sizeBelt(drive, 'main')!;
  const { lastOn, candidates } = sizeBelt(drive, 'main', {
    lengths: [window.slackEnd! + 0.1, (window.slackEnd! + window.tightEnd!) / 2],
  })!;
  expect(lastOn).toEqual({ pulley: 'gen', needsMm: expect.closeTo(window.slackEnd!, 9) as number });
  expect(candidates.map(({ verdict }) => verdict)).toEqual(['fits', 'fits']);
});

test('teeth are climbed too: a toothed belt on a slide needs more than its slack path', () => {
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 80],
    ],
    'alt',
    { kind: 'slide', direction: 0, travel: 30 },
    { section: 'H' },
  );
  const toothed = {
    ...drive,
    stations: drive.stations.map((s) => ({
      ...s,
      pulleys: s.pulleys.map((p) => ({ id: p.id, surface: 'toothed' as const, teeth: s.id === 'crank' ? 40 : 20 })),
    })),
  };
  const { lastOn, window } = sizeBelt(toothed, 'main')!;
  // Tooth tips on tooth tips: two heights of tooth, less the line between, over half the smaller pulley.
  const lift = 4.3 - (4.3 - 2.29 - 0.686) - 0.686;
  expect(lastOn!.pulley).toBe('alt');
  expect(lastOn!.needsMm - window.slackEnd!).toBeGreaterThan(lift * 2.5);
  expect(lastOn!.needsMm - window.slackEnd!).toBeLessThan(lift * Math.PI);
});

describe('an arm whose roller swings past its belt', () => {
  // The roller presses the upper strand down, through the lower one: from there on no belt is held.
  const drive = withAdjuster(
    [
      ['crank', 0, 0, 160],
      ['ten', 150, 60, 60, 'back', { role: 'tensioner' }],
      ['alt', 300, 0, 120],
    ],
    'ten',
    {
      kind: 'sprung-arm',
      pivot: { x: 150, y: 240 },
      armLength: 170,
      freeAngle: 330,
      fullAngle: 210,
      shortMark: 225,
      longMark: 262,
      springTorqueAtFree: 20,
      springRate: 0.1,
    },
  );
  const swung = (change: object) => ({
    ...drive,
    stations: drive.stations.map((s) => (s.adjuster ? { ...s, adjuster: { ...s.adjuster, ...change } } : s)),
  });

  test('its window is never inside out, and nothing has less than nothing left', () => {
    for (const longMark of [240, 250, 262, 280, 300]) {
      const there = swung({ longMark, pivot: { x: 150, y: 200 }, armLength: 230 });
      const { window, candidates, findings } = sizeBelt(there, 'main')!;
      if (window.shortMark !== null && window.longMark !== null)
        expect(window.longMark!).toBeGreaterThanOrEqual(window.shortMark!);
      for (const { verdict, reserveMm } of candidates)
        if (verdict === 'fits' || verdict === 'rubs') expect(reserveMm).toBeGreaterThanOrEqual(-1e-9);
      const curve = lengthCurve(there, there.belts[0]!)!;
      if (curve.clear !== null) {
        expect(findings.map(({ code }) => code)).toContain('lets-go');
        expect(window.free).toBeNull();
        expect(curve.end).toBeLessThanOrEqual(curve.clear);
      }
    }
  });

  test('chances answer to the ± there, and not to the jump', () => {
    const there = swung({ longMark: 300, pivot: { x: 150, y: 200 }, armLength: 230 });
    const sizing = sizeBelt(there, 'main')!;
    expect(sizing.curve!.clear).not.toBeNull();
    const { spread } = uncertaintyOf(there, there.belts[0]!, sizing, { draws: 100 });
    expect(Math.max(...spread)).toBeLessThan(20);
  });
});

describe('fixed centres, by kind of belt', () => {
  const fixed = (section: string, big: object, small: object): Drive => {
    const drive = withAdjuster(
      [
        ['crank', 0, 0, 160],
        ['alt', 150, 260, 60],
      ],
      'alt',
      { kind: 'fixed' },
      { section, ...(section === 'PK' && { ribs: 6 }) },
    );
    return {
      ...drive,
      stations: drive.stations.map((s, k) => ({
        ...s,
        pulleys: s.pulleys.map(
          ({ id }) => ({ id, plane: 0, ...(k === 0 ? big : small) }) as (typeof s.pulleys)[number],
        ),
      })),
    };
  };
  const teeth = fixed('H', { surface: 'toothed', teeth: 40 }, { surface: 'toothed', teeth: 24 });

  test('a toothed belt a tooth and a half short does not fit, nor one a tooth long; one of its own length does', () => {
    const path = sizeBelt(teeth, 'main')!.window.tightEnd!;
    const verdicts = sizeBelt(teeth, 'main', {
      lengths: [path - 19, path - 12.7, path - 1, path, path + 0.5],
    })!.candidates.map(({ verdict }) => verdict);
    expect(verdicts).toEqual(['will-not-go-on', 'will-not-go-on', 'fits', 'fits', 'out-of-travel']);
    const { best, candidates } = answerFor(teeth, 'main')!;
    expect(best === null || Math.abs(candidates[best]!.lengthMm - path) < 3).toBe(true);
  });

  test('a V stretches far less than ribs', () => {
    for (const [section, surface, fraction] of [
      ['PK', 'ribbed', 0.015],
      ['AV10', 'vee', 0.008],
    ] as const) {
      const drive = fixed(
        section,
        { surface, diameter: 150, ...(section === 'PK' && { grooves: 6 }) },
        { surface, diameter: 80, ...(section === 'PK' && { grooves: 6 }) },
      );
      const path = sizeBelt(drive, 'main')!.window.tightEnd!;
      const at = (stretch: number) =>
        sizeBelt(drive, 'main', { lengths: [path / (1 + stretch)] })!.candidates[0]!.verdict;
      expect(at(fraction * 0.95)).not.toBe('will-not-go-on');
      expect(at(fraction * 1.05)).toBe('will-not-go-on');
    }
  });

  test('the chance is drawn: it agrees with drives shaken and solved one by one, and falls with the ±', () => {
    const path = sizeBelt(teeth, 'main')!.window.tightEnd!;
    const lengths = [path - 12.7, path - 1, path + 3];
    const sizing = sizeBelt(teeth, 'main', { lengths })!;
    const { chances } = uncertaintyOf(teeth, teeth.belts[0]!, sizing, { draws: 20_000 });
    let state = 99;
    const uniform = () => ((state = (Math.imul(state, 1103515245) + 12345) >>> 0) + 0.5) / 2 ** 32;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const counts = lengths.map(() => 0);
    const runs = 3000;
    for (let run = 0; run < runs; run += 1) {
      const shaken = {
        ...teeth,
        stations: teeth.stations.map((s) =>
          s.id === 'alt' ? { ...s, x: s.x + 1.5 * normal(), y: s.y + 1.5 * normal() } : s,
        ),
      };
      const there = pathLength(shaken, teeth.belts[0]!)!;
      lengths.forEach((mm, k) => {
        const own = mm * (1 + 0.0004 * normal());
        counts[k]! += Number(own <= there && own >= there / 1.002);
      });
    }
    counts.forEach((count, k) => expect(Math.abs(count / runs - chances[k]!)).toBeLessThan(0.03));
    const { inputs, slopes } = responseOf(teeth, teeth.belts[0]!, sizing, null);
    const surer = { slopes, inputs: inputs.map((input) => ({ ...input, sigma: input.sigma / 10 })) };
    const sure = uncertaintyOf(teeth, teeth.belts[0]!, sizing, { draws: 5000, response: surer }).chances;
    expect(sure[1]).toBeGreaterThan(chances[1]! + 0.2);
    expect(chances[1]).toBeGreaterThan(0.05);
    expect(chances[1]).toBeLessThan(0.6);
  });
});

test('a tension says whether it is there or the most at the end', () => {
  expect(sizeBelt(arm(), 'main')!.candidates.every(({ tensionAt }) => tensionAt === 'as-it-sits')).toBe(true);
  const { candidates } = sizeBelt(slide(), 'main', { lengths: [openBelt(160, 60, 310), openBelt(160, 60, 330)] })!;
  expect(candidates.map(({ tensionAt }) => tensionAt)).toEqual(['tight-end', 'tight-end']);
  // At the tight end the shorter of the two is stretched more.
  expect(candidates[0]!.tensionN!).toBeGreaterThan(candidates[1]!.tensionN!);
});

test('what goes on last, and how the arm is let off, is one answer', () => {
  const drive = arm();
  const { lastOn, release } = puttingOn(drive, 'main')!;
  expect(lastOn).toEqual(sizeBelt(drive, 'main')!.lastOn);
  expect(answerFor(drive, 'main')).toMatchObject({ lastOn, release });
  // From 20° free to 75° full the wrench turns it counter-clockwise.
  expect(release).toEqual({ station: 'ten', turn: 'ccw' });
  // Of two smooth faces that need as little, the one that stands still.
  const two = withAdjuster(SERPENTINE, 'ten', { kind: 'slide', direction: 0, travel: 20 });
  expect(puttingOn(two, 'main')!.lastOn!.pulley).toBe('idler');
  expect(puttingOn(drive, 'none')).toBeNull();
});
