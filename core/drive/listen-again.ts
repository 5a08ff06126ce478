import type { Drive } from './drive';
import type { NoiseCure } from './noise';

/** When a drive is listened to again after a cure. */
export const LISTEN_AGAIN = ['now', 'soon', 'later'] as const;
export type ListenAgain = (typeof LISTEN_AGAIN)[number];

/** How far on a drive is listened to again, km: a new belt's coating hides a fault for some hundreds. Defaults. */
export const LISTEN_AFTER_KM: Record<ListenAgain, number> = { now: 0, soon: 500, later: 2000 };

/** What an odometer counts: km, miles, or hours of the engine. */
export const ODOMETER_UNITS = ['km', 'mi', 'h'] as const;
export type OdometerUnit = (typeof ODOMETER_UNITS)[number];
const KM_PER_MILE = 1.609344;
/** An hour of an engine stands for so many km. A default. */
const KM_PER_HOUR = 40;
const KM_PER: Record<OdometerUnit, number> = { km: 1, mi: KM_PER_MILE, h: KM_PER_HOUR };
/** How many km one of an odometer's unit stands for. */
export const kmPer = (unit: OdometerUnit): number => KM_PER[unit];

/** A look that is due after a cure. */
export interface DueListening {
  when: ListenAgain;
  /** At that reading of the odometer, in its own unit; null where none was written down. */
  at: number | null;
  done: boolean;
}

/** What is said of a cure that a listening follows from. */
type CureHeard = Pick<NoiseCure, 'odometer' | 'odometerUnit' | 'listened'>;

/**
 * When a drive is listened to again after a cure: at once, after 500 km and after 2,000 km. In the unit that the cure
 * was written down in, else in `unit`; at no reading of the odometer where neither says it.
 */
export function dueAfter({ odometer, odometerUnit, listened = [] }: CureHeard, unit = odometerUnit): DueListening[] {
  return LISTEN_AGAIN.map((when) => ({
    when,
    at:
      odometer === undefined || unit === undefined
        ? null
        : odometer + Math.round(LISTEN_AFTER_KM[when] / KM_PER[odometerUnit ?? unit]),
    done: listened.some((one) => one.when === when),
  }));
}

/** Whether the noise was heard again after a cure. */
const cameBack = ({ listened }: CureHeard) => listened?.some(({ outcome }) => outcome === 'back') ?? false;

/** The last cure, where the noise came back after it. */
export function failedCure({ noise }: Pick<Drive, 'noise'>): NoiseCure | null {
  const last = noise?.cures?.at(-1);
  return last && cameBack(last) ? last : null;
}

/** The cures that are still to be listened to again: not those after which it came back. */
export function listeningsLeft({ noise }: Pick<Drive, 'noise'>): NoiseCure[] {
  return (noise?.cures ?? []).filter((cure) => !cameBack(cure) && dueAfter(cure).some(({ done }) => !done));
}
