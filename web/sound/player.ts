import { createStore } from '../state/store';
import type { Sound } from '@emery/core/sound';

/** What is played just now, by a name of the caller's own; null while all is still. */
export const playing = createStore<string | null>(null);

let context: AudioContext | null = null;
let source: AudioBufferSourceNode | null = null;

/** Plays a sound once, or over and over, in place of what was played. */
export function play(name: string, { rate, samples }: Sound, loop = false): void {
  stopPlaying();
  context ??= new AudioContext();
  void context.resume();
  const buffer = context.createBuffer(1, samples.length, rate);
  buffer.copyToChannel(Float32Array.from(samples), 0);
  const node = context.createBufferSource();
  node.buffer = buffer;
  node.loop = loop;
  node.connect(context.destination);
  node.onended = () => {
    if (source === node) stopPlaying();
  };
  node.start();
  source = node;
  playing.set(name);
}

export function stopPlaying(): void {
  const last = source;
  source = null;
  last?.stop();
  playing.set(null);
}

const CLICK_RATE = 22_050;

/** One turn of a metronome that clicks so many times a second, to be played over and over. */
export function clickSound(hz: number): Sound {
  const samples = new Float64Array(Math.max(64, Math.round(CLICK_RATE / hz)));
  for (let k = 0; k < Math.min(samples.length, 200); k += 1)
    samples[k] = 0.6 * Math.exp(-k / 30) * Math.sin((2 * Math.PI * 1800 * k) / CLICK_RATE);
  return { rate: CLICK_RATE, samples };
}
