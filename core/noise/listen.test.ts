import { type Drive, type NoiseKind, readDrive } from '../drive';
import { normals } from '../numeric';
import { readWav, smallWav, type Sound, wavOfText, writeWav } from '../sound';
import { DEMO } from '../test/demo';
import { THOROUGH } from '../test/draws';
import { driveOf } from '../test/examples';
import {
  hearNoise,
  keepClip,
  listen,
  listenFindings,
  ratesOf,
  lessonsOf,
  simulatedBay,
  soundOfLesson,
  whoseNoise,
} from './index';

const { rescue: truck, climb: car } = DEMO;

/** Two equal pulleys 500 mm apart: the belt's cord is 2 × 500 + the circumference on the cord. */
const pair = driveOf([
  ['crank', 0, 0, 160],
  ['alt', 500, 0, 160],
]);

const { cos, sin, exp, ceil, round, min, PI } = Math;

/** A noise made otherwise than Emery makes its own: blips of a swept tone, hiss under a comb, as plain arithmetic. */
function recorded(
  kind: Exclude<NoiseKind, 'none'> | 'hiss' | 'silence',
  hz: number,
  { rate = 12_000, seconds = 5, hiss = 0.01, jitter = 0.01, hum = 0.02, firing = 0, pitch = 2600, seed = 1 } = {},
): Sound {
  const draw = normals(seed);
  const samples = Float64Array.from({ length: rate * seconds }, (_, k) => {
    const t = k / rate;
    const background = hum * sin(2 * PI * 50 * t) + hiss * draw();
    const turn = 0.5 + 0.5 * cos(2 * PI * (hz * t - 0.3));
    if (kind === 'squeal') return background + 0.2 * (0.6 + 0.4 * turn) * sin(2 * PI * pitch * t);
    if (kind === 'whine') return background + 0.1 * sin(2 * PI * hz * t) + 0.04 * sin(4 * PI * hz * t);
    return kind === 'silence' ? 0 : background;
  });
  if (kind === 'rumble') {
    // A resonator near 300 Hz that hiss drives, louder once a turn.
    let [a, b] = [0, 0];
    const [turn, shrink] = [(2 * PI * 300) / rate, 0.97];
    for (let k = 0; k < samples.length; k += 1) {
      const next = 2 * shrink * cos(turn) * a - shrink ** 2 * b + draw();
      [b, a] = [a, next];
      samples[k]! += 0.02 * next * (1 + 0.8 * cos(2 * PI * hz * (k / rate)));
    }
  }
  if (kind === 'chirp')
    for (let turn = 0; turn < hz * seconds; turn += 1) {
      const middle = (turn + 0.5 + jitter * draw()) / hz;
      const width = min(0.012, 0.12 / hz);
      for (let k = ceil((middle - 3 * width) * rate); k < (middle + 3 * width) * rate; k += 1)
        if (k >= 0 && k < samples.length) {
          const t = k / rate - middle;
          samples[k]! += 0.4 * exp(-((t / width) ** 2)) * cos(2 * PI * (pitch * t + 2000 * t * t));
        }
    }
  if (firing > 0)
    for (let beat = 0; beat < firing * seconds; beat += 1)
      for (let k = 0; k < 0.05 * rate; k += 1) {
        const at = round((beat * rate) / firing) + k;
        if (at < samples.length) samples[at]! += 0.12 * exp((-k / rate) * 60) * sin((2 * PI * 110 * k) / rate);
      }
  return { rate, samples };
}

test('rates of a drive of two equal pulleys, by hand', () => {
  const cord = 160 / 2 + 1.6; // The cord runs so far outside the rib tips of a PK.
  const rates = ratesOf({ ...pair, noise: { cylinders: 6 } }, 900);
  const [belt, crank, alt, engine] = rates;
  const radius = (900 / 60) * 2 * Math.PI; // rad/s
  expect(rates.map(({ what, id }) => `${what} ${id}`)).toEqual([
    'belt main',
    'pulley crank',
    'pulley alt',
    'engine firing',
  ]);
  expect(crank!.hz).toBeCloseTo(15, 12);
  expect(alt!.hz).toBeCloseTo(15, 9);
  expect(engine!.hz).toBeCloseTo(45, 12);
  const length = belt!.hz > 0 ? (radius * cord) / belt!.hz : 0;
  // 1000 mm of spans and one circumference on the cord, whatever the cord's own radius is taken as.
  expect(Math.abs(length - (1000 + 2 * Math.PI * cord))).toBeLessThan(0.01 * length);
});

test('teeth mesh once a tooth, whichever pulley one counts at', () => {
  const tooth = ratesOf(car, 1000).find(({ what }) => what === 'tooth')!;
  const crank = car.stations.find(({ role }) => role === 'crankshaft')!.pulleys[0]!;
  expect(crank.surface).toBe('toothed');
  expect(tooth.hz).toBeCloseTo((1000 / 60) * Number('teeth' in crank ? crank.teeth : NaN), 6);
});

describe('a sound made from a drive’s own rates', () => {
  const rpm = 750;
  const rates = ratesOf(truck, rpm);
  const firing = rates.find(({ what }) => what === 'engine')!.hz;
  const cases = rates
    .filter(({ what, hz }) => (what === 'belt' || what === 'pulley') && hz > 1)
    .flatMap((rate, k) =>
      (['chirp', 'rumble', 'squeal'] as const)
        .filter((kind) => kind !== 'rumble' || rate.what === 'pulley')
        .map((kind) => ({ kind, rate, seed: k + 1 })),
    );
  const heard = cases.map(({ kind, rate, seed }) => ({
    kind,
    rate,
    heard: listen(recorded(kind, rate.hz, { firing, seed, hiss: 0.02 }), truck, rpm),
  }));

  test('names the part in nine of ten, and the kind in as many', () => {
    const right = heard.filter(({ rate, heard: { matches } }) => matches[0]?.id === rate.id);
    const kinds = heard.filter(({ kind, heard: listening }) => listening.kind === kind);
    expect(cases.length).toBeGreaterThan(15);
    expect(right.length / heard.length).toBeGreaterThanOrEqual(0.9);
    expect(kinds.length / heard.length).toBeGreaterThanOrEqual(0.9);
  });

  test('tells the rate to its ±, and chances that sum to one', () => {
    for (const { rate, heard: listening } of heard) {
      const [first] = listening.matches;
      expect(listening.matches.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9);
      if (first?.id === rate.id)
        expect(Math.abs(listening.repeat!.hz - first.harmonic * rate.hz)).toBeLessThan(
          Math.max(0.03, 5 * listening.repeat!.plusMinusHz),
        );
    }
  });

  test('the engine’s own speed is heard in its beat, and sharpens what was told', () => {
    const heard = hearNoise(recorded('chirp', rates[0]!.hz, { firing }));
    for (const givenRpm of [rpm, 0.98 * rpm, 1.03 * rpm]) {
      const { engineRpm, otherRpms } = whoseNoise(heard, truck, givenRpm, 'needle');
      expect(Math.abs(engineRpm!.rpm - rpm)).toBeLessThan(3 * engineRpm!.plusMinus);
      expect(engineRpm!.plusMinus).toBeLessThan(0.005 * rpm);
      expect(otherRpms).toEqual([]);
    }
    // At another speed than was told: what it may be instead, and no figure is taken for it.
    const far = whoseNoise(heard, truck, 1000, 'needle');
    expect(far.engineRpm).toBeNull();
    expect(far.otherRpms.some((otherRpm) => Math.abs(otherRpm.rpm / rpm - 1) < 0.01)).toBe(true);
    expect(listenFindings(truck, far, 5).map(({ code }) => code)).toContain('speed-clash');
  });
});

test('a chirp has its pitch, a squeal its tone, a whine the rate of the teeth', () => {
  const belt = ratesOf(truck, 720)[0]!.hz;
  expect(listen(recorded('chirp', belt, { pitch: 3100 }), truck, 720).pitchHz! / 3100).toBeCloseTo(1, 1);
  expect(listen(recorded('squeal', belt, { pitch: 1800 }), truck, 720).pitchHz! / 1800).toBeCloseTo(1, 2);
  const mesh = ratesOf(car, 1100).find(({ what }) => what === 'tooth')!;
  const whine = listen(recorded('whine', mesh.hz), car, 1100);
  expect(whine.kind).toBe('whine');
  expect(whine.matches[0]).toMatchObject({ what: 'tooth', id: mesh.id, harmonic: 1 });
});

test.each([
  ['silence', recorded('silence', 0)],
  ['hiss', recorded('hiss', 0, { hiss: 0.05 })],
  ['hum', recorded('hiss', 0, { hum: 0.3, hiss: 0.001 })],
  ['an engine alone', recorded('hiss', 0, { firing: 25 })],
  ['half a second', recorded('chirp', 4, { seconds: 0.5 })],
] as const)('%s names no part', (_, sound) => {
  const { kind, matches } = listen(sound, truck, 750);
  expect(kind).toBe('none');
  expect(matches.filter(({ what }) => what !== 'engine' && what !== 'none')).toEqual([]);
});

test('what the simulated bay hides is found, with talk, hum and an engine about it', () => {
  let right = 0;
  for (let seed = 1; seed <= 6; seed += 1) {
    const { hidden, sound } = simulatedBay(car, 1100, seed);
    const { kind, matches } = listen(sound, car, 1100);
    const [first] = matches;
    const found = hidden?.bearing ? first?.what === 'bearing' : first?.id === hidden?.rate.id;
    if (hidden ? found : kind === 'none') right += 1;
  }
  expect(right).toBeGreaterThanOrEqual(5);
});

test.each([750, 1500])('its engine is heard at %d rev/min under every rumble that it hides', (rpm) => {
  const rumbles = lessonsOf(car, rpm).filter(({ kind, bearing }) => kind === 'rumble' && !bearing);
  expect(rumbles.length).toBeGreaterThan(3);
  for (const [seed, lesson] of rumbles.entries()) {
    // Each takes a while to hear: every other one by default, the others at the other speed; all in the long run.
    if (!THOROUGH && seed % 2 !== (rpm === 750 ? 0 : 1)) continue;
    const heard = listen(soundOfLesson(car, rpm, lesson, { seed, seconds: 8, bay: true }), car, rpm);
    expect([lesson.rate.id, Math.abs((heard.engineRpm?.rpm ?? 0) / rpm - 1) < 0.01]).toEqual([lesson.rate.id, true]);
  }
});

test('a file of it says the same', () => {
  const sound = recorded('chirp', ratesOf(truck, 720)[0]!.hz);
  const read = readWav(writeWav(sound));
  expect(read.ok && listen(read.sound, truck, 720).matches[0]).toMatchObject({ what: 'belt', id: 'main', harmonic: 1 });
});

test('what was heard once is held against another engine speed without listening again', () => {
  const sound = recorded('chirp', ratesOf(truck, 720)[0]!.hz);
  const heard = hearNoise(sound);
  expect(whoseNoise(heard, truck, 720)).toEqual(listen(sound, truck, 720));
  expect(whoseNoise(heard, truck, 720 * 1.5).matches[0]?.id).not.toBe('main');
});

test('a small clip of a sound says the same as the sound, and is small', () => {
  const { hz } = ratesOf(truck, 720)[0]!;
  const text = smallWav(recorded('chirp', hz, { rate: 44_100, seconds: 8 }));
  expect(text.length).toBeLessThan(64_000);
  const read = readWav(wavOfText(text));
  const small = read.ok ? listen(read.sound, truck, 720) : null;
  expect(small?.kind).toBe('chirp');
  expect(small?.matches[0]?.id).toBe('main');
  expect(readWav(wavOfText('no such thing')).ok).toBe(false);
  const kept = Array.from({ length: 9 }).reduce<Drive>(
    (drive) => keepClip(drive, { kind: 'chirp', rpm: 720, wav: text }),
    truck,
  );
  expect(kept.noise!.clips!.filter(({ wav }) => wav)).toHaveLength(6);
  expect(kept.noise!.clips!.slice(0, 3).every(({ wav }) => wav === undefined)).toBe(true);
  expect(readDrive(JSON.parse(JSON.stringify(kept))).ok).toBe(true);
});
