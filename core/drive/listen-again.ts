import { kmPer, LISTEN_AFTER_KM, LISTEN_AGAIN, type ListenAgain } from './odometer';
import type { Drive } from './drive';
import type { NoiseCure } from './noise';

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
        : odometer + Math.round(LISTEN_AFTER_KM[when] / kmPer(odometerUnit ?? unit)),
    done: listened.some((listening) => listening.when === when),
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
