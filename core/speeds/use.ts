import type { EngineMarks } from '../accessory';
import type { EngineUse, SpeedBand, UseBin } from '../drive';

export const USE_PRESETS = ['traffic', 'motorway', 'work-at-idle', 'track', 'long-grades'] as const;
export type UsePreset = (typeof USE_PRESETS)[number];

/**
 * Each preset as humps: where between idle (0), cruise (1) and redline (2), their standard deviation in the same
 * measure, and how much of the time. Made up to start from.
 */
const PRESETS: Record<UsePreset, readonly (readonly [at: number, width: number, share: number])[]> = {
  traffic: [
    [0, 0.03, 0.42],
    [0.55, 0.3, 0.48],
    [1.2, 0.25, 0.1],
  ],
  motorway: [
    [0, 0.03, 0.06],
    [0.7, 0.25, 0.12],
    [1.05, 0.12, 0.74],
    [1.4, 0.2, 0.08],
  ],
  'work-at-idle': [
    [0, 0.03, 0.78],
    [0.35, 0.2, 0.14],
    [0.9, 0.25, 0.08],
  ],
  track: [
    [0, 0.03, 0.08],
    [1.4, 0.2, 0.4],
    [1.8, 0.15, 0.52],
  ],
  'long-grades': [
    [0, 0.03, 0.05],
    [0.9, 0.2, 0.35],
    [1.4, 0.2, 0.6],
  ],
};

/**
 * A way of using a vehicle to start from, fitted to the engine's marks: bins of `step` rev/min whose shares sum to 1.
 */
export function presetUse(
  preset: UsePreset,
  { idle, cruise, redline }: EngineMarks,
  step = binStep(redline),
): EngineUse {
  const place = (rpm: number) =>
    rpm < cruise ? (rpm - idle) / Math.max(1, cruise - idle) : 1 + (rpm - cruise) / Math.max(1, redline - cruise);
  const first = Math.floor((0.8 * idle) / step) * step;
  const bins: UseBin[] = [];
  for (let from = first; from < redline; from += step) {
    // The logistic curve comes near enough to the normal distribution's for made-up humps.
    const below = (rpm: number, middle: number, width: number) =>
      1 / (1 + Math.exp((-1.702 * (place(rpm) - middle)) / width));
    bins.push({
      from,
      to: from + step,
      share: PRESETS[preset].reduce(
        (sum, [middle, width, share]) => sum + share * (below(from + step, middle, width) - below(from, middle, width)),
        0,
      ),
    });
  }
  return { name: preset, bins: normalised(bins) };
}

/** A round step that cuts an engine's range into some twenty bins. */
export function binStep(redline: number): number {
  return (
    [50, 100, 200, 250, 500, 1000].find((step) => redline / step <= 26) ?? 10 ** Math.ceil(Math.log10(redline / 26))
  );
}

/** The same bins with shares that sum to 1; all of them nought where there is nothing to share out. */
export function normalised(bins: readonly UseBin[]): UseBin[] {
  const sum = bins.reduce((total, { share }) => total + Math.max(0, share), 0);
  return bins.map((bin) => ({ ...bin, share: sum > 0 ? Math.max(0, bin.share) / sum : 0 }));
}

/** The use with one bin given a share of the time, 0 to 1; the others keep their proportions in what is left. */
export function withShare(use: EngineUse, index: number, share: number): EngineUse {
  const bins = normalised(use.bins);
  const given = Math.min(1, Math.max(0, share));
  const rest = bins.reduce((sum, bin, k) => sum + (k === index ? 0 : bin.share), 0);
  // Where all the time was in this one, what it gives up goes to its neighbours alike.
  return {
    ...use,
    bins: bins.map((bin, k) => ({
      ...bin,
      share: k === index ? given : (1 - given) * (rest > 0 ? bin.share / rest : 1 / (bins.length - 1)),
    })),
  };
}

/** Shares of the running time an accessory spends in each part of its band. */
export interface TimeInBand {
  tooSlow: number;
  right: number;
  tooFast: number;
  beyond: number;
}

/**
 * Time in each part of a band for a shaft that turns `ratio` times for each crank turn. Within a bin all speeds count
 * as equally likely.
 */
export function timeInBand({ bins }: EngineUse, ratio: number, { least, continuous, burst }: SpeedBand): TimeInBand {
  const below = (rpm: number | null) =>
    rpm === null
      ? null
      : normalised(bins).reduce((sum, { from, to, share }) => sum + share * shareBelow(from, to, rpm / ratio), 0);
  // Of limits out of order the upper one holds, as `placeIn` has it, so that the four shares are all of the time.
  const upToBurst = below(burst) ?? 1;
  const upToContinuous = Math.min(upToBurst, below(continuous) ?? upToBurst);
  const slow = Math.min(upToContinuous, below(least) ?? 0);
  return { tooSlow: slow, right: upToContinuous - slow, tooFast: upToBurst - upToContinuous, beyond: 1 - upToBurst };
}

function shareBelow(from: number, to: number, at: number): number {
  return to > from ? Math.min(1, Math.max(0, (at - from) / (to - from))) : Number(from < at);
}

/** The engine's mean speed over the running time, rev/min; null for an empty histogram. */
export function meanEngineRpm({ bins }: EngineUse): number | null {
  const shares = normalised(bins);
  return shares.some(({ share }) => share > 0)
    ? shares.reduce((sum, { from, to, share }) => sum + (share * (from + to)) / 2, 0)
    : null;
}

/** Turns of a shaft in 1,000 hours of running, and in 1,000 km where the mean road speed is known. */
export function turnsOf(use: EngineUse, ratio: number): { per1000Hours: number; per1000Km: number | null } | null {
  const mean = meanEngineRpm(use);
  if (mean === null) return null;
  const perHour = mean * ratio * 60;
  return {
    per1000Hours: 1000 * perHour,
    per1000Km: use.kmPerHour !== undefined && use.kmPerHour > 0 ? (1000 * perHour) / use.kmPerHour : null,
  };
}
