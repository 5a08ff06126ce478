import { MOST_WAV_BYTES, type Sound } from '@emery/core/sound';

/**
 * A sound file as the sums take it: a WAV as its bytes, anything else as the browser decodes it. Rejects with what to
 * do. `cutTo` says what a file that is too large is to be cut to.
 */
export async function soundOfFile(file: File, cutTo: string): Promise<Sound | Uint8Array> {
  if (file.size > MOST_WAV_BYTES) throw new Error(`${file.name} is over 64 MB; shorten it to ${cutTo}.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  return String.fromCharCode(...bytes.subarray(0, 2)) === 'RI' ? bytes : decodedSound(file);
}

/** Reads a sound file of any kind that the browser knows. Rejects with what to do. */
async function decodedSound(file: File): Promise<Sound> {
  const context = new AudioContext();
  try {
    const heardIn = await context.decodeAudioData(await file.arrayBuffer());
    return { rate: heardIn.sampleRate, samples: Float64Array.from(heardIn.getChannelData(0)) };
  } catch {
    throw new Error(`${file.name} is not a sound file this browser can read. Record or export it as WAV.`);
  } finally {
    await context.close();
  }
}
