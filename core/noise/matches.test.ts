import { draws, expectShare } from '../test/draws';
import { DEMO } from '../test/demo';
import { normals } from '../numeric';
import { bearingAt } from './bearings';
import type { EngineSpeed } from './engine';
import { ratesOf } from './index';
import { matchesOf, rpmToPart } from './matches';
import type { Rate } from './rates';

const { rescue: truck, climb: car, groomer } = DEMO;

const known = (rpm: number, part = 0.001): EngineSpeed => ({
  rpm,
  plusMinus: part * rpm,
  heard: true,
  wavers: 0.0015,
  cylinders: 4,
});
const tonal = { tonal: true, engine: true, others: [] };
const plain = { ...tonal, tonal: false };
const chanceOf = (matches: readonly { what: string; probability: number }[], what: string) =>
  matches.reduce((sum, match) => sum + (match.what === what ? match.probability : 0), 0);

test('twice a turn is told as twice a turn, and another speed parts two that lie together', () => {
  const rates = [
    { what: 'belt', id: 'b', hz: 4 },
    { what: 'pulley', id: 'p', hz: 33 },
    { what: 'pulley', id: 'q', hz: 34.4 },
  ] as const;
  const matches = (heard: { hz: number; plusMinusHz: number }) => matchesOf(rates, heard, known(800), tonal);
  expect(matches({ hz: 8.01, plusMinusHz: 0.02 })[0]).toMatchObject({ id: 'b', harmonic: 2 });
  const near = matches({ hz: 33.7, plusMinusHz: 0.5 });
  const parts = near.filter(({ what }) => what === 'pulley').map(({ id }) => id);
  expect(parts.slice(0, 2).sort()).toEqual(['p', 'q']);
  const rpm = rpmToPart(near, { rpm: 750, plusMinusHz: 0.5, max: 5000 })!;
  expect(rpm).toBeGreaterThan(750);
  // There they stand further apart than the ± that hid them.
  expect(((34.4 - 33) * rpm) / 750).toBeGreaterThan(4 * 0.5);
  expect(rpmToPart(near, { rpm: 750, plusMinusHz: 0.5, max: 760 })).toBeNull();
  // What the engine's own speed hides grows with it: no speed parts them.
  expect(rpmToPart(near, { rpm: 750, plusMinusHz: 0.5, max: 5000, shared: 0.04 })).toBeNull();
  expect(rpmToPart(matches({ hz: 4, plusMinusHz: 0.01 }), { rpm: 750, plusMinusHz: 0.01, max: 5000 })).toBeNull();
  expect(matches({ hz: 51.3, plusMinusHz: 0.05 })[0]!.what).toBe('none');
});

test('the crank is never named from an order of the engine alone, and a chirp once a turn of it is', () => {
  for (const drive of [truck, car, groomer])
    for (const rpm of [650, 900, 2200, 5000]) {
      const rates = ratesOf(drive, rpm);
      const crank = rates.find((rate) => rate.crank)!;
      expect(matchesOf(rates, { hz: crank.hz, plusMinusHz: 0.02 }, known(rpm), plain)[0]!.what).toBe('engine');
      if (rpm < 1000)
        expect(matchesOf(rates, { hz: crank.hz, plusMinusHz: 0.02 }, known(rpm), tonal)[0]).toMatchObject({
          what: 'pulley',
          id: crank.id,
        });
    }
});

test('the error of an engine’s speed is one for all rates: what fits at 3 % off still fits, and weighs less', () => {
  const rates: readonly Rate[] = [
    { what: 'pulley', id: 'p', hz: 20 },
    { what: 'pulley', id: 'q', hz: 26 },
  ];
  const heard = { hz: 20.6, plusMinusHz: 0.01 };
  const at = (part: number) => matchesOf(rates, heard, known(800, part), tonal);
  expect(at(0.001)[0]!.what).toBe('none');
  expect(at(0.025)[0]).toMatchObject({ what: 'pulley', id: 'p' });
  const exact = matchesOf(rates, { hz: 20, plusMinusHz: 0.01 }, known(800), tonal)[0]!.probability;
  expect(at(0.025)[0]!.probability).toBeLessThan(exact);
});

/** Formulas of a bearing's rates with its balls and their size, apart from the families that stand for them. */
const strikes = {
  outer: (n: number, d: number) => (n / 2) * (1 - d),
  inner: (n: number, d: number) => (n / 2) * (1 + d),
  ball: (_: number, d: number) => (1 / (2 * d)) * (1 - d ** 2),
  cage: (_: number, d: number) => (1 - d) / 2,
};

test('every bearing there may be lies in a family, and it is the likeliest where its own rate is', () => {
  for (const part of ['outer', 'inner', 'cage'] as const)
    for (let n = 6; n <= 12; n += 1)
      for (const d of [0.17, 0.2, 0.23]) {
        const times = strikes[part](n, d);
        const { density } = bearingAt(30, 30 * times, 0.1);
        // As likely as any rate between a third of a turn and eight of them, or nearly.
        expect(density * 30).toBeGreaterThan(0.5 / 7.7 / 4);
      }
  // It is a density: over all rates it comes to one.
  let total = 0;
  for (let hz = 0.05; hz < 400; hz += 0.05) total += 0.05 * bearingAt(30, hz, 0.1).density;
  expect(total).toBeCloseTo(1, 2);
});

test('three strikes a turn and more without the turn itself are a bearing’s, and which shaft is told with its doubt', () => {
  const rates = ratesOf(truck, 750);
  const random = fractions(7);
  let [named, ofAnother, shafts, count] = [0, 0, 0, 0];
  for (const { id, hz, crank, what } of rates) {
    if (crank || what !== 'pulley') continue;
    for (let k = 0; k < 12; k += 1) {
      const [n, d] = [6 + Math.floor(7 * random()), 0.16 + 0.1 * random()];
      const heard = hz * strikes[k % 3 === 0 ? 'inner' : 'outer'](n, d);
      if (heard > 250) continue;
      const [first] = matchesOf(rates, { hz: heard, plusMinusHz: 0.05 }, known(750, 0.003), plain);
      count += 1;
      if (first!.what === 'bearing') {
        named += 1;
        const chances = first!.bearing!.shafts;
        expect(chances.reduce((sum, chance) => sum + chance.chance, 0)).toBeLessThan(1 + 1e-9);
        shafts += chances.find((chance) => chance.id === id)?.chance ?? 0;
      } else if (first!.what === 'pulley' || first!.what === 'belt') ofAnother += 1;
      // Heard by itself as well, the shaft is the likeliest.
      const also = matchesOf(rates, { hz: heard, plusMinusHz: 0.05 }, known(750, 0.003), { ...plain, others: [hz] });
      const own = (list: typeof also) =>
        list.find((match) => match.what === 'bearing')?.bearing!.shafts.find((shaft) => shaft.id === id)?.chance ?? 0;
      expect(own(also)).toBeGreaterThanOrEqual(own([first!]));
    }
  }
  expect(count).toBeGreaterThan(40);
  expect(named / count).toBeGreaterThan(0.6);
  expect(ofAnother / count).toBeLessThan(0.2);
  expect(shafts / named).toBeGreaterThan(0.2);
});

/** Numbers from 0 to 1, by normals. */
function fractions(seed: number): () => number {
  const draw = normals(seed);
  return () => {
    const turn = Math.atan2(draw(), draw()) / (2 * Math.PI);
    return turn < 0 ? turn + 1 : turn;
  };
}

describe('a chance is what it says', () => {
  // A truth is drawn as often as the sums take it to come, and a rate from it; the chances are held against it.
  const rounds = draws(4000);
  const random = fractions(31);
  const normal = normals(32);
  const bins = [0, 0, 0, 0].map(() => ({ told: 0, right: 0, of: 0 }));
  let [nothing, named, confident] = [0, 0, 0];
  for (let k = 0; k < rounds; k += 1) {
    const drive = [truck, car, groomer][k % 3]!;
    const rpm = 650 + 1500 * random();
    const part = [0.001, 0.005, 0.025][k % 3 === 0 ? 0 : 1 + (k % 2)]!;
    const rates = ratesOf(drive, rpm * (1 + part * normal()));
    const parts = rates.filter(({ what }) => what === 'belt' || what === 'pulley');
    const isTonal = k % 2 === 0;
    const [parted, strikesOf, engine] = isTonal ? [0.4, 0.06, 0.04] : [0.14, 0.24, 0.28];
    const u = random();
    let truth = 'none none';
    let hz = 260 ** random();
    const rate = parts[Math.floor(parts.length * random())]!;
    if (u < parted) {
      truth = `${rate.what} ${rate.id}`;
      hz = rate.hz * (1 + 0.006 * normal()) * (random() < 0.06 / 1.06 ? 2 : 1);
    } else if (u < parted + strikesOf) {
      const shafts = parts.filter(({ what, crank }) => what === 'pulley' && !crank);
      truth = 'bearing';
      const n = 6 + Math.floor(7 * random());
      hz =
        shafts[Math.floor(shafts.length * random())]!.hz *
        strikes[random() < 0.6 ? 'outer' : 'inner'](n, 0.2 + 0.05 * normal());
    } else if (u < parted + strikesOf + engine) {
      truth = 'engine';
      hz = (rpm / 120) * [4, 4, 1, 2][Math.floor(4 * random())]!;
    }
    const plusMinusHz = Math.max(0.005, 0.002 * hz);
    const matches = matchesOf(
      rates,
      { hz: hz + plusMinusHz * normal(), plusMinusHz },
      known(rpm, part),
      isTonal ? tonal : plain,
    );
    const [first] = matches;
    const name = ['bearing', 'engine'].includes(first!.what) ? first!.what : `${first!.what} ${first!.id}`;
    const chance = first!.what === 'engine' ? chanceOf(matches, 'engine') : first!.probability;
    const bin = bins[Math.min(3, Math.floor(4 * chance))]!;
    bin.told += chance;
    bin.of += 1;
    if (name === truth) bin.right += 1;
    if (truth === 'none none' && first!.what !== 'none' && first!.what !== 'engine') {
      named += 1;
      if (chance > 0.8) confident += 1;
    }
    if (truth === 'none none') nothing += 1;
  }

  test('told on the average as often as it is right', () => {
    for (const { told, right, of } of bins) if (of > 30) expect(Math.abs(right / of - told / of)).toBeLessThan(0.14);
    expect(bins.reduce((sum, bin) => sum + bin.of, 0)).toBe(rounds);
  });

  test('what is no part of the drive is seldom named, and hardly ever with confidence', () => {
    expectShare(nothing - named, nothing, { from: 0.6 });
    expectShare(nothing - confident, nothing, { from: 0.93 });
  });
});
