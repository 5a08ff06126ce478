import { hearNoise, type Heard } from '@emery/core/noise';
import { readWav, type Sound, spectrogram, type Spectrogram } from '@emery/core/sound';

/** Result in a sound, its picture, and the sound itself where it came as a file. */
export interface HeardSound {
  ok: true;
  heard: Heard;
  picture: Spectrogram;
  sound: Sound;
}

/** The long sums of Noise. */
export const noiseTasks = {
  noise: (
    { source }: { source: Sound | Uint8Array },
    onProgress: (share: number) => void,
  ): HeardSound | { ok: false; message: string } => {
    const reading = source instanceof Uint8Array ? readWav(source) : { ok: true as const, sound: source };
    if (!reading.ok) return { ok: false, message: reading.message };
    const heard = hearNoise(reading.sound, onProgress);
    return { ok: true, heard, picture: spectrogram(reading.sound), sound: reading.sound };
  },
};
