/** Sounds: reading and writing them, their spectrum, and how strong each band is over time. */
export { MOST_WAV_BYTES, powerOf, readWav, smallWav, wavOfText, writeWav, type Sound, type WavReading } from './wav';
export { floorOf, hann, peakBetween, powerOfTwo, powerSpectrum, type Spectrum } from './spectrum';
export { autocorrelation, bandLevels, forFrames, type BandLevels } from './bands';
export { spectrogram, type Spectrogram } from './spectrogram';
