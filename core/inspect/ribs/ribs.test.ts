import { normals } from '../../numeric';
import { findRibs, type GreyPicture, makeRibs, readMarks, RIBS_AS_NEW, type RibsAsked } from './index';
import { fitCell, type RibCell } from './cell';
import { draws, expectShare, THOROUGH } from '../../test/draws';

const PITCH = 3.56;
const found = (asked: Partial<RibsAsked>) => {
  const made = makeRibs({ ...RIBS_AS_NEW, width: 460, height: 260, pxPerMm: 17, ...asked });
  const ribs = findRibs(made.picture, PITCH);
  if (!ribs.ok) throw new Error(ribs.why);
  const reading = readMarks(ribs.marks, PITCH);
  if (!reading.ok) throw new Error(reading.why);
  return { made, ribs, reading };
};

// Known wear, turned, tilted, blurred and grainy.
const CASES: Partial<RibsAsked>[] = [
  { depthMm: 2.9 },
  { depthMm: 2.5, yawDeg: 12, tiltDeg: -6, blurPx: 2.2, seed: 2 },
  { depthMm: 2.2, floorMm: 0.8, yawDeg: -8, tiltDeg: 11, blurPx: 1, noise: 8, seed: 3 },
  { depthMm: 2, floorMm: 1.1, floorRoundMm: 0.4, rollDeg: 14, height: 340, blurPx: 2.8, seed: 4 },
  { depthMm: 1.8, floorMm: 1.3, tipRoundMm: 0.05, rollDeg: -9, tiltDeg: 9, height: 320, seed: 5 },
  { depthMm: 2.6, ribs: 4, pxPerMm: 24, rollDeg: 180, yawDeg: 7, seed: 6 },
  { depthMm: 2.4, ribs: 5, rollDeg: 86, width: 260, height: 460, tiltDeg: 5, blurPx: 2, seed: 7 },
];

test('ribs of known wear are read within 0.1 mm, and within twice the ± that is told', () => {
  let square = 0;
  for (const asked of CASES) {
    const { reading, ribs, made } = found(asked);
    const miss = Math.abs(reading.depthMm.at - asked.depthMm!);
    expect(miss).toBeLessThan(0.1);
    expect(miss).toBeLessThan(2 * reading.depthMm.sigma);
    expect(reading.depthMm.sigma).toBeLessThan(0.12);
    square += (miss / reading.depthMm.sigma) ** 2;
    expect(ribs.marks.tips).toHaveLength(made.tips.length);
    // Found where they were drawn, near the lens and far from it alike.
    for (const [x, y] of ribs.marks.tips)
      expect(Math.min(...made.tips.map(([u, v]) => Math.hypot(u - x, v - y)))).toBeLessThan(
        0.25 * (asked.pxPerMm ?? 17),
      );
    expect(reading.off).toEqual({ tips: [], valleys: [] });
  }
  // Not much worse, as a whole, than one standard deviation each.
  expect(square / CASES.length).toBeLessThan(1.5);
});

test.each([
  ['narrow ribs', 2.34, { depthMm: 1.8, floorMm: 0.25, backMm: 1.4, pitchMm: 2.34, pxPerMm: 24 }],
  ['square on', 3.56, { depthMm: 2.7 }],
  ['tilted', 3.56, { depthMm: 2.6, tiltDeg: 12, yawDeg: 8 }],
  ['in a shadow', 3.56, { depthMm: 2.5, shadow: 0.35 }],
] as const)('the light ends of cords are no ground: %s', (_, pitch, asked) => {
  for (let seed = 1; seed <= draws(16); seed += 1) {
    const made = makeRibs({ ...RIBS_AS_NEW, width: 460, height: 260, pxPerMm: 17, cords: true, ...asked, seed });
    const ribs = findRibs(made.picture, pitch);
    const reading = ribs.ok ? readMarks(ribs.marks, pitch) : null;
    expect(ribs.ok ? 'found' : ribs.why).toBe('found');
    expect(reading!.ok && Math.abs(reading!.depthMm.at - asked.depthMm)).toBeLessThan(0.1);
  }
});

test('threads, cogs and waves repeat as ribs do, and are refused', () => {
  const normal = normals(9);
  /** A dark body of six repeats whose edge lies so many mm in, so far from the middle of a groove. */
  const body = (pitch: number, edge: (fromGroove: number) => number): GreyPicture =>
    flat(
      (x, y) => {
        let dark = 0;
        for (let look = 0; look < 9; look += 1) {
          const [mm, into] = [(x + (look % 3) / 3 - 230) / 17, (y + Math.floor(look / 3) / 3 - 110) / 17];
          const turns = mm / pitch;
          const inside = Math.abs(mm) < 3 * pitch && into < 4.5;
          if (inside && into > edge(Math.abs(turns - Math.round(turns)) * pitch)) dark += 1;
        }
        return 210 - (170 * dark) / 9 + 4 * normal();
      },
      460,
      260,
    );
  const others: [string, GreyPicture][] = [
    ['a thread of 60°', body(3.56, (at) => (1.78 - at) * Math.sqrt(3))],
    ['a thread of 55°', body(3.56, (at) => (1.78 - at) / Math.tan((27.5 * Math.PI) / 180))],
    ['a wave', body(3.56, (at) => 1.3 + 1.3 * Math.cos((2 * Math.PI * at) / 3.56))],
    ['a shallow wave', body(3.56, (at) => 0.9 + 0.9 * Math.cos((2 * Math.PI * at) / 3.56))],
    ['cogs', body(5, (at) => (at < 1.5 ? 2 * Math.sqrt(1 - (at / 1.5) ** 2) : 0))],
    ['flanks of 40°', body(3.56, (at) => Math.max(0, Math.min(2.5, (1.4 - at) / Math.tan((40 * Math.PI) / 180))))],
  ];
  // Each takes a fit of its own: some by default, all in the long run.
  for (const [name, picture] of THOROUGH ? others : others.filter((_, k) => k % 3 === 0)) {
    const ribs = findRibs(picture, PITCH);
    expect(`${name}: ${ribs.ok ? 'read' : ribs.why}`).toMatch(/no-ribs|not-ribs/);
  }
});

test('the profile goes by the floor of the grooves, and the blur is told', () => {
  expect(found({ depthMm: 2.9 }).ribs.profile).toBe('v');
  expect(found({ depthMm: 2.2, floorMm: 0.95 }).ribs.profile).toBe('worn');
  expect(found({ depthMm: 1.9, floorMm: 1.5 }).ribs.profile).toBe('u');
  expect(found({ blurPx: 2.5 }).ribs.blurMm).toBeCloseTo(2.5 / 17, 2);
});

const flat = (grey: (x: number, y: number) => number, width = 300, height = 200): GreyPicture => ({
  width,
  height,
  data: Float32Array.from({ length: width * height }, (_, k) => grey(k % width, Math.floor(k / width))),
});

test('what shows no ribs is told, and never a depth', () => {
  const normal = normals(5);
  const none: [GreyPicture, RegExp][] = [
    [flat(() => 128), /no-contrast/],
    [flat(() => 128 + 6 * normal()), /no-contrast|no-ribs/],
    [flat((_, y) => (y < 100 ? 210 : 40)), /no-ribs/],
    [flat((x, y) => (Math.hypot(x - 150, y - 100) < 60 ? 40 : 210)), /no-ribs/],
    [flat(() => 128 + 90 * normal()), /no-/],
    [flat((x) => (x % 40 < 20 ? 210 : 40)), /no-ribs|too/],
    [flat(() => 0, 3, 2), /no-/],
  ];
  for (const [picture, why] of none) {
    const ribs = findRibs(picture, PITCH);
    expect(ribs.ok ? 'found' : ribs.why).toMatch(why);
  }
});

test('a cell that holds no rib is told, whatever else it shows; a rib between two grooves is read', () => {
  const cellOf = (value: (across: number, deep: number) => number): RibCell => {
    const [across, deep, from, to] = [40, 40, -0.7, 0.7];
    const values = Array.from({ length: across * deep }, (_, k) =>
      value((k % across) / across - 0.5 + 0.5 / across, from + ((Math.floor(k / across) + 0.5) / deep) * (to - from)),
    );
    return { across, deep, from, to, values, ribs: 5 };
  };
  const normal = normals(6);
  for (const none of [
    () => 0.5 + 0.5 * normal(),
    (x: number) => Number(x > 0),
    (_: number, y: number) => Number(y > 0),
    (x: number, y: number) => Number(Math.sin(40 * x) * Math.sin(40 * y) > 0),
    // A groove where the rib should be.
    (x: number, y: number) => Number(y < 0.3 - 2 * Math.abs(x)),
  ])
    expect(fitCell(cellOf(none))).toBeNull();
  // By hand: flanks of 20 degrees, tip and floor cut off square, ground above the belt.
  const slope = 1 / Math.tan((20 * Math.PI) / 180);
  const edge = (x: number) => Math.min(0.35, Math.max(-0.35, slope * (Math.abs(x) - 0.25)));
  const fit = fitCell(cellOf((x, y) => Number(y < edge(x))))!;
  expect(fit.bottom - fit.top).toBeGreaterThan(0.55);
  expect(fit.bottom - fit.top).toBeLessThan(0.75);
  expect(Math.abs(fit.aside)).toBeLessThan(0.02);
});

describe('marks by hand', () => {
  const { tips, valleys } = makeRibs({ ...RIBS_AS_NEW, width: 8, height: 8, depthMm: 2.4, rollDeg: 17 });
  const read = (more: object = {}) => {
    const reading = readMarks({ tips, valleys, ...more }, PITCH);
    if (!reading.ok) throw new Error(reading.why);
    return reading;
  };

  test('exact marks give the depth, whichever way the picture is turned and in any order', () => {
    expect(read().depthMm.at).toBeCloseTo(2.4, 6);
    expect(read({ tips: [...tips].reverse(), valleys: valleys.slice(1, 4) }).depthMm.at).toBeCloseTo(2.4, 6);
    // A rib that nobody marked.
    expect(read({ tips: tips.filter((_, k) => k !== 2) }).depthMm.at).toBeCloseTo(2.4, 6);
    const swap = (points: typeof tips) => points.map(([x, y]): [number, number] => [y, -x]);
    expect(read({ tips: swap(tips), valleys: swap(valleys) }).depthMm.at).toBeCloseTo(2.4, 6);
  });

  test('a mark on the wrong spot is named, and the ± grows', () => {
    const slipped = read({ tips: tips.map(([x, y], k) => (k === 3 ? [x, y + 30] : [x, y])) });
    expect(slipped.off.tips).toEqual([3]);
    expect(slipped.depthMm.sigma).toBeGreaterThan(1.5 * read().depthMm.sigma);
  });

  test('the ± of marks put by an unsteady hand is as good as it says', () => {
    const normal = normals(9);
    let [within, twice] = [0, 0];
    const rounds = draws(400);
    for (let n = 0; n < rounds; n += 1) {
      const shaken = (points: typeof tips) =>
        points.map(([x, y]): [number, number] => [x + 2.4 * normal(), y + 2.4 * normal()]);
      // Taken square on, and known to be.
      const { depthMm } = read({
        tips: shaken(tips),
        valleys: shaken(valleys),
        sigmaPx: 2.4,
        stretch: { at: 1, plusMinus: 1e-4 },
      });
      const off = Math.abs(depthMm.at - 2.4) / depthMm.sigma;
      if (off < 1) within += 1;
      if (off < 2) twice += 1;
    }
    expectShare(within, rounds, { from: 0.62, to: 0.82 });
    expectShare(twice, rounds, { from: 0.93 });
  });

  test('too few, on one spot, or in no row are told', () => {
    const why = (marks: object) => {
      const reading = readMarks({ tips, valleys, ...marks }, PITCH);
      return reading.ok ? 'read' : reading.why;
    };
    expect(why({ tips: tips.slice(0, 1) })).toBe('too-few');
    expect(why({ tips: [tips[0], tips[0]], valleys: [tips[0], tips[0]] })).toMatch(/not-in-a-row|too-small/);
    expect(
      why({
        tips: [
          [0, 0],
          [1, 0],
        ],
        valleys: [
          [0.5, 1],
          [1.5, 1],
        ],
      }),
    ).toBe('too-small');
  });
});
