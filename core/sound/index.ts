/** Sounds: reading and writing them, and their spectrum. */
export { MOST_WAV_BYTES, powerOf, readWav, writeWav, type Sound, type WavReading } from './wav';
export { floorOf, hann, peakBetween, powerOfTwo, powerSpectrum, type Spectrum } from './spectrum';
