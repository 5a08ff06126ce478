import { draws } from '../test/draws';
import { DEMO } from '../test/demo';
import { normals } from '../numeric';
import type { Sound } from '../sound';
import { hearNoise, listenFindings, ratesOf, whoseNoise } from './index';

/*
 * Engines and bearings made otherwise than Emery makes its own: half-orders of uneven sizes up to 2.5 kHz, breath that
 * comes with each firing, valves that tick; strikes that ring. Speed wavers as an engine's does.
 */

const RATE = 12_000;
const SECONDS = 5;
const { sin, exp, floor, PI, abs } = Math;

function fractions(seed: number): () => number {
  const draw = normals(seed);
  return () => abs(sin(997.3 * draw()));
}

/** The samples of one, and the speed it had on the average, for that wavers. */
function engine(rpm: number, cylinders: number, seed: number): { samples: Float64Array; mean: number } {
  const draw = normals(seed);
  const random = fractions(seed + 9000);
  const half = rpm / 120;
  const orders = Array.from({ length: floor(2500 / half) }, (_, k) => {
    const order = k + 1;
    const share = order % cylinders === 0 ? 1 : order % 2 === 0 ? 0.35 : 0.2;
    return { size: (share * exp(0.7 * draw())) / (1 + (order * half) / 250), phase: 2 * PI * random() };
  });
  const tick = { size: 0.3 * random(), pitch: 2500 + 2000 * random() };
  let [turned, waver, breath, fired, age] = [0, 0, 0, -1, 0];
  const samples = Float64Array.from({ length: RATE * SECONDS }, () => {
    waver = 0.9999 * waver + 0.00003 * draw();
    turned += (half * (1 + waver)) / RATE;
    let sum = 0;
    orders.forEach(({ size, phase }, k) => (sum += size * sin(2 * PI * (k + 1) * turned + phase)));
    const firing = turned * cylinders;
    if (floor(firing) !== fired) [fired, age] = [floor(firing), 0];
    breath += 0.3 * (draw() - breath);
    sum += 0.8 * breath * exp(-3 * (firing - fired)) + 0.15 * draw();
    sum += tick.size * exp(-age / (0.002 * RATE)) * sin((2 * PI * tick.pitch * age) / RATE);
    age += 1;
    return 0.05 * sum;
  });
  return { samples, mean: (120 * turned) / SECONDS };
}

/** Strikes that ring, so many a second, over a bed. */
function struck(bed: Float64Array, hz: number, seed: number): Sound {
  const draw = normals(seed);
  const random = fractions(seed + 500);
  const [ring, fades] = [2200 + 2500 * random(), 500 + 700 * random()];
  const samples = bed.slice();
  for (let at = random() / hz; at < SECONDS; at += (1 + 0.01 * draw()) / hz) {
    const from = floor(at * RATE);
    const size = 0.4 * (1 + 0.2 * draw());
    for (let k = 0; k < 0.01 * RATE && from + k < samples.length; k += 1)
      samples[from + k]! += size * exp((-k * fades) / RATE) * sin((2 * PI * ring * k) / RATE);
  }
  return { rate: RATE, samples };
}

const DRIVES = [DEMO.rescue, DEMO.pickup, DEMO.groomer, DEMO.climb];
const SPEEDS = [750, 2200, 3000, 4500, 900, 5500] as const;

describe('healthy engines', () => {
  const heard = Array.from({ length: draws(48) }, (_, k) => {
    const [rpm, cylinders] = [SPEEDS[k % 6]!, [4, 6, 8, 3][k % 4]!];
    const { samples, mean } = engine(rpm, cylinders, k + 1);
    return { rpm, cylinders, mean, heard: hearNoise({ rate: RATE, samples }) };
  });

  test('are nobody’s noise, at idle and above it, and name no part', () => {
    const accused = heard.flatMap(({ rpm, cylinders, heard: sound }, k) =>
      DRIVES.flatMap((drive, d) => {
        const { kind, matches } = whoseNoise(sound, { ...drive, noise: { cylinders } }, rpm, 'needle');
        const part = matches.find(({ what, probability }) => !['engine', 'none'].includes(what) && probability > 0.5);
        return kind !== 'none' || part ? [`${k} on ${d} at ${rpm}: ${kind} ${part?.id ?? ''}`] : [];
      }),
    );
    expect(accused.length / (4 * heard.length)).toBeLessThanOrEqual(0.1);
  });

  test('tell their own speed to its ±, or nothing; and where another was told, that it clashes', () => {
    const off = heard.flatMap(({ rpm, cylinders, mean, heard: sound }) => {
      const drive = { ...DEMO.rescue, noise: { cylinders } };
      return [0.97, 1, 1.03].flatMap((factor) => {
        const { engineRpm } = whoseNoise(sound, drive, factor * rpm, 'needle');
        return engineRpm ? [abs(engineRpm.rpm - mean) / engineRpm.plusMinus] : [];
      });
    });
    expect(off.length).toBeGreaterThan(2 * heard.length);
    expect(Math.max(...off)).toBeLessThan(4);
    // One standard deviation, and no fewer than two of three within it.
    expect(off.filter((value) => value < 1).length / off.length).toBeGreaterThan(0.6);
    for (const { rpm, cylinders, heard: sound } of heard.slice(0, 3)) {
      const drive = { ...DEMO.rescue, noise: { cylinders } };
      const far = whoseNoise(sound, drive, 1.29 * rpm, 'scan');
      expect(far.engineRpm).toBeNull();
      if (far.otherRpms.length > 0)
        expect(listenFindings(drive, far, SECONDS).map(({ code }) => code)).toContain('speed-clash');
    }
  });
});

test('a bearing that is struck is a bearing, and hardly ever another part with confidence', () => {
  let [bearing, other, count] = [0, 0, 0];
  const random = fractions(77);
  for (let k = 0; k < draws(40); k += 1) {
    const drive = { ...DRIVES[k % 4]!, noise: { cylinders: 4 } };
    const rpm = [700, 850, 1200][k % 3]!;
    const shafts = ratesOf(drive, rpm).filter(({ what, crank }) => what === 'pulley' && !crank);
    const shaft = shafts[floor(shafts.length * random())]!;
    const hz = shaft.hz * (6 + floor(7 * random())) * (random() < 0.6 ? 0.4 : 0.6);
    if (hz > 220) continue;
    count += 1;
    const { matches } = whoseNoise(hearNoise(struck(engine(rpm, 4, k + 60).samples, hz, k)), drive, rpm, 'needle');
    const [first] = matches;
    if (first?.what === 'bearing') bearing += 1;
    else if (first && ['belt', 'pulley'].includes(first.what) && first.probability > 0.8) other += 1;
  }
  expect(bearing / count).toBeGreaterThanOrEqual(0.5);
  expect(other / count).toBeLessThanOrEqual(0.1);
});
