import type { SoundSource } from '../../sound/microphone';
import { simulatedPlucks, type SpanFigures } from '@emery/core/tension';

/** A stand-in for a microphone at a span whose tension is hidden; it measures nothing. */
export function simulatedSpan(span: SpanFigures, tensionN: number, seed: number): SoundSource {
  return {
    name: 'Simulated span',
    simulated: true,
    listen: async () => simulatedPlucks(span, tensionN, { hum: 0.1, hiss: 0.02, plucks: 3 }, seed),
  };
}
