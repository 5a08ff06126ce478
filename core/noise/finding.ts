import type { Finding } from '../finding';

export const NOISE_FINDING_CODES = [
  'no-route',
  'only-priors',
  'leads',
  'open',
  'not-the-drive',
  'hub-stop',
  'rib-stop',
  'contradicts',
  'unknown-test',
  'simulated',
  'masked',
  'dressed',
  'listen-again',
  'came-back',
  'too-short',
  'nothing-heard',
  'matches-nothing',
  'lie-together',
  'no-engine',
  'speed-clash',
  'rolling-bearing',
  'cylinders-default',
] as const;
export type NoiseFindingCode = (typeof NOISE_FINDING_CODES)[number];

/** Something to tell of a drive's noise. Figures: shares of 1, rev/min, seconds; or words. */
export type NoiseFinding = Finding<NoiseFindingCode>;
