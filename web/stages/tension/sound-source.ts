import type { Sound } from '@emery/core/sound';
import { simulatedPlucks, type SpanFigures } from '@emery/core/tension';

/** Where the sound of a plucked span comes from. */
export interface SoundSource {
  name: string;
  simulated: boolean;
  /** Listens until told to stop, or for as long as it has; then gives what it heard. */
  listen: (stop: AbortSignal) => Promise<Sound>;
}

/** A microphone is listened to no longer than this, ms. */
const LONGEST_MS = 10_000;

/** A stand-in for a microphone at a span whose tension is hidden; it measures nothing. */
export function simulatedSpan(span: SpanFigures, tensionN: number, seed: number): SoundSource {
  return {
    name: 'Simulated span',
    simulated: true,
    listen: async () => simulatedPlucks(span, tensionN, { hum: 0.1, hiss: 0.02, plucks: 3 }, seed),
  };
}

/** The browser's microphone. Says what to do where it is refused, or there is none. */
export const microphone: SoundSource = {
  name: 'Microphone',
  simulated: false,
  listen: async (stop) => {
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices?.getUserMedia)
      throw new Error(
        'This browser gives no page a microphone here. Record the plucks with a phone and drop the WAV in.',
      );
    const stream = await devices
      .getUserMedia({ audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false } })
      .catch((error: DOMException) => {
        throw new Error(
          error.name === 'NotFoundError'
            ? 'No microphone was found. Record the plucks with a phone and drop the WAV in.'
            : 'The browser was not given leave to listen. Allow the microphone for this page, or record with a phone and drop the WAV in.',
        );
      });
    try {
      return await recorded(stream, stop);
    } finally {
      stream.getTracks().forEach((track) => track.stop());
    }
  },
};

async function recorded(stream: MediaStream, stop: AbortSignal): Promise<Sound> {
  const recorder = new MediaRecorder(stream);
  const parts: Blob[] = [];
  recorder.ondataavailable = ({ data }) => parts.push(data);
  const ended = new Promise<void>((resolve) => (recorder.onstop = () => resolve()));
  recorder.start();
  const end = () => recorder.state === 'recording' && recorder.stop();
  const timer = setTimeout(end, LONGEST_MS);
  stop.addEventListener('abort', end);
  await ended;
  clearTimeout(timer);
  stop.removeEventListener('abort', end);
  const context = new AudioContext();
  try {
    const heard = await context.decodeAudioData(await new Blob(parts, { type: recorder.mimeType }).arrayBuffer());
    return { rate: heard.sampleRate, samples: Float64Array.from(heard.getChannelData(0)) };
  } finally {
    await context.close();
  }
}
