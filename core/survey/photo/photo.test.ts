import fc from 'fast-check';
import { driveOf, SERPENTINE } from '../../test/examples';
import { fitSurvey } from '..';
import { type Drive, type PicturePoint, readDrive, type SurveyPhoto } from '../../drive';
import { type Camera, squareUp, toPicture, toPlane } from './camera';
import { fitEllipse } from './ellipse';
import { fitPhoto } from './fit-photo';
import { draws, expectShare } from '../../test/draws';

const WIDTH = 1600;
const HEIGHT = 1200;

function randomOf(seed: number): () => number {
  let state = (seed * 2654435761) >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}
const normalOf = (random: () => number) =>
  Math.sqrt(-2 * Math.log(random() || 1e-9)) * Math.cos(2 * Math.PI * random());

const truth = (): Drive => driveOf(SERPENTINE);
const DRIVE_WIDTH = 198 + 178 + (118 + 132) / 2;

/**
 * A camera some way off, aimed near the middle of the drive, turned `tilt` from head-on about an axis in the picture at
 * `axis`.
 */
function camera(tilt: number, axis: number, distance = 1100): Camera {
  const focal = (1300 * distance) / 1100;
  return { pitch: tilt * Math.cos(axis), yaw: tilt * Math.sin(axis), focal, distance, cx: WIDTH / 2, cy: HEIGHT / 2 };
}

/** A picture of the drive by that camera, aimed at `aim`, with points put round each rim to within `noise` px. */
function pictured(
  drive: Drive,
  seen: Camera,
  { noise = 0, seed = 1, each = 12, known = ['crank'], aim = [10, 150], extra = {} as Partial<SurveyPhoto> },
): SurveyPhoto {
  const random = randomOf(seed);
  const rims = drive.stations.flatMap(({ x, y, pulleys }) =>
    pulleys.map(({ id, diameter, plane = 0 }) => ({
      pulley: id,
      ...(known.includes(id) && { known: true }),
      points: Array.from({ length: each }, (_, k): PicturePoint => {
        const turn = (2 * Math.PI * (k + random() * 0.6)) / each;
        const [u, v] = toPicture(
          seen,
          x - aim[0]! + (diameter! / 2) * Math.cos(turn),
          y - aim[1]! + (diameter! / 2) * Math.sin(turn),
          plane,
        );
        return [u + noise * normalOf(random), v + noise * normalOf(random)];
      }),
    })),
  );
  return { id: 'photo-1', hash: '0'.repeat(64), width: WIDTH, height: HEIGHT, rims, ...extra };
}

/** Distances of the fitted centres from the true ones, once the one is laid on the other by a shift and a turn. */
function misses(drive: Drive, photo: SurveyPhoto): number[] {
  const { circles } = fitPhoto(drive, photo);
  const at = (pulley: string) => drive.stations.find(({ pulleys }) => pulleys.some(({ id }) => id === pulley))!;
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [mx, my] = [mean(circles.map(({ x }) => x)), mean(circles.map(({ y }) => y))];
  const [tx, ty] = [mean(circles.map(({ pulley }) => at(pulley).x)), mean(circles.map(({ pulley }) => at(pulley).y))];
  const pairs = circles.map(({ pulley, x, y }) => [x - mx, y - my, at(pulley).x - tx, at(pulley).y - ty] as const);
  const turn = Math.atan2(
    pairs.reduce((sum, [x, y, u, v]) => sum + x * v - y * u, 0),
    pairs.reduce((sum, [x, y, u, v]) => sum + x * u + y * v, 0),
  );
  return pairs.map(([x, y, u, v]) =>
    Math.hypot(Math.cos(turn) * x - Math.sin(turn) * y - u, Math.sin(turn) * x + Math.cos(turn) * y - v),
  );
}

test('points of an ellipse give it back, wherever and however it lies', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -3000, max: 3000, noNaN: true }),
      fc.double({ min: 20, max: 900, noNaN: true }),
      fc.double({ min: 0.3, max: 0.97, noNaN: true }),
      fc.double({ min: -1.5, max: 1.5, noNaN: true }),
      fc.integer({ min: 5, max: 30 }),
      (x, a, ratio, angle, count) => {
        const points = Array.from({ length: count }, (_, k): PicturePoint => {
          const turn = (2 * Math.PI * k) / count + 0.3;
          const [u, v] = [a * Math.cos(turn), a * ratio * Math.sin(turn)];
          return [x + u * Math.cos(angle) - v * Math.sin(angle), 700 + u * Math.sin(angle) + v * Math.cos(angle)];
        });
        const found = fitEllipse(points)!;
        expect(Math.hypot(found.x - x, found.y - 700)).toBeLessThan(1e-4 * a);
        expect(Math.abs(found.a / a - 1) + Math.abs(found.b / (a * ratio) - 1)).toBeLessThan(1e-4);
        expect(Math.abs(Math.sin(found.angle - angle))).toBeLessThan(2e-3 / (1 - ratio));
      },
    ),
  );
});

test('no ellipse through four points, points on a line or on one spot', () => {
  const line = Array.from({ length: 8 }, (_, k): PicturePoint => [k * 10, k * 20 + 5]);
  for (const points of [line, line.slice(0, 4), line.map((): PicturePoint => [3, 3])])
    expect(fitEllipse(points)).toBeNull();
});

test('plane to picture and back is the same place, and the homography agrees', () => {
  const random = randomOf(5);
  for (let k = 0; k < 200; k += 1) {
    const seen = { ...camera(0.7 * random(), 7 * random()), focal: 900 + 900 * random() };
    const [x, y, z] = [600 * random() - 300, 600 * random() - 300, 100 * random() - 50];
    const [u, v] = toPicture(seen, x, y, z);
    const [bx, by] = toPlane(seen, [u, v], z);
    expect(Math.hypot(bx - x, by - y)).toBeLessThan(1e-6);
    const h = squareUp(seen);
    const [ox, oy] = toPlane(seen, [u, v]);
    const weight = h[6] * u + h[7] * v + h[8];
    expect((h[0] * u + h[1] * v + h[2]) / weight).toBeCloseTo(ox, 6);
    expect((h[3] * u + h[4] * v + h[5]) / weight).toBeCloseTo(oy, 6);
  }
});

// Marked as with the magnifier: eight points a rim, each to 0.7 of 1600 px.
test.each([0, 12, 25])(
  'tilted by %d degrees, with three known pulleys, all centres hold within 1%% of the width of the drive',
  (degrees) => {
    const known = ['crank', 'pump', 'ac'];
    for (let seed = 1; seed <= draws(20); seed += 1) {
      const photo = pictured(truth(), camera((degrees * Math.PI) / 180, seed), { noise: 0.7, seed, each: 8, known });
      expect(Math.max(...misses(truth(), photo))).toBeLessThan(0.01 * DRIVE_WIDTH);
    }
  },
);

test('the crank alone as scale does in most pictures', () => {
  const far = Array.from({ length: 20 }, (_, seed) =>
    Math.max(...misses(truth(), pictured(truth(), camera(0.3, seed), { noise: 0.7, seed: seed + 1, each: 8 }))),
  );
  expect(far.filter((mm) => mm < 0.01 * DRIVE_WIDTH).length).toBeGreaterThanOrEqual(18);
});

test('unknown diameters come out of the picture, and a second known one steadies the scale', () => {
  const seen = camera(0.3, 1);
  const fit = fitPhoto(truth(), pictured(truth(), seen, { noise: 1, known: ['crank'] }));
  const two = fitPhoto(truth(), pictured(truth(), seen, { noise: 1, known: ['crank', 'pump'] }));
  for (const { pulley, diameter, diameterPlusMinus } of fit.circles) {
    const given = truth().stations.find(({ id }) => id === pulley)!.pulleys[0]!.diameter!;
    expect(Math.abs(diameter - given)).toBeLessThan(4 * diameterPlusMinus);
    expect(diameterPlusMinus).toBeLessThan(3);
  }
  expect(two.scaleShare).toBeLessThan(fit.scaleShare);
  expect(fit.findings.map(({ code }) => code)).toContain('scale-unchecked');
  expect(two.findings).toEqual([]);
});

test('the ± holds as often as it claims, with and without tilt', () => {
  let inOne = 0;
  let inTwo = 0;
  let all = 0;
  for (let seed = 1; seed <= draws(80); seed += 1) {
    const random = randomOf(seed + 900);
    const drive = truth();
    // The known diameters were themselves read with a doubt of 1 mm, as the fit supposes.
    const read = {
      ...drive,
      stations: drive.stations.map((s) => ({
        ...s,
        pulleys: s.pulleys.map((p) => ({ ...p, diameter: p.diameter! + normalOf(random) })),
      })),
    };
    const photo = pictured(drive, camera(0.35 * random(), 7 * random()), {
      noise: 1.5,
      seed,
      each: 8,
      known: ['crank', 'pump', 'ac'],
    });
    const { circles, covariance } = fitPhoto(read, photo);
    // Distances between centres do not care how the camera's frame lies.
    for (const [i, j] of [
      [0, 2],
      [0, 4],
      [2, 5],
      [1, 3],
    ] as const) {
      const [dx, dy] = [circles[j]!.x - circles[i]!.x, circles[j]!.y - circles[i]!.y];
      const apart = Math.hypot(dx, dy);
      const slope = new Map([
        [2 * i, -dx / apart],
        [2 * i + 1, -dy / apart],
        [2 * j, dx / apart],
        [2 * j + 1, dy / apart],
      ]);
      const variance = [...slope].reduce(
        (sum, [a, sa]) => sum + [...slope].reduce((part, [b, sb]) => part + sa * sb * covariance[a]![b]!, 0),
        0,
      );
      const [first, second] = [drive.stations[i]!, drive.stations[j]!];
      const share = Math.abs(apart - Math.hypot(second.x - first.x, second.y - first.y)) / Math.sqrt(variance);
      all += 1;
      inOne += Number(share <= 1);
      inTwo += Number(share <= 2);
    }
  }
  expectShare(inOne, all, { from: 0.58, to: 0.8 }, 2);
  expectShare(inTwo, all, { from: 0.9 }, 2);
});

test('a pulley in another plane is put right when the camera distance is given', () => {
  const drive = truth();
  const deep: Drive = {
    ...drive,
    stations: drive.stations.map((s) =>
      s.id === 'alt' || s.id === 'ten' ? { ...s, pulleys: s.pulleys.map((p) => ({ ...p, plane: 60 })) } : s,
    ),
  };
  const seen = camera(0.15, 2);
  const known = ['crank', 'pump', 'ac'];
  const exact = pictured(deep, seen, { known, extra: { cameraDistance: 1100 } });
  expect(Math.max(...misses(deep, exact))).toBeLessThan(0.5);
  // Marked as if all lay in one plane, the nearer ones are pushed outward by 60 in 1100.
  const flat = { ...exact, cameraDistance: undefined } as unknown as SurveyPhoto;
  expect(Math.max(...misses(drive, { ...flat, rims: exact.rims! }))).toBeGreaterThan(4);
  expect(fitPhoto(deep, flat).findings.map(({ code }) => code)).toContain('depth-guessed');
});

test('a slipped point is left out and named; a diameter that contradicts the others is named', () => {
  const photo = pictured(truth(), camera(0.2, 1), { noise: 0.8, known: ['crank', 'pump', 'ac'] });
  const slipped = {
    ...photo,
    rims: photo.rims!.map((rim, k) =>
      k === 4
        ? { ...rim, points: rim.points.map(([x, y], p): PicturePoint => (p === 3 ? [x + 40, y - 25] : [x, y])) }
        : rim,
    ),
  };
  const fit = fitPhoto(truth(), slipped);
  expect(fit.circles[4]!.off).toEqual([3]);
  expect(fit.findings).toContainEqual(expect.objectContaining({ code: 'point-off', pulley: 'alt' }));
  expect(Math.max(...misses(truth(), slipped))).toBeLessThan(0.01 * DRIVE_WIDTH);

  const drive = truth();
  const wrong = {
    ...drive,
    stations: drive.stations.map((s) =>
      s.id === 'pump' ? { ...s, pulleys: s.pulleys.map((p) => ({ ...p, diameter: 132 + 25.4 })) } : s,
    ),
  };
  const named = fitPhoto(wrong, photo).findings.filter((finding) => finding.code === 'known-disagrees');
  expect(named.map(({ pulley }) => pulley)).toContain('pump');
  expect(named.find(({ pulley }) => pulley === 'pump')!.figures.seen).toBeCloseTo(132, -1);
});

test('nothing marked, nothing known, marks that are no circle: findings, no throw, no NaN', () => {
  const photo = pictured(truth(), camera(0, 0), {});
  const cases: [SurveyPhoto, string][] = [
    [{ ...photo, rims: [] }, 'no-rims'],
    [
      {
        ...photo,
        rims: [
          {
            pulley: 'crank',
            points: [
              [1, 2],
              [3, 4],
            ],
          },
        ],
      },
      'few-points',
    ],
    [{ ...photo, rims: photo.rims!.map(({ pulley, points }) => ({ pulley, points })) }, 'no-known-diameter'],
    [
      {
        ...photo,
        rims: [{ pulley: 'crank', known: true, points: Array.from({ length: 9 }, (_, k): PicturePoint => [k, 2 * k]) }],
      },
      'few-points',
    ],
    [
      {
        ...photo,
        rims: [
          {
            pulley: 'crank',
            known: true,
            points: Array.from({ length: 9 }, (_, k): PicturePoint => [(k * 977) % 1600, (k * 631) % 1200]),
          },
        ],
      },
      'scale-unchecked',
    ],
  ];
  for (const [seen, code] of cases) {
    const drive = { ...truth(), survey: { photos: [seen] } };
    expect(readDrive(drive)).toMatchObject({ ok: true });
    const fit = fitPhoto(drive, seen);
    expect(fit.findings.map((finding) => finding.code)).toContain(code);
    expect(
      JSON.stringify(fit, (_, value: unknown) =>
        typeof value === 'number' && !Number.isFinite(value) ? 'NaN' : value,
      ),
    ).not.toContain('"NaN"');
  }
});

test('the file names a picture that is wrong', () => {
  const photo = pictured(truth(), camera(0, 0), {});
  const problems = (change: object) => {
    const result = readDrive({ ...truth(), survey: { photos: [{ ...photo, ...change }] } });
    return result.ok ? [] : result.problems.map(({ path }) => path);
  };
  expect(problems({})).toEqual([]);
  expect(problems({ hash: 'abc' })).toEqual(['survey.photos[0].hash']);
  expect(problems({ width: 0, cameraDistance: -1 })).toEqual([
    'survey.photos[0].width',
    'survey.photos[0].cameraDistance',
  ]);
  expect(problems({ rims: [{ pulley: 'ghost', points: [[1, 2]] }] })).toEqual(['survey.photos[0].rims[0].pulley']);
  expect(problems({ rims: [{ pulley: 'crank', points: [[1, 'x']] }] })).toEqual(['survey.photos[0].rims[0].points[0]']);
});

const withDiameters = (drive: Drive, change: (id: string) => number): Drive => ({
  ...drive,
  stations: drive.stations.map((s) => ({
    ...s,
    pulleys: s.pulleys.map((p) => ({ ...p, diameter: p.diameter! + change(p.id) })),
  })),
});

test('of three to five known diameters the wrong one alone is named, and no honest one', () => {
  const counts = { alone: 0, accused: 0, sound: 0 };
  const runs = draws(40);
  for (let seed = 1; seed <= runs; seed += 1) {
    const random = randomOf(seed + 300);
    const ids = truth().stations.map(({ id }) => id);
    const known = [...ids].sort(() => random() - 0.5).slice(0, 3 + Math.floor(random() * 3));
    const photo = pictured(truth(), camera(0.35 * random(), 7 * random()), { noise: 0.8, seed, each: 8, known });
    const read = withDiameters(truth(), () => 0.7 * normalOf(random));
    const named = (drive: Drive) =>
      fitPhoto(drive, photo)
        .findings.filter((finding) => finding.code === 'known-disagrees')
        .map(({ pulley }) => pulley);
    counts.sound += Number(named(read).length > 0);
    const wrong = known[Math.floor(random() * known.length)]!;
    const by = [25.4, -25.4, 12.7, -12.7, 10][Math.floor(random() * 5)]!;
    const found = named(withDiameters(read, (id) => (id === wrong ? by : 0)));
    counts.alone += Number(found.length === 1 && found[0] === wrong);
    counts.accused += Number(found.some((id) => id !== wrong));
  }
  expectShare(counts.alone, runs, { from: 0.85 });
  expectShare(counts.accused, runs, { to: 0.03 });
  expectShare(counts.sound, runs, { to: 0.04 });
});

test('of two known diameters that differ nobody is named, and the ± is widened', () => {
  const photo = pictured(truth(), camera(0.2, 1), { noise: 0.8, known: ['crank', 'pump'] });
  const right = fitPhoto(truth(), photo);
  const wrong = fitPhoto(
    withDiameters(truth(), (id) => (id === 'pump' ? 25.4 : 0)),
    photo,
  );
  expect(right.findings).toEqual([]);
  expect(wrong.findings).toEqual([
    expect.objectContaining({ code: 'knowns-differ', pulleys: expect.arrayContaining(['crank', 'pump']) as string[] }),
  ]);
  expect(wrong.scaleShare).toBeGreaterThan(5 * right.scaleShare);
});

test.each<[string, number, boolean | undefined]>([
  ['whole, and nobody says so', 0, undefined],
  ['whole, and said so', 0, false],
  ['cut down by a tenth, unsaid', 0.1, undefined],
  ['cut down by a fifth, unsaid', 0.2, undefined],
  ['cut down by a third, said', 0.33, true],
])('a picture %s: the ± of pulleys at several depths holds', (_, shift, cropped) => {
  let inTwo = 0;
  let inThree = 0;
  let all = 0;
  for (let seed = 1; seed <= draws(25); seed += 1) {
    const random = randomOf(seed + 500);
    const flat = truth();
    const drive = {
      ...flat,
      stations: flat.stations.map((s, k) => ({
        ...s,
        pulleys: s.pulleys.map((p) => ({ ...p, plane: [0, 0, 60, -30, 40, 0][k]! })),
      })),
    };
    const aside = 7 * random();
    const plain = camera(0.35 * random(), 7 * random());
    const seen = {
      ...plain,
      cx: plain.cx + WIDTH * shift * Math.cos(aside),
      cy: plain.cy + WIDTH * shift * Math.sin(aside),
    };
    const extra = { cameraDistance: 1100 * (1 + 0.05 * normalOf(random)), ...(cropped !== undefined && { cropped }) };
    const photo = pictured(drive, seen, { noise: 1, seed, each: 8, known: ['crank', 'pump', 'ac'], extra });
    const { circles, covariance, findings } = fitPhoto(
      withDiameters(drive, () => normalOf(random)),
      photo,
    );
    expect(findings.some(({ code }) => code === 'middle-guessed')).toBe(cropped === undefined);
    for (const [i, j] of [
      [0, 2],
      [0, 4],
      [2, 5],
      [1, 3],
      [2, 4],
    ] as const) {
      const [dx, dy] = [circles[j]!.x - circles[i]!.x, circles[j]!.y - circles[i]!.y];
      const apart = Math.hypot(dx, dy);
      const slope = [
        [2 * i, -dx / apart],
        [2 * i + 1, -dy / apart],
        [2 * j, dx / apart],
        [2 * j + 1, dy / apart],
      ] as const;
      const variance = slope.reduce(
        (sum, [a, sa]) => sum + slope.reduce((part, [b, sb]) => part + sa * sb * covariance[a]![b]!, 0),
        0,
      );
      const [first, second] = [drive.stations[i]!, drive.stations[j]!];
      const share = Math.abs(apart - Math.hypot(second.x - first.x, second.y - first.y)) / Math.sqrt(variance);
      all += 1;
      inTwo += Number(share <= 2);
      inThree += Number(share <= 3);
    }
  }
  expectShare(inTwo, all, { from: 0.85 }, 2);
  expectShare(inThree, all, { from: 0.97 }, 2);
});

test('points anywhere on and off the picture come to an end: a fit or a finding, no throw and no NaN', () => {
  const drive = truth();
  const sound = pictured(drive, camera(0.2, 1), { noise: 1, known: ['crank', 'ac'] });
  const place = fc.oneof(
    fc.double({ min: -100_000, max: 100_000, noNaN: true }),
    fc.double({ min: -800, max: 2400, noNaN: true }),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(), fc.nat(), place, place), { minLength: 1, maxLength: 6 }), (wild) => {
      const rims = sound.rims!.map((rim) => ({ ...rim, points: [...rim.points] }));
      for (const [r, k, x, y] of wild) rims[r % rims.length]!.points[k % 12] = [x, y];
      const photo = { ...sound, rims };
      const there = { ...drive, survey: { readings: [], photos: [photo] } };
      const fit = fitSurvey(there, []);
      expect(JSON.stringify(fit.stations)).not.toMatch(/null,"y"|NaN/);
      // A point far off the picture is told as off, wherever the fit stands.
      const seen = fitPhoto(there, photo);
      for (const { pulley, off, ...circle } of seen.circles) {
        expect(Object.values(circle).every((value) => typeof value === 'boolean' || Number.isFinite(value))).toBe(true);
        const far = rims
          .find((rim) => rim.pulley === pulley)!
          .points.flatMap(([x, y], k) =>
            Math.max(Math.abs(x - WIDTH / 2), Math.abs(y - HEIGHT / 2)) > 2 * WIDTH ? [k] : [],
          );
        expect(off).toEqual(expect.arrayContaining(far));
      }
    }),
    { numRuns: draws(40) },
  );
});

test('points that say nothing of the camera are a finding, not a fault in the sum', () => {
  const drive = truth();
  const sound = pictured(drive, camera(0.2, 1), { noise: 1, known: ['crank', 'ac'] });
  // Found by the search above: two rims each with a point in the corner of the picture.
  const rims = sound.rims!.map((rim) => ({ ...rim, points: [...rim.points] }));
  for (const [r, k] of [
    [0, 2021020338],
    [469431592, 3],
  ] as const)
    rims[r % rims.length]!.points[k % 12] = [0, 0];
  const photo = { ...sound, rims };
  expect(() => fitPhoto({ ...drive, survey: { photos: [photo] } }, photo)).not.toThrow();
});
