import { inverse, Matrix } from 'ml-matrix';
import type { Drive, TriedBelt } from '../drive';
import { deviates } from '../numeric';
import { draws, expectShare } from '../test/draws';
import { keptAndRead } from '../test/kept-belt';
import { answerFor, GROWTH_DEFAULTS, learnedGrowth, serviceSentence, type Sitting, sittingsOf } from './index';

const { seat, rate } = GROWTH_DEFAULTS.ribbed;
/** Half of a default's variance is between belts, half is doubt of the default itself. */
const half = ({ plusMinus }: { plusMinus: number }) => plusMinus * Math.SQRT1_2;
const seated = (km: number) => 1 - Math.exp(-km / 200);

/** Belts of a section whose means are given, each with its own growth, and each reading with its own error. */
function drawnSittings(count: number, means: { seat: number; rate: number }, seed: number): Sitting[] {
  const { normal, uniform } = deviates(seed);
  return Array.from({ length: count }, (_, k) => {
    const own = { seat: means.seat + half(seat) * normal(), rate: means.rate + half(rate) * normal() };
    const [lengthMm, sigmaMm] = [1200 + 1200 * uniform(), 0.3 + 0.5 * uniform()];
    const began = sigmaMm * normal();
    const readings = Array.from({ length: 1 + Math.floor(3 * uniform()) }, () => {
      const [km, sigma] = [300 + 40_000 * uniform(), 0.3 + 0.5 * uniform()];
      const grew = lengthMm * (own.seat * seated(km) + (own.rate * km) / 10_000);
      // The drawn slope is off by a little as well.
      return { km, sigmaMm: sigma, grewMm: grew * (1 + 0.05 * normal()) - began + sigma * normal() };
    });
    return { belt: `b${k}`, section: 'PK', lengthMm, sigmaMm, readings };
  });
}

test('nothing is learned from nothing; few sittings stay near the default, and many come to what is so', () => {
  expect(learnedGrowth('ribbed', [])).toBeNull();
  const so = { seat: 0.002, rate: 0.0006 };
  const by = [1, 8, 100].map((count) => learnedGrowth('ribbed', drawnSittings(count, so, 5))!);
  expect(by.map(({ sittings }) => sittings)).toEqual([1, 8, 100]);
  const off = by.map(({ rate: { fraction } }) => Math.abs(fraction - so.rate));
  expect(off[0]).toBeGreaterThan(off[2]!);
  expect(by[2]!.rate.fraction / so.rate).toBeCloseTo(1, 0.7);
  expect(by[2]!.seat.fraction / so.seat).toBeCloseTo(1, 0.7);
  // No belt is known better than belts are alike.
  for (const learned of by) {
    expect(learned.seat.plusMinus).toBeGreaterThan(half(seat));
    expect(learned.seat.plusMinus).toBeLessThan(seat.plusMinus);
  }
});

/** All at once, by generalised least squares with the default as one more observation; written apart. */
function byLeastSquares(sittings: readonly Sitting[]): number[] {
  let information = Matrix.diag([half(seat) ** -2, half(rate) ** -2]);
  let pull = information.mmul(Matrix.columnVector([seat.fraction, rate.fraction]));
  const spread = Matrix.diag([half(seat) ** 2, half(rate) ** 2]);
  for (const { lengthMm, sigmaMm, readings } of sittings) {
    const design = new Matrix(readings.map(({ km }) => [lengthMm * seated(km), (lengthMm * km) / 10_000]));
    const noise = new Matrix(
      readings.map(({ sigmaMm: own }, i) => readings.map((_, j) => sigmaMm ** 2 + (i === j ? own ** 2 : 0))),
    );
    const weight = design.transpose().mmul(inverse(design.mmul(spread).mmul(design.transpose()).add(noise)));
    information = Matrix.add(information, weight.mmul(design));
    pull = Matrix.add(pull, weight.mmul(Matrix.columnVector(readings.map(({ grewMm }) => grewMm))));
  }
  return inverse(information).mmul(pull).to1DArray();
}

test('the same as least squares over all readings at once', () => {
  const sittings = drawnSittings(6, { seat: seat.fraction, rate: rate.fraction }, 11);
  const learned = learnedGrowth('ribbed', sittings)!;
  const [bySeat, byRate] = byLeastSquares(sittings);
  // The doubt of the drawn slope is the one thing that is not in it: a twentieth of what is expected.
  expect(Math.abs(learned.seat.fraction - bySeat!)).toBeLessThan(0.15 * half(seat));
  expect(Math.abs(learned.rate.fraction - byRate!)).toBeLessThan(0.15 * half(rate));
});

test('the ± holds for the next belt, over shops drawn as the defaults say', () => {
  const shops = draws(2400);
  let [seats, rates] = [0, 0];
  for (let shop = 0; shop < shops; shop += 1) {
    const { normal } = deviates(1000 + shop);
    const means = { seat: seat.fraction + half(seat) * normal(), rate: rate.fraction + half(rate) * normal() };
    const next = { seat: means.seat + half(seat) * normal(), rate: means.rate + half(rate) * normal() };
    const learned = learnedGrowth('ribbed', drawnSittings(1 + (shop % 12), means, 50_000 + shop))!;
    if (Math.abs(learned.seat.fraction - next.seat) < learned.seat.plusMinus) seats += 1;
    if (Math.abs(learned.rate.fraction - next.rate) < learned.rate.plusMinus) rates += 1;
  }
  expectShare(seats, shops, { from: 0.64, to: 0.73 });
  expectShare(rates, shops, { from: 0.64, to: 0.73 });
});

test('a reading that cannot be is left out', () => {
  const sittings = drawnSittings(10, { seat: seat.fraction, rate: rate.fraction }, 3);
  const slipped = sittings.map((sitting, k) =>
    k === 4 ? { ...sitting, readings: [...sitting.readings, { km: 900, grewMm: 400, sigmaMm: 0.3 }] } : sitting,
  );
  expect(learnedGrowth('ribbed', slipped)).toEqual(learnedGrowth('ribbed', sittings));
});

/** What was read of the belt, and what became of it. */
function read({ tried = [], changedAt }: { tried?: TriedBelt[]; changedAt?: string }): Drive {
  const drive = keptAndRead('2026-01-10', [
    [1500, 3],
    [21_500, 6],
  ]);
  const belt = { ...drive.belts[0]!, tried: [...drive.belts[0]!.tried!, ...tried] };
  if (changedAt === undefined) return { ...drive, belts: [belt] };
  const changed = { id: 'c', on: 'belt' as const, target: belt.id, at: changedAt, odometer: 75_000 };
  return {
    ...drive,
    belts: [{ ...belt, care: { fittedOdometer: 75_000 } }],
    inspect: {
      ...drive.inspect,
      findings: drive.inspect!.findings!.map((finding) => ({ ...finding, past: true })),
      changed: [{ ...changed, careBefore: belt.care! }],
    },
  };
}

test('what was read of a belt since it was kept is its sitting; it stays one when the belt is changed', () => {
  const [on] = sittingsOf(read({}));
  expect(on).toMatchObject({ section: 'PK', lengthMm: 1805 });
  expect(on!.readings.map(({ km }) => km)).toEqual([1500, 21_500]);
  on!.readings.forEach(({ grewMm }, k) => expect(grewMm).toBeCloseTo([3, 6][k]!, 1));
  const past = read({ changedAt: '2026-08-01' });
  expect(sittingsOf(past)).toEqual([on]);
  // Nothing is forecast of a belt that has come off.
  expect(answerFor(past, past.belts[0]!.id, { lengths: [1805] })!.service).toBeNull();
  // The next one was kept on the day of the change, an hour before it was ticked.
  const next = { id: 'n', lengthMm: 1810, outcome: 'on', kept: true, state: 'as-drawn', at: '2026-08-01' } as const;
  const both = read({ changedAt: '2026-08-01T09:00:00Z', tried: [next] });
  expect(sittingsOf(both)).toEqual([on]);
  expect(answerFor(both, both.belts[0]!.id, { lengths: [1805] })!.service).toMatchObject({ tried: 'n', readings: 0 });
});

test('of a belt that is read at every look the first readings and the last are remembered: a shop’s row holds them', () => {
  const often = keptAndRead(
    '2026-01-10',
    Array.from({ length: 900 }, (_, k) => [(k + 1) * 100, 1 + k / 200] as const),
  );
  const [sitting] = sittingsOf(often);
  const km = sitting!.readings.map((reading) => reading.km);
  expect(km).toHaveLength(20);
  expect([km[0], km[9], km[10], km[19]]).toEqual([100, 1000, 89_100, 90_000]);
  // Twenty such belts in one place go into 64 kB.
  expect(20 * JSON.stringify(sitting).length).toBeLessThan(65_535);
});

test('the forecast alone goes by the shop’s own growth, and says so', () => {
  const drive = read({});
  const belt = drive.belts[0]!.id;
  const fast = { seat: { ...seat, plusMinus: 0.0003 }, rate: { fraction: 0.0012, plusMinus: 0.0001 }, sittings: 4 };
  const [plain, shop] = [answerFor(drive, belt)!, answerFor(drive, belt, { growth: fast })!];
  expect({ ...shop, service: null }).toEqual({ ...plain, service: null });
  expect(shop.service!.reachesKm.likely!).toBeLessThan(plain.service!.reachesKm.likely ?? Infinity);
  expect(serviceSentence(plain.service!)).toMatch(/and default growth\.$/);
  expect(serviceSentence(shop.service!)).toMatch(/the growth of 4 belts of this section in the shop\.$/);
});
