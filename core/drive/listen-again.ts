import type { Drive } from './drive';
import type { NoiseCure } from './noise';

/** When a drive is listened to again after a cure. */
export const LISTEN_AGAIN = ['now', 'soon', 'later'] as const;
export type ListenAgain = (typeof LISTEN_AGAIN)[number];

/** How far on a drive is listened to again, km: a new belt's coating hides a fault for some hundreds. Defaults. */
export const LISTEN_AFTER_KM: Record<ListenAgain, number> = { now: 0, soon: 500, later: 2000 };

/** What an odometer counts: km, miles, or hours of the engine. */
export type OdometerUnit = 'km' | 'mi' | 'h';
const KM_PER_MILE = 1.609344;
/** An hour of an engine stands for so many km. A default. */
const KM_PER_HOUR = 40;
const KM_PER: Record<OdometerUnit, number> = { km: 1, mi: KM_PER_MILE, h: KM_PER_HOUR };

/** A look that is due after a cure. */
export interface DueListening {
  when: ListenAgain;
  /** At that reading of the odometer, in its own unit; null where none was written down. */
  at: number | null;
  done: boolean;
}

/** When a drive is listened to again after a cure: at once, after 500 km and after 2,000 km. */
export function dueAfter(
  { odometer, listened = [] }: Pick<NoiseCure, 'odometer' | 'listened'>,
  unit: OdometerUnit = 'km',
): DueListening[] {
  return LISTEN_AGAIN.map((when) => ({
    when,
    at: odometer === undefined ? null : odometer + Math.round(LISTEN_AFTER_KM[when] / KM_PER[unit]),
    done: listened.some((one) => one.when === when),
  }));
}

/** The next listening after each cure that is not through with them, and has not come back. */
export function listeningsLeft({ noise }: Drive): Pick<NoiseCure, 'odometer' | 'listened'>[] {
  return (noise?.cures ?? [])
    .filter(
      (cure) => !cure.listened?.some(({ outcome }) => outcome === 'back') && dueAfter(cure).some(({ done }) => !done),
    )
    .map(({ odometer, listened }) => ({ ...(odometer !== undefined && { odometer }), ...(listened && { listened }) }));
}
