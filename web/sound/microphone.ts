import type { Sound } from '@emery/core/sound';

/** Where a sound comes from. */
export interface SoundSource {
  name: string;
  simulated: boolean;
  /** Listens until told to stop, or for as long as it has; then gives what it heard. */
  listen: (stop: AbortSignal) => Promise<Sound>;
}

interface Listening {
  /** It is listened to no longer than this, s. */
  longestS?: number;
  /** Gets what was heard so far, every second. */
  onSound?: (sound: Sound) => void;
}

/** The browser's microphone. Says what to do where it is refused, or there is none. */
export function microphone({ longestS = 10, onSound }: Listening = {}): SoundSource {
  return {
    name: 'Microphone',
    simulated: false,
    listen: async (stop) => {
      const devices = navigator.mediaDevices as MediaDevices | undefined;
      if (!devices?.getUserMedia)
        throw new Error(
          'This browser gives no access to a microphone here. Record with a phone and drop the sound file in.',
        );
      const stream = await devices
        .getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } })
        .catch((error: DOMException) => {
          throw new Error(
            error.name === 'NotFoundError'
              ? 'No microphone found. Record with a phone and drop the sound file in.'
              : 'Microphone access was not allowed. Allow it for this page, or record with a phone and drop the sound file in.',
          );
        });
      const context = new AudioContext();
      try {
        return await heard(context, stream, stop, longestS, onSound);
      } finally {
        stream.getTracks().forEach((track) => track.stop());
        await context.close();
      }
    },
  };
}

async function heard(
  context: AudioContext,
  stream: MediaStream,
  stop: AbortSignal,
  longestS: number,
  onSound: Listening['onSound'],
): Promise<Sound> {
  await context.audioWorklet.addModule('/tap.js');
  const tap = new AudioWorkletNode(context, 'emery-tap', { numberOfOutputs: 0 });
  const parts: Float32Array[] = [];
  let [count, sent] = [0, 0];
  const sound = (): Sound => {
    const samples = new Float64Array(count);
    let at = 0;
    for (const part of parts) {
      samples.set(part, at);
      at += part.length;
    }
    return { rate: context.sampleRate, samples };
  };
  await new Promise<void>((resolve) => {
    tap.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
      parts.push(data);
      count += data.length;
      const seconds = Math.floor(count / context.sampleRate);
      if (seconds > sent) {
        sent = seconds;
        onSound?.(sound());
      }
      if (count >= longestS * context.sampleRate) resolve();
    };
    if (stop.aborted) resolve();
    stop.addEventListener('abort', () => resolve());
    context.createMediaStreamSource(stream).connect(tap);
  });
  return sound();
}
