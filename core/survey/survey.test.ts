import { reread, driveOf, SERPENTINE, type Stop } from '../test/examples';
import { type Drive, readDrive, type ReadingKind, type SurveyReading } from '../drive';
import { withCode } from '../finding';
import { fitSurvey } from './fit';
import { draws, expectShare } from '../test/draws';

/** A generator with a seed (mulberry32), so that a failure can be looked at again. */
function randomOf(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const normalOf = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

const truth = (stops: Stop[] = SERPENTINE): Drive => driveOf(stops, {}, { crankRotation: 'cw' });

/** What a perfect tape would read. */
function perfect(drive: Drive, kind: ReadingKind, from: string | undefined, to: string): number {
  const at = (id: string) => drive.stations.find((s) => s.id === id)!;
  const b = at(to);
  if (kind === 'x') return b.x;
  if (kind === 'y') return b.y;
  const a = at(from!);
  const apart = Math.hypot(b.x - a.x, b.y - a.y);
  const rims = (a.pulleys[0]!.diameter! + b.pulleys[0]!.diameter!) / 2;
  if (kind === 'angle') return (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  return kind === 'outer' ? apart + rims : kind === 'gap' ? apart - rims : apart;
}

function reading(drive: Drive, kind: ReadingKind, from: string | undefined, to: string, off = 0): SurveyReading {
  const value = perfect(drive, kind, from, to) + off;
  const [id, measured] = [`${kind} ${from} ${to}`, { mm: value, plusMinus: 1 }];
  if (kind === 'x' || kind === 'y') return { id, kind, to, ...measured };
  if (kind === 'angle') return { id, kind, from: from!, to, deg: value, plusMinus: 0.3 };
  return { id, kind, from: from!, to, ...measured };
}

/** Tapes between all pairs, of alternating kinds, and one angle for the direction. */
function network(drive: Drive, noise: () => number = () => 0): SurveyReading[] {
  const ids = drive.stations.map(({ id }) => id);
  const kinds: ReadingKind[] = ['outer', 'gap', 'centre'];
  const tapes = ids.flatMap((from, i) =>
    ids.slice(i + 1).map((to, j) => reading(drive, kinds[(i + j) % 3]!, from, to, noise())),
  );
  return [...tapes, reading(drive, 'angle', ids[0], ids[2]!, noise() * 0.3)];
}

/** The drive with every shaft but the crank moved by up to `by` mm: a rough sketch of it. */
function sketched(drive: Drive, by: number, seed = 1): Drive {
  const random = randomOf(seed);
  return {
    ...drive,
    stations: drive.stations.map((s) =>
      s.id === 'crank' ? s : { ...s, x: s.x + by * (2 * random() - 1), y: s.y + by * (2 * random() - 1) },
    ),
  };
}

const codes = (fit: ReturnType<typeof fitSurvey>) => fit.findings.map(({ code }) => code);

test('perfect readings from a rough sketch give the true places', () => {
  for (let seed = 1; seed < 30; seed += 1) {
    const fit = fitSurvey(sketched(truth(), 50, seed), network(truth()));
    fit.stations.forEach(({ x, y }, k) => {
      expect(x).toBeCloseTo(truth().stations[k]!.x, 4);
      expect(y).toBeCloseTo(truth().stations[k]!.y, 4);
    });
    expect(codes(fit)).toEqual([]);
  }
});

test('the ± is as good as its word: the true place lies within it as often as it claims', () => {
  let inOne = 0;
  let inTwo = 0;
  let all = 0;
  for (let seed = 1; seed <= draws(150); seed += 1) {
    const random = randomOf(seed);
    const fit = fitSurvey(
      sketched(truth(), 20, seed),
      network(truth(), () => normalOf(random)),
    );
    fit.stations.slice(1).forEach(({ x, y, plusMinusX, plusMinusY }, k) => {
      const { x: tx, y: ty } = truth().stations[k + 1]!;
      for (const share of [Math.abs(x - tx) / plusMinusX!, Math.abs(y - ty) / plusMinusY!]) {
        all += 1;
        inOne += Number(share <= 1);
        inTwo += Number(share <= 2);
      }
    });
  }
  // 1500 places: one standard deviation holds 68.3%, two 95.4%; the bounds are some four standard errors wide.
  expectShare(inOne, all, { from: 0.62, to: 0.75 }, 2);
  expectShare(inTwo, all, { from: 0.92, to: 0.985 }, 2);
});

test('a planted blunder is the one named, and the places hold', () => {
  let named = 0;
  let falsely = 0;
  const runs = draws(60);
  for (let seed = 1; seed <= runs; seed += 1) {
    const random = randomOf(seed);
    const readings = network(truth(), () => normalOf(random));
    const at = Math.floor(random() * (readings.length - 1));
    const spoiled = readings.map((r, k) => (k === at ? reread(r, 25.4) : r));
    const fit = fitSurvey(sketched(truth(), 20, seed), spoiled);
    named += Number(fit.readings[at]!.suspect);
    falsely += fit.readings.filter(({ suspect }, k) => suspect && k !== at).length;
    const finding = withCode(fit.findings, 'suspect');
    if (finding?.reading === spoiled[at]!.id)
      expect(Math.abs(finding.figures.shouldBe - readings[at]!.mm!)).toBeLessThan(5);
    fit.stations.forEach(({ x, y }, k) =>
      expect(Math.hypot(x - truth().stations[k]!.x, y - truth().stations[k]!.y)).toBeLessThan(8),
    );
    expect(codes(fit)).not.toContain('mirrored');
  }
  expect(named).toBe(runs);
  expectShare(falsely, runs, { to: 0.1 });
});

test.each<[string, (value: number, a: number, b: number) => number, string]>([
  ['an inch slipped', (value) => value - 25.4, 'inch'],
  ['the near rim of the first', (value, a) => value - a, 'rim-missed'],
  ['the centre of the second', (value, _, b) => value - b / 2, 'radius'],
  ['centre to centre', (value, a, b) => value - (a + b) / 2, 'centres'],
  ['inches written as mm', (value) => value / 25.4, 'unit'],
])('%s is recognised', (_, spoil, slip) => {
  const drive = truth();
  const [a, b] = [drive.stations[0]!.pulleys[0]!.diameter!, drive.stations[2]!.pulleys[0]!.diameter!];
  const readings = network(drive).map((r) =>
    r.id === 'gap crank pump'
      ? {
          id: r.id,
          kind: 'outer' as const,
          from: 'crank',
          to: 'pump',
          mm: spoil(perfect(drive, 'outer', 'crank', 'pump'), a, b),
          plusMinus: 1,
        }
      : r,
  );
  const fit = fitSurvey(drive, readings);
  expect(fit.findings).toContainEqual(
    expect.objectContaining({
      code: 'suspect',
      reading: 'gap crank pump',
      figures: expect.objectContaining({ slip }) as object,
    }),
  );
});

test('without a direction the sketch says which way is up, and the shape is the same', () => {
  const drive = truth();
  const readings = network(drive).filter(({ kind }) => kind !== 'angle');
  const fit = fitSurvey(sketched(drive, 15, 7), readings);
  expect(codes(fit)).toEqual([]);
  fit.stations.forEach(({ x, y }, k) => {
    const { x: tx, y: ty } = drive.stations[k]!;
    expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(tx, ty), 4);
    expect(Math.hypot(x - tx, y - ty)).toBeLessThan(25);
  });
  // Turned as a whole to lie as the sketch does: no turn is left between the two.
  const sketch = sketched(drive, 15, 7);
  const spin = fit.stations.reduce(
    (sum, { x, y }, k) => sum + x * sketch.stations[k]!.y - y * sketch.stations[k]!.x,
    0,
  );
  expect(Math.abs(spin)).toBeLessThan(1e-3);
});

test('x and y readings fix direction and place', () => {
  const drive = truth();
  const readings = drive.stations
    .slice(1)
    .flatMap(({ id }) => [reading(drive, 'x', undefined, id), reading(drive, 'y', undefined, id)]);
  const fit = fitSurvey(sketched(drive, 80), readings);
  fit.stations.forEach(({ x, plusMinusX }, k) => {
    expect(x).toBeCloseTo(drive.stations[k]!.x, 6);
    expect(plusMinusX).toBeCloseTo(k === 0 ? 0 : 1, 9);
  });
  expect(codes(fit)).toEqual(['unchecked']);
});

test('what is not fixed is named, has no ±, and the tape asked for next would fix it', () => {
  const drive = truth();
  const readings = network(drive).filter(({ from, to }) => from !== 'ac' && to !== 'ac');
  const loose = fitSurvey(drive, readings);
  expect(loose.findings).toContainEqual(expect.objectContaining({ code: 'undetermined', pulley: 'ac' }));
  expect(loose.stations.find(({ id }) => id === 'ac')).toMatchObject({ plusMinusX: null, plusMinusY: null });
  expect(loose.stations.find(({ id }) => id === 'alt')!.plusMinusX).toBeGreaterThan(0);
  expect([loose.next!.from, loose.next!.to]).toContain('ac');
  const more = [
    ...readings,
    reading(drive, 'outer', loose.next!.from, loose.next!.to),
    reading(drive, 'gap', 'pump', 'ac'),
    reading(drive, 'centre', 'alt', 'ac'),
  ];
  expect(fitSurvey(drive, more).findings.filter(({ code }) => code === 'undetermined')).toEqual([]);
});

test('a drive taped from nothing, each time the tape that is asked for: none twice, and all firm after the fewest', () => {
  for (let seed = 1; seed <= 40; seed += 1) {
    const random = randomOf(seed);
    const count = 3 + (seed % 4);
    // A ring of shafts, so that no three lie on a line, and a sketch of it that is off by a thumb's width.
    const drive = driveOf(
      Array.from({ length: count }, (_, k): Stop => {
        const at = (2 * Math.PI * k) / count + 0.5 * random();
        return [
          k === 0 ? 'crank' : `p${k}`,
          k === 0 ? 0 : 220 * Math.cos(at),
          k === 0 ? 0 : 200 + 180 * Math.sin(at),
          60 + 80 * random(),
        ];
      }),
    );
    const sketch = sketched(drive, 25, seed);
    const readings = [reading(drive, 'outer', 'crank', 'p1')];
    while (readings.length < 2 * count - 3) {
      const { next } = fitSurvey(sketch, readings);
      readings.push(reading(drive, 'outer', next!.from, next!.to));
    }
    expect(new Set(readings.map(({ id }) => id)).size).toBe(readings.length);
    const fit = fitSurvey(sketch, readings);
    expect(fit.findings.filter(({ code }) => code === 'undetermined')).toEqual([]);
    for (const [k, { x, y }] of fit.stations.entries())
      expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(drive.stations[k]!.x, drive.stations[k]!.y), 3);
  }
});

test.each([0, 1])('with no direction, a pulley on %s tapes is loose and the firm ones are not', (tapes) => {
  const drive = truth();
  const firm = network(drive).filter(({ kind, from, to }) => kind !== 'angle' && from !== 'ac' && to !== 'ac');
  const fit = fitSurvey(drive, [...firm, ...[reading(drive, 'outer', 'crank', 'ac')].slice(0, tapes)]);
  expect(fit.findings.filter(({ code }) => code === 'undetermined').map(({ pulley }) => pulley)).toEqual(['ac']);
  expect(fit.stations.filter(({ plusMinusX }) => plusMinusX === null).map(({ id }) => id)).toEqual(['ac']);
});

test('a pulley hung on two tapes is offered across the line between them', () => {
  const drive = truth();
  const readings = [
    ...network(drive).filter(({ from, to }) => from !== 'ac' && to !== 'ac'),
    reading(drive, 'outer', 'crank', 'ac'),
    reading(drive, 'outer', 'alt', 'ac'),
  ];
  const fit = fitSurvey(drive, readings);
  const mirror = withCode(fit.findings, 'mirrored')!;
  expect(mirror.pulley).toBe('ac');
  const [x, y] = [mirror.figures.x, mirror.figures.y];
  expect(Math.hypot(x, y)).toBeCloseTo(Math.hypot(198, 66), 3);
  expect(Math.hypot(x - 178, y - 306)).toBeCloseTo(Math.hypot(198 - 178, 66 - 306), 3);
  expect(Math.hypot(x - 198, y - 66)).toBeGreaterThan(50);
});

test('two readings of one distance that differ are contradictory, and neither is accused', () => {
  const drive = truth([
    ['crank', 0, 0, 160],
    ['alt', 300, 100, 60],
  ]);
  const single = reading(drive, 'outer', 'crank', 'alt');
  const fit = fitSurvey(drive, [
    single,
    { ...reread(single, 30), id: 'again' },
    reading(drive, 'angle', 'crank', 'alt'),
  ]);
  expect(codes(fit)).toContain('contradictory');
  expect(fit.readings.every(({ suspect }) => !suspect)).toBe(true);
});

test('nothing to fit, one shaft, shafts on one spot: findings and numbers, no throw and no NaN', () => {
  const cases: [Drive, SurveyReading[]][] = [
    [truth(), []],
    [truth([]), []],
    [truth([['crank', 0, 0, 100]]), []],
    [
      truth([
        ['crank', 0, 0, 100],
        ['a', 0, 0, 50],
      ]),
      [{ id: 'r', kind: 'outer', from: 'crank', to: 'a', mm: 300 }],
    ],
    [
      truth([
        ['crank', 0, 0, 100],
        ['a', 300, 0, 50],
      ]),
      [{ id: 'r', kind: 'outer', from: 'crank', to: 'crank', mm: 300 }],
    ],
    [
      truth([
        ['crank', 0, 0, 100],
        ['a', 300, 0, 50],
      ]),
      [{ id: 'r', kind: 'x', to: 'crank', mm: 300 }],
    ],
    [
      truth([
        ['crank', 0, 0, 100],
        ['a', 300, 0, 50],
      ]),
      [{ id: 'r', kind: 'gap', from: 'crank', to: 'a', mm: 1e12, plusMinus: 1e-9 }],
    ],
    [
      truth([
        ['crank', 0, 0, 100],
        ['a', 300, 0, 50],
      ]),
      [{ id: 'r', kind: 'gap', from: 'crank', to: 'a', mm: 1e5, plusMinus: 1e-9 }],
    ],
  ];
  for (const [drive, readings] of cases) {
    expect(readDrive({ ...drive, survey: { readings } }).ok).toBe(readings.every(({ mm = 0 }) => mm <= 1e5));
    const fit = fitSurvey(drive, readings);
    expect(JSON.stringify(fit, (_, value: unknown) => (Number.isNaN(value) ? 'NaN' : value))).not.toContain('NaN');
  }
});

test('the file names a reading that is wrong', () => {
  const problems = (r: object) => {
    const result = readDrive({ ...truth(), survey: { readings: [r] } });
    return result.ok ? [] : result.problems.map(({ path }) => path);
  };
  expect(problems({ id: 'a', kind: 'outer', from: 'crank', to: 'ghost', mm: 5 })).toEqual(['survey.readings[0].to']);
  expect(problems({ id: 'a', kind: 'angle', from: 'crank', to: 'alt', mm: 5 })).toEqual(['survey.readings[0].deg']);
  expect(problems({ id: 'a', kind: 'tape', from: 'crank', to: 'alt', mm: 5 })).toContain('survey.readings[0].kind');
  expect(problems({ id: 'a', kind: 'x', to: 'alt', mm: -5, plusMinus: 0 })).toEqual(['survey.readings[0].plusMinus']);
});

test('with no direction the whole lies as its sketch does, and its ± with it: turned by a quarter, x and y change places', () => {
  const drive = truth();
  const turned = { ...drive, stations: drive.stations.map((s) => ({ ...s, x: -s.y, y: s.x })) };
  const tapes = network(drive).filter(({ kind }) => kind !== 'angle');
  const [as, quarter] = [fitSurvey(drive, tapes), fitSurvey(turned, tapes)];
  for (const [k, { x, y, plusMinusX, plusMinusY }] of as.stations.entries()) {
    const other = quarter.stations[k]!;
    expect([other.x, other.y]).toEqual([expect.closeTo(-y, 5), expect.closeTo(x, 5)]);
    if (k === 0) continue;
    expect(other.plusMinusX).toBeCloseTo(plusMinusY!, 6);
    expect(other.plusMinusY).toBeCloseTo(plusMinusX!, 6);
  }
  expect(as.stations.some(({ plusMinusX, plusMinusY }) => Math.abs(plusMinusX! - plusMinusY!) > 0.05)).toBe(true);
});
