import fc from 'fast-check';
import { driveOf, SERPENTINE, type Stop } from '../test/examples';
import type { Align, AlignMove, AlignReading, AlignStack, Drive } from '../drive';
import { alignmentOf, worstDeg } from '../planes';
import { sectionFor } from '../section';
import { groovesThere } from './plan';
import {
  alignFindings,
  grooveCounts,
  hiddenPlanes,
  movedUnderLoad,
  nextReadings,
  parseOffset,
  planFor,
  pressState,
  rollerTracks,
  searchSets,
  shiftOf,
  simulatedLaser,
} from './index';
import { draws, expectShare } from '../test/draws';

/** A drive whose pulleys stand out by so much, read at the hub. */
function standing(offsets: Record<string, number>, align: Align = {}, stops: Stop[] = SERPENTINE): Drive {
  const readings = Object.entries(offsets).map(([pulley, mm], k): AlignReading => ({
    id: `s${k}`,
    tool: 'laser',
    pulley,
    mm,
  }));
  return driveOf(
    stops,
    {},
    { crankRotation: 'cw', align: { ...align, readings: [...readings, ...(align.readings ?? [])] } },
  );
}
const plansOf = (drive: Drive) => planFor(drive, alignmentOf(drive, 'main')!);
const codes = (drive: Drive) =>
  alignFindings(drive, drive.belts[0]!, alignmentOf(drive, 'main')).map(({ code }) => code);
const LIMITS = sectionFor('PK')!.runAngle;
const press = (pulley: string, min = -9, max = 9): AlignMove => ({ kind: 'press', pulley, min, max });
const offsets = fc.record({
  pump: fc.double({ min: -7, max: 7, noNaN: true }),
  alt: fc.double({ min: -7, max: 7, noNaN: true }),
  ac: fc.double({ min: -7, max: 7, noNaN: true }),
});

test('one pulley off: one press, by just what it is off', () => {
  const { plans } = plansOf(
    standing({ pump: 0, alt: 4.6, ac: 0 }, { moves: [press('alt'), press('ac'), press('pump')] }),
  );
  expect(plans).toHaveLength(1);
  expect(plans[0]!.moves).toEqual([{ pulley: 'alt', kind: 'press', mm: expect.closeTo(-4.6, 5) as number }]);
  expect(plans[0]!.worstDeg).toBeLessThan(1e-5);
});

test('a plan, made on what is so, leaves what it says; it is there wherever a finer search by hand finds one, and no longer', () => {
  const spacers = [-4, -2, -1, 1, 2, 4];
  fc.assert(
    fc.property(offsets, (at) => {
      const moves: AlignMove[] = [
        press('pump', -3, 2),
        { kind: 'shim', pulley: 'alt', sizes: spacers },
        { kind: 'groove', pulley: 'ac', steps: -1 },
      ];
      const drive = standing(at, { moves });
      const { plans, limitDeg } = plansOf(drive);
      // As many ribs as grooves: only a belt that sits a groove out can go in by one.
      const grooves = groovesThere(drive, alignmentOf(drive, 'main')!, { pulley: 'ac', steps: -1 }).map(
        (steps) => 3.56 * steps,
      );
      const worstWith = (pump: number, alt: number, ac: number) =>
        worstDeg(
          alignmentOf(drive, 'main', {
            shifts: [
              { pulley: 'pump', mm: pump },
              { pulley: 'alt', mm: alt },
              { pulley: 'ac', mm: ac },
            ],
          })!.runs,
        );
      for (const plan of plans) {
        const again = alignmentOf(drive, 'main', { shifts: plan.moves.map(shiftOf) })!;
        expect(worstDeg(again.runs)).toBeCloseTo(plan.worstDeg, 9);
        expect(plan.worstDeg).toBeLessThanOrEqual(limitDeg! + 1e-6);
      }
      // By trying: every setting of every cure, the press in steps.
      let [fewest, min] = [Infinity, Infinity];
      const limit = limitDeg ?? LIMITS.good;
      for (const pump of [0, ...Array.from({ length: 26 }, (_, k) => -3 + k / 5)])
        for (const alt of [0, ...spacers])
          for (const ac of [0, ...grooves]) {
            const size = [pump, alt, ac].filter((mm) => mm !== 0).length;
            const worst = size > fewest ? Infinity : worstWith(pump, alt, ac);
            if (worst > limit) continue;
            min = size < fewest ? worst : Math.min(min, worst);
            fewest = size;
          }
      if (fewest === 0 && limit === LIMITS.good) return expect(plans).toEqual([]);
      // A press between two steps of the search by hand may find a way that it misses.
      if (fewest === Infinity)
        return expect(plans.length === 0 || plans[0]!.moves.some(({ kind }) => kind === 'press')).toBe(true);
      expect(plans[0]!.moves.length).toBeLessThanOrEqual(fewest);
      if (plans[0]!.moves.length === fewest) expect(plans[0]!.worstDeg).toBeLessThanOrEqual(min + 1e-6);
      return undefined;
    }),
    { numRuns: 25 },
  );
});

test('nothing wrong, nothing to do; what cannot be cured to good goes from wrong to watch, and says so', () => {
  expect(plansOf(standing({ pump: 0.3, alt: 0.2, ac: -0.4 }, { moves: [press('alt'), press('pump')] })).plans).toEqual(
    [],
  );
  const only = plansOf(standing({ pump: 0, alt: 0, ac: 5 }, { moves: [press('ac', -2.6, 0)] }));
  expect(only.limitDeg).toBe(LIMITS.watch);
  expect(only.plans[0]!.moves[0]!.mm).toBeCloseTo(-2.6, 6);
  expect(plansOf(standing({ ac: 5 }, { moves: [press('pump')] }))).toMatchObject({ plans: [], limitDeg: null });
});

test('a tilt alone is cured by squaring it, and two pulleys by two cures', () => {
  const tilted = [0, 90, 180].map((at): AlignReading => ({
    id: `t${at}`,
    tool: 'laser',
    pulley: 'alt',
    at,
    mm: 29 * 0.03 * Math.sin((at * Math.PI) / 180),
  }));
  const square = plansOf(
    standing({ pump: 0, ac: 0 }, { readings: tilted, moves: [press('alt'), { kind: 'square', pulley: 'alt' }] }),
  );
  expect(square.plans[0]!.moves).toEqual([{ pulley: 'alt', kind: 'square' }]);
  const two = plansOf(standing({ pump: -5, alt: 0, ac: 4 }, { moves: [press('pump'), press('alt'), press('ac')] }));
  expect(two.plans[0]!.moves.map(({ pulley }) => pulley)).toEqual(['pump', 'ac']);
  expect(two.plans[0]!.worstDeg).toBeLessThan(0.001);
});

const stack = fc
  .array(
    fc.record({
      options: fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 3 })), {
        minLength: 1,
        maxLength: 4,
      }),
      mm: fc.integer({ min: 0, max: 40 }),
    }),
    { minLength: 2, maxLength: 4 },
  )
  .map((made) =>
    made.map(({ options, mm }, k): AlignStack => ({
      id: `k${k}`,
      pulley: 'alt',
      pieces: [
        { name: 'bracket', mm, plusMinus: 0.2 },
        {
          name: 'hub',
          options: options.map(([depth, price], n) => ({
            name: `h${n}`,
            mm: depth / 2,
            plusMinus: 0.1,
            price,
            fitted: n === 0,
          })),
        },
      ],
    })),
  );

test('the sets of parts are those that trying all gives, in that order', () => {
  fc.assert(
    fc.property(stack, (stacks) => {
      let all = [{ planes: [] as number[], changed: 0, price: 0 }];
      for (const { pieces } of stacks)
        all = all.flatMap(({ planes, changed, price }) =>
          pieces[1]!.options!.map((option) => ({
            planes: [...planes, pieces[0]!.mm! + option.mm],
            changed: changed + (option.fitted ? 0 : 1),
            price: price + (option.fitted ? 0 : option.price!),
          })),
        );
      const expected = all
        .map(({ planes, ...rest }) => ({ spread: Math.max(...planes) - Math.min(...planes), ...rest }))
        .sort((a, b) => a.spread - b.spread || a.changed - b.changed || a.price - b.price);
      const found = searchSets(stacks);
      expect(found.count).toBe(all.length);
      expect(found.sets.map(({ spreadMm: spread, changed, price }) => ({ spread, changed, price }))).toEqual(
        expected.slice(0, 200),
      );
      expect(found.sets[0]!.plusMinusMm).toBeCloseTo(
        found.sets[0]!.spreadMm === 0 ? found.sets[0]!.plusMinusMm : Math.hypot(0.2, 0.1, 0.2, 0.1),
        9,
      );
    }),
  );
});

test.each([
  ['wrong-rib', [2, 2.1, 5.6]],
  ['other-side', [4, 4.1, -3.9]],
  ['inch-for-mm', [6, 6.1, 0.24]],
  ['readings-disagree', [5, 5.1, 6.8, 5]],
] as const)('%s is named by the readings that contradict', (code, mm) => {
  const readings = mm.map((value, k): AlignReading => ({
    id: `b${k}`,
    tool: 'calliper',
    pulley: 'pump',
    at: 90 * k,
    mm: value,
  }));
  const drive = standing({}, { readings });
  const found = alignFindings(drive, drive.belts[0]!, alignmentOf(drive, 'main')).find(
    (finding) => finding.code === code,
  );
  expect(codes(drive)).toContain(code);
  if (code !== 'readings-disagree') expect(found!.reading).toBe('b2');
});

test('sound readings are no blunder: fewer than one set in two hundred is taken for one', () => {
  const laser = (seed: number) => simulatedLaser(driveOf(SERPENTINE, {}, { crankRotation: 'cw' }), seed);
  let wrong = 0;
  for (let seed = 1; seed <= draws(200); seed += 1) {
    const source = laser(seed);
    const readings = [0, 90, 180, 270].map((at, k): AlignReading => ({
      id: `q${k}`,
      tool: 'laser',
      pulley: 'alt',
      at,
      ...source.read('alt', at),
    }));
    wrong += Number(
      codes(standing({}, { readings })).some((code) =>
        ['wrong-rib', 'other-side', 'inch-for-mm', 'readings-disagree'].includes(code),
      ),
    );
  }
  expectShare(wrong, draws(200), { to: 2 / 200 });
});

test('the laser that ships reads its hidden planes, and follows what was done to a pulley since', () => {
  const drive = driveOf(SERPENTINE, {}, { crankRotation: 'cw' });
  const hidden = hiddenPlanes(drive, 5).get('ac')!;
  const mean = (source: ReturnType<typeof simulatedLaser>) =>
    Array.from({ length: 48 }, (_, k) => source.read('ac', 7.5 * k).mm).reduce((sum, mm) => sum + mm, 0) / 48;
  expect(Math.abs(mean(simulatedLaser(drive, 5)) - hidden.offset)).toBeLessThan(0.06);
  const moved = { ...drive, align: { done: [{ id: 'd', pulley: 'ac', kind: 'press' as const, mm: -2 }] } };
  expect(Math.abs(mean(simulatedLaser(moved, 5)) - hidden.offset + 2)).toBeLessThan(0.06);
});

test('a rib off by its count is told before anything is read; a pulley a whole rib out as what it is', () => {
  const wide: Stop[] = SERPENTINE.map(([id, x, y, diameter, side = 'drive', more]) => [
    id,
    x,
    y,
    diameter,
    side,
    { ...more, grooves: 7 },
  ]);
  const counted = (fronts: Record<string, number>): Drive => {
    const drive = driveOf(wide, {}, { crankRotation: 'cw' });
    const [belt] = drive.belts;
    return {
      ...drive,
      belts: [
        {
          ...belt!,
          route: belt!.route.map((stop) => ({
            ...stop,
            ...(stop.pulley in fronts && { front: fronts[stop.pulley]! }),
          })),
        },
      ],
    };
  };
  expect(
    grooveCounts(counted({ crank: 1 }), counted({ crank: 1 }).belts[0]!).map(({ pulley, front }) => [pulley, front]),
  ).toEqual([
    ['crank', 1],
    ['ac', 1],
    ['pump', 1],
    ['alt', 1],
  ]);
  expect(codes(counted({ crank: 1, ac: 1, alt: 1, pump: 1 }))).not.toContain('rib-off');
  expect(codes(counted({ crank: 1, ac: 0 }))).toContain('rib-off');
  expect(codes(counted({ crank: 1, ac: 2 }))).toContain('hangs-over');
  // On a long run a rib off is a small angle, and told all the same; not where it meets a pulley that stands off.
  const far = counted({ crank: 1, alt: 0 });
  expect(codes(far)).toContain('rib-off');
  const met = (mm: number) => ({
    ...far,
    align: { readings: [{ id: 'm', tool: 'laser' as const, pulley: 'alt', mm }] },
  });
  expect(codes(met(-3.6))).not.toContain('rib-off');
  expect(codes(met(0.2))).toContain('rib-off');
  expect(codes(standing({ pump: 0, alt: 0, ac: 3.5 }))).toContain('stands-a-rib-off');
  expect(codes(standing({ pump: 0, alt: 0, ac: 1.4 }))).not.toContain('stands-a-rib-off');
});

test('a tilted roller carries the belt until the run that comes in lies in its plane', () => {
  const tilt = 0.01;
  const readings = [0, 90, 180, 270].map((at): AlignReading => ({
    id: `i${at}`,
    tool: 'laser',
    pulley: 'idler',
    at,
    mm: 38 * tilt * Math.cos((at * Math.PI) / 180),
    plusMinus: 0.05,
  }));
  const drive = standing({ pump: 0, alt: 0, ac: 0 }, { readings, tracks: [{ pulley: 'idler', mm: -4 }] });
  const alignment = alignmentOf(drive, 'main')!;
  const roller = rollerTracks(drive, alignment).find(({ pulley }) => pulley === 'idler')!;
  const span = alignment.solution.spans.find(({ to }) => to === 'idler')!;
  const along = (span.end.x - span.start.x) / span.length!;
  // In the roller's plane the run comes in rising by the tilt along it; there the face's middle is its own plane.
  expect(roller.trackMm).toBeCloseTo(tilt * along * span.length! - tilt * (span.end.x - 52), 6);
  expect(Math.sign(roller.steersDeg)).toBe(Math.sign(along));
  expect(roller.seenMm).toBe(-4);
});

test('what moves under load is told apart by how it moves', () => {
  const at = (mm: (place: number) => number, load: boolean, pulley: string): AlignReading[] =>
    [0, 90, 180, 270].map((place) => ({
      id: `${pulley}${place}${load}`,
      tool: 'laser',
      pulley,
      at: place,
      mm: mm(place),
      plusMinus: 0.1,
      ...(load && { load }),
    }));
  const tipped = (place: number) => 66 * 0.02 * Math.sin((place * Math.PI) / 180);
  const drive = standing(
    {},
    {
      readings: [
        ...at(() => 0, false, 'pump'),
        ...at((place) => 2 + tipped(place), true, 'pump'),
        ...at(() => 0.5, false, 'ac'),
        ...at(() => 2.5, true, 'ac'),
        ...at(() => 1, false, 'alt'),
        ...at(() => 1.05, true, 'alt'),
      ],
    },
  );
  const found = new Map(movedUnderLoad(drive, 'main').map((move) => [move.pulley, move]));
  expect(found.get('pump')!.suspects[0]).toBe('bracket');
  expect(found.get('ac')!.suspects[0]).toBe('hub-ring');
  expect(found.get('alt')!.moved).toBe(false);
  const byHand = standing({}, { readings: [{ id: 'h', tool: 'feeler', pulley: 'alt', mm: 1, load: true }] });
  expect(codes(byHand)).toContain('load-by-hand');
});

test('the next reading is where reading it leaves the least doubt of the runs, by reading each place', () => {
  const sigma = 0.5;
  // Both tilts of each are seen already: from there on a reading only ever narrows them.
  const read = ['pump', 'alt', 'ac'].flatMap((pulley, k) =>
    [0, 60, 170].map((at): AlignReading => ({
      id: `${pulley} ${at}`,
      tool: 'laser',
      pulley,
      at: at + 80 * k,
      mm: 0,
      plusMinus: 0.4,
    })),
  );
  const before = standing({}, { readings: read });
  /** The variance of the angles at this pulley, as its plane alone makes them: z = out + tx (x − cx) + ty (y − cy). */
  const doubtOf = (drive: Drive, pulley: string) => {
    const { runs, planes, solution } = alignmentOf(drive, 'main')!;
    const at = planes.findIndex((plane) => plane.pulley === pulley);
    const { centre, covariance } = planes[at]!;
    const variance = (g: number[]) =>
      g.reduce((sum, a, i) => sum + g.reduce((part, b, j) => part + a * b * covariance[3 * i + j]!, 0), 0);
    return runs.reduce((sum, { fromAt, toAt, spans, lengthMm }) => {
      const [first, last] = [solution.spans[fromAt]!, solution.spans[spans.at(-1)!]!];
      const end = ({ x, y }: { x: number; y: number }, sign: number, span: typeof first) => {
        const rise = [1, x - centre.x, y - centre.y].map((part) => (sign * part) / lengthMm);
        const long = Math.hypot(span.end.x - span.start.x, span.end.y - span.start.y);
        const [ax, ay] = [(span.end.x - span.start.x) / long, (span.end.y - span.start.y) / long];
        return variance([rise[0]!, rise[1]! - ax, rise[2]! - ay]) + variance(rise);
      };
      return sum + (fromAt === at ? end(first.start, -1, first) : 0) + (toAt === at ? end(last.end, 1, last) : 0);
    }, 0);
  };
  const suggested = nextReadings(before, alignmentOf(before, 'main')!, sigma);
  expect(suggested.length).toBeGreaterThan(0);
  for (const { pulley, at, beforeDeg, afterDeg } of suggested) {
    const places = Array.from({ length: 8 }, (_, k) => 45 * k);
    const after = places.map((place) =>
      doubtOf(
        standing({}, { readings: [...read, { id: 'x', tool: 'laser', pulley, at: place, mm: 0, plusMinus: sigma }] }),
        pulley,
      ),
    );
    const mine = after[places.indexOf((at + 360) % 360)]!;
    expect(mine).toBeLessThanOrEqual(Math.min(...after) * (1 + 1e-6));
    expect(Math.max(...after)).toBeGreaterThan(mine * 1.01);
    // Two ends of each run at it, each as an angle and as a rise.
    const { runs } = alignmentOf(before, 'main')!;
    const ends = runs.flatMap(({ from, to }) => [from, to]).filter((other) => other === pulley).length;
    const degrees = (variance: number) => (Math.sqrt(variance / (2 * ends)) * 180) / Math.PI;
    expect(beforeDeg).toBeCloseTo(degrees(doubtOf(before, pulley)), 6);
    expect(afterDeg).toBeCloseTo(degrees(mine), 6);
  }
});

test('the next reading is of a pulley nobody read, then across the one that was; well known, none', () => {
  const next = (drive: Drive) => nextReadings(drive, alignmentOf(drive, 'main')!);
  expect(next(standing({ pump: 0, ac: 0 }))[0]!.pulley).toBe('alt');
  const once = standing(
    {},
    {
      readings: ['pump', 'alt', 'ac'].flatMap((pulley, k) => [
        { id: `n${k}`, tool: 'laser' as const, pulley, at: 90, mm: 0, plusMinus: 0.1 },
      ]),
    },
  );
  for (const { beforeDeg, afterDeg } of next(once)) expect(afterDeg).toBeLessThan(beforeDeg);
  const well = ['pump', 'alt', 'ac'].flatMap((pulley) =>
    [0, 60, 120, 180, 240, 300].map((at): AlignReading => ({
      id: `${pulley}${at}`,
      tool: 'laser',
      pulley,
      at,
      mm: 0,
      plusMinus: 0.05,
    })),
  );
  expect(next(standing({}, { readings: well }))).toEqual([]);
});

test.each([
  ['half a rib in', -1.78, 'in'],
  ['1 1/2 ribs out', 5.34, 'out'],
  ['a rib', 3.56, null],
  ['40 thou', 1.016, null],
  ['2 mm in', -2, 'in'],
  ['1/16" in', -1.5875, 'in'],
  ['1/16 in', 1.5875, null],
  ['-0.8', -0.8, null],
  ['2,5 mm out', 2.5, 'out'],
] as const)('%s is read as %s mm', (text, mm, side) => {
  const reading = parseOffset(text, 'mm', 3.56);
  expect(reading).toEqual({ ok: true, mm: expect.closeTo(mm, 9) as number, side });
});

test.each(['2 in', 'some ribs', '-2 mm in', 'constructor rib', ''])('%j is asked about', (text) => {
  expect(parseOffset(text, 'mm', 3.56)).toMatchObject({ ok: false, problem: expect.stringMatching(/\S/) as string });
});

test('a press: what the feeler should feel, what is left, and when it went too far', () => {
  expect(pressState({ gapMm: 6, moveMm: -2, nowMm: 5 })).toEqual({ targetMm: 4, leftMm: -1, verdict: 'left' });
  expect(pressState({ gapMm: 6, moveMm: -2, nowMm: 4.1 }).verdict).toBe('there');
  expect(pressState({ gapMm: 6, moveMm: -2, nowMm: 3.2 }).verdict).toBe('past');
  expect(pressState({ gapMm: 2, moveMm: 1.5, nowMm: 4 }).verdict).toBe('past');
});
