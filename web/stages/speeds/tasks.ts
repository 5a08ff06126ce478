import { readSpeedLog } from './read-speed-log';
import type { Drive } from '@emery/core/drive';
import { choosePulleys, type PulleyAtHand, type ShopBands, type SpeedTarget } from '@emery/core/speeds';

export interface PulleyWish {
  drive: Drive;
  targets: readonly SpeedTarget[];
  atHand: readonly PulleyAtHand[];
  bands: ShopBands;
  changes: number;
}

/** The long sums of Speeds. */
export const speedsTasks = {
  pulleys: ({ drive, targets, atHand, bands, changes }: PulleyWish, onProgress: (fraction: number) => void) =>
    choosePulleys(drive, targets, atHand, { bands, changes, onProgress }),
  log: (file: File, onProgress: (fraction: number) => void) => readSpeedLog(file, onProgress),
};
