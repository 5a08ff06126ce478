import { normals } from '../numeric';
import type { Sound } from '../sound';
import { pluckFor, type SpanFigures } from './ways';

/** What a simulated span is plucked in. */
export interface SimulatedRoom {
  /** How loud mains hum and hiss are beside the pluck; 0 for none. */
  hum: number;
  hiss: number;
  plucks: number;
}

const RATE = 22_050;
/** s between plucks, and before the first. */
const EVERY = 0.7;
const PARTIALS = 8;

/**
 * The sound of a span of a tension, plucked a few times: a stiff string's partials that die away, hum and hiss. A
 * stand-in for a microphone at a belt, the same for the same seed; it measures nothing.
 */
export function simulatedPlucks(
  span: Pick<SpanFigures, 'lengthMm' | 'kgPerMetre'>,
  tensionN: number,
  { hum, hiss, plucks }: SimulatedRoom,
  seed: number,
): Sound {
  const normal = normals(seed);
  const fraction = () => Math.abs(Math.sin(37.1 * normal()));
  const hz = pluckFor({ ...span, stiffness: 0, widthMm: 0, twistStiffness: 0 }, tensionN);
  const samples = new Float64Array(Math.round(RATE * (0.3 + EVERY * plucks)));
  for (let p = 0; p < plucks; p += 1) {
    const from = Math.round(RATE * (0.25 + EVERY * p));
    const place = 0.25 + 0.3 * fraction();
    for (let h = 1; h <= PARTIALS; h += 1) {
      const rings = 0.22 / (1 + 0.3 * (h - 1));
      const size = Math.sin(Math.PI * h * place) / h ** 1.2;
      const turn = (2 * Math.PI * hz * h * Math.sqrt(1 + 2e-4 * h ** 2)) / RATE;
      if (turn > 2.6) break;
      // A pointer that turns and shrinks from sample to sample.
      const shrink = Math.exp(-1 / RATE / rings);
      const [stepCos, stepSin] = [shrink * Math.cos(turn), shrink * Math.sin(turn)];
      let [cosine, sine] = [size, 0];
      for (let k = from; k < samples.length; k += 1) {
        samples[k]! += sine;
        const turned = cosine * stepCos - sine * stepSin;
        sine = sine * stepCos + cosine * stepSin;
        cosine = turned;
      }
    }
  }
  for (let k = 0; k < samples.length; k += 1)
    samples[k]! += hum * Math.sin((2 * Math.PI * 50 * k) / RATE) + hiss * normal();
  const max = samples.reduce((top, value) => Math.max(top, Math.abs(value)), 1e-9);
  return { rate: RATE, samples: samples.map((value) => (0.8 * value) / max) };
}
