import { normals } from '../numeric';
import { readWav, type Sound, writeWav } from '../sound';
import { hearPluck } from './pluck';
import { simulatedPlucks } from './simulate';
import { draws, expectShare } from '../test/draws';

/** A plucked string that is made otherwise than Emery makes its stand-in: a loop of delay with a filter in it. */
function loopString(hz: number, rate: number, seconds: number, damping: number, seed: number): Float64Array {
  const draw = normals(seed);
  // The two-point mean delays by half a sample; an all-pass makes up the fraction that is left.
  const delay = rate / hz - 0.5;
  const samples = Math.floor(delay - 0.2);
  const part = delay - samples;
  const c = (1 - part) / (1 + part);
  const line = new Float64Array(samples);
  // Pulled to a triangle, with a finger's roughness.
  const peak = Math.floor(samples * 0.31);
  line.forEach((_, k) => (line[k] = (k < peak ? k / peak : (samples - k) / (samples - peak)) - 0.5 + 0.02 * draw()));
  const out = new Float64Array(Math.round(rate * seconds));
  let [last, through, before] = [0, 0, 0];
  for (let n = 0; n < out.length; n += 1) {
    const value = line[n % samples]!;
    out[n] = value;
    const mean = (damping * (value + last)) / 2;
    last = value;
    through = c * mean + before - c * through;
    before = mean;
    line[n % samples] = through;
  }
  return out;
}

/** Plucks at the given seconds in hum and hiss, as loud as said beside them. */
function recording(
  hz: number,
  { rate = 16_000, at = [0.25, 0.9], hum = 0, mains = 50, hiss = 0, damping = 0.985, seed = 1 } = {},
): Sound {
  const draw = normals(seed);
  const samples = new Float64Array(rate * 2);
  at.forEach((second, p) => {
    const from = Math.round(second * rate);
    const string = loopString(hz, rate, 2 - second, damping, seed + p);
    // The next finger stops what still rings.
    const until = Math.round((at[p + 1] ?? 2) * rate);
    for (let k = from; k < until; k += 1) samples[k]! += string[k - from]!;
  });
  for (let k = 0; k < samples.length; k += 1) {
    const turn = (2 * Math.PI * mains * k) / rate;
    samples[k]! += hum * (Math.sin(turn) + 0.4 * Math.sin(2 * turn + 1)) + hiss * draw();
  }
  const max = samples.reduce((top, value) => Math.max(top, Math.abs(value)), 1e-9);
  return { rate, samples: samples.map((value) => value / max) };
}
const ask = { lengthMm: 250, kgPerMetre: 0.111 };
const tension = (hz: number) => 4 * 0.111 * 0.25 ** 2 * hz ** 2;

test('a plucked string, clean or in hum and hiss: its tension within 6 %, however often it is plucked', () => {
  for (const [n, hz] of [81, 97.3, 112, 131.7, 158, 187.4, 223, 251].entries()) {
    const sound = recording(hz, {
      hum: n % 2 ? 0.15 : 0,
      mains: n % 3 ? 50 : 60,
      hiss: 0.01 * (n % 4),
      at: n % 3 === 0 ? [0.3] : [0.2, 0.7, 1.3],
      seed: n + 1,
    });
    const heard = hearPluck(sound, { ...ask, expectN: tension(hz) * (n % 2 ? 1.3 : 0.8) });
    expect(Math.abs(heard.tensionN! / tension(hz) - 1)).toBeLessThan(0.06);
    expect(heard.plucks.length).toBeGreaterThanOrEqual(n % 3 === 0 ? 1 : 2);
  }
});

test('the claimed ± is as good as it says: two thirds within it, nineteen of twenty within twice it', () => {
  const apart = Array.from({ length: draws(60) }, (_, n) => {
    const tensionN = 150 * 6 ** ((n * 0.618) % 1);
    const span = { lengthMm: 160 + ((n * 53) % 260), kgPerMetre: 0.09 };
    const sound = simulatedPlucks(
      span,
      tensionN,
      { hum: n % 2 ? 0.1 : 0, hiss: 0.15 + 0.45 * ((n * 0.37) % 1), plucks: 2 },
      n + 1,
    );
    const heard = hearPluck(sound, { ...span, expectN: tensionN * 1.2 });
    return heard.tensionN === null ? Infinity : Math.abs(heard.tensionN - tensionN) / heard.plusMinusN!;
  });
  const within = (sigmas: number) => apart.filter((value) => value <= sigmas).length;
  expectShare(within(1), apart.length, { from: 0.55, to: 0.95 });
  expectShare(within(2), apart.length, { from: 0.9 });
});

test('the octave is the one that is likely here', () => {
  // A string touched at its middle sings its octave: what is expected tells which note is its own.
  const sound = recording(160, { seed: 4 });
  const heard = (expectN: number) => hearPluck(sound, { ...ask, expectN });
  expect(heard(tension(160)).confidence).toBeGreaterThan(0.7);
  expect(heard(tension(160)).frequencyHz!).toBeCloseTo(160, 0);
  expect(heard(tension(320)).confidence).toBeLessThan(heard(tension(160)).confidence);
});

test('silence, noise, hum, a steady tone, a clap and a rising whine are refused', () => {
  const draw = normals(3);
  const rate = 16_000;
  const made = (value: (k: number) => number): Sound => ({
    rate,
    samples: Float64Array.from({ length: 2 * rate }, (_, k) => value(k)),
  });
  const tone = (hz: number, k: number) => Math.sin((2 * Math.PI * hz * k) / rate);
  const refused: [string, Sound][] = [
    ['silence', made(() => 0)],
    ['no-pluck', made(() => 0.3 * draw())],
    ['no-pluck', made((k) => tone(50, k) + 0.5 * tone(100, k) + 0.05 * draw())],
    ['no-pluck', made((k) => 0.5 * tone(173, k))],
    ['no-pluck', made((k) => draw() * Math.exp(-(k % rate) / 900))],
    ['no-pluck', made((k) => tone(100 + k / 500, k) + 0.02 * draw())],
    ['too-short', { rate, samples: new Float64Array(200) }],
  ];
  for (const [why, sound] of refused) {
    expect(hearPluck(sound, ask)).toMatchObject({
      why,
      tensionN: null,
      plusMinusN: null,
      frequencyHz: null,
      confidence: 0,
    });
  }
});

test('a WAV file comes back as it was written; what is none is told', () => {
  const sound = recording(140);
  const back = readWav(writeWav(sound));
  if (!back.ok) throw new Error(back.message);
  expect(back.sound.rate).toBe(sound.rate);
  const mean = sound.samples.reduce((sum, value) => sum + value, 0) / sound.samples.length;
  const far = back.sound.samples.reduce(
    (max, value, k) => Math.max(max, Math.abs(value - sound.samples[k]! + mean)),
    0,
  );
  expect(far).toBeLessThan(1e-4);
  for (const bytes of [
    new Uint8Array(0),
    Uint8Array.from('not a sound', (letter) => letter.charCodeAt(0)),
    writeWav(sound).slice(0, 30),
  ])
    expect(readWav(bytes)).toMatchObject({ ok: false, message: expect.stringMatching(/WAV/) as string });
});

describe('what is expected does not make the note', () => {
  test('a clean pluck is its own note, whatever a tension was expected there: a quarter, three or four times', () => {
    for (const [n, hz] of [92, 131, 157.3, 214].entries())
      for (const times of [0.25, 4]) {
        const heard = hearPluck(recording(hz, { seed: n + 1, at: [0.3] }), { ...ask, expectN: times * tension(hz) });
        expect(Math.abs(heard.tensionN! / tension(hz) - 1)).toBeLessThan(0.06);
        expect(heard.confidence).toBeGreaterThan(0.5);
      }
  });

  test('plucks that are held back, stiff and short: within 6 % always, and within twice the ± nineteen times in twenty', () => {
    const rate = 16_000;
    let [all, once, twice] = [0, 0, 0];
    for (let n = 1; n <= draws(16); n += 1) {
      const draw = normals(100 + n);
      const [hz, rings, stiff] = [80 + ((n * 37) % 170), 0.03 + 0.01 * (n % 6), 6e-4 * (n % 5)];
      const samples = Float64Array.from({ length: 2 * rate }, () => 0.004 * (n % 4) * draw());
      for (let p = 0; p <= n % 3; p += 1) {
        const from = Math.round((0.25 + 0.5 * p) * rate);
        for (let h = 1; h <= 8; h += 1) {
          const turn = (2 * Math.PI * hz * h * Math.sqrt(1 + stiff * h * h)) / rate;
          const size = Math.sin(Math.PI * h * (0.2 + 0.03 * (n % 9))) / h;
          const dies = (1 + 0.3 * (h - 1)) / (rings * rate);
          for (let k = from; k < Math.min(samples.length, from + rate / 2); k += 1)
            samples[k]! += size * Math.exp(-(k - from) * dies) * Math.sin(turn * (k - from));
        }
      }
      const heard = hearPluck({ rate, samples }, { ...ask, expectN: tension(hz) * (n % 2 ? 0.5 : 2) });
      expect(Math.abs(heard.tensionN! / tension(hz) - 1)).toBeLessThan(0.06);
      const apart = Math.abs(heard.tensionN! - tension(hz)) / heard.plusMinusN!;
      all += 1;
      if (apart <= 1) once += 1;
      if (apart <= 2) twice += 1;
    }
    expectShare(once, all, { from: 0.6 });
    expectShare(twice, all, { from: 0.9 });
  });
});

describe('what has a note and is no string is refused, whatever is expected', () => {
  const rate = 16_000;
  const made = (seconds: number, value: (t: number, draw: () => number) => number, seed = 1): Sound => {
    const draw = normals(seed);
    return { rate, samples: Float64Array.from({ length: seconds * rate }, (_, k) => value(k / rate, draw)) };
  };
  const refused = (sound: Sound) => {
    for (const expectN of [undefined, 116])
      expect(hearPluck(sound, { ...ask, ...(expectN !== undefined && { expectN }) })).toMatchObject({
        tensionN: null,
        confidence: 0,
      });
  };

  test('a bar that is struck: its notes are 1 : 2.76 : 5.40', () => {
    for (const hz of [110, 150, 205, 250, 270])
      refused(
        made(2, (t, draw) => {
          const since = t - 0.3;
          const parts = [
            [1, 1, 0.25],
            [2.76, 0.7, 0.18],
            [5.4, 0.4, 0.12],
          ] as const;
          const rung = parts.reduce(
            (sum, [times, size, dies]) =>
              sum + size * Math.exp(-since / dies) * Math.sin(2 * Math.PI * times * hz * since),
            0,
          );
          return (since > 0 ? rung : 0) + 0.01 * draw();
        }),
      );
  });

  test('an engine that idles, and one that is blipped', () => {
    for (const rpm of [650, 860]) {
      const every = 30 / rpm;
      refused(
        made(3, (t, draw) => {
          const [shot, since] = [Math.floor(t / every), t % every];
          const size = 1 + 0.3 * Math.sin(12.9 * shot);
          return (
            size * Math.exp(-since / 0.012) * Math.sin(2 * Math.PI * (70 + 8 * Math.sin(3.7 * shot)) * since) +
            0.1 * draw()
          );
        }),
      );
    }
    for (const wide of [0.3, 0.45]) {
      let turned = 0;
      refused(
        made(3, (t, draw) => {
          const up = Math.exp(-(((t - 1.2) / wide) ** 2));
          turned += ((800 + 2500 * up) / 30 / rate) * 2 * Math.PI;
          const note = Array.from({ length: 10 }, (_, h) => Math.sin((h + 1) * turned + h * h) / (h + 1));
          return (0.25 + up) * (note.reduce((sum, value) => sum + value, 0) + 0.1 * draw());
        }),
      );
    }
  });

  test('somebody who speaks: notes that swell, glide and are shaped by a mouth', () => {
    for (const voice of [1, 2, 4, 5]) {
      let turned = 0;
      refused(
        made(2, (t, draw) => {
          const since = (t - 0.2) % 0.4;
          const hz = (100 + 20 * voice) * (1 + 0.1 * Math.sin(6 * since) - 0.15 * since * (voice % 3));
          turned += (2 * Math.PI * hz) / rate;
          const size = t > 0.2 && since < 0.28 ? Math.min(1, since / 0.03) * Math.min(1, (0.28 - since) / 0.08) : 0;
          const shaped = Array.from({ length: 18 }, (_, k) => {
            const at = (k + 1) * hz;
            const mouth = 1 / (1 + ((at - 500) / 120) ** 2) + 0.6 / (1 + ((at - 1500) / 150) ** 2) + 0.15;
            return (mouth * Math.sin((k + 1) * turned)) / Math.sqrt(k + 1);
          });
          return size * shaped.reduce((sum, value) => sum + value, 0) + 0.01 * draw();
        }),
      );
    }
  });
});
