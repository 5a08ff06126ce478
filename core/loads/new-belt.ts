import { limitOrDefault, marksOf } from '../accessory';
import { pathLength, stiffnessN } from '../adjuster';
import { type BeltCare, type Drive, moveStation, type OdometerUnit } from '../drive';
import { tensionOf } from './drive-tension';
import { type NewBeltFigures, newBeltFigures } from './setting';
import { statesThatMatter } from './situations';
import type { StaticBelt } from './static-belt';
import { type TensionWindow, windowOf } from './window';

/** Minutes of run-in, and how far until the next look, km. Defaults. */
export const RUN_IN_MINUTES = 10;
export const NEXT_LOOK = { km: 800, mi: 500, h: 20 } as const;
/** Growth of an aluminium block, mm of a mm for a kelvin. */
const ALUMINIUM_PER_KELVIN = 0.023e-3;
/** A warm engine over a cold one, K. A default. */
export const WARM_KELVIN = 70;

/** When a belt that was set is looked at next: in a month, or so far on where the odometer was read. Defaults. */
export function nextLookAfter(
  at: string,
  odometer: number | undefined,
  unit: OdometerUnit,
): Pick<BeltCare, 'nextLookAt' | 'nextLookOdometer'> {
  const look = new Date(at);
  const month = look.getUTCMonth() + 1;
  look.setUTCMonth(month);
  // From the 31st a month on is the last day of the next month, not one of the month after.
  if (look.getUTCMonth() !== month % 12) look.setUTCDate(0);
  return {
    nextLookAt: look.toISOString(),
    ...(odometer !== undefined && { nextLookOdometer: odometer + NEXT_LOOK[unit] }),
  };
}

/**
 * The window that a belt is set and bought by where nobody asks for another: its drive's own engine speeds with all
 * loads at their heaviest, dry, and the limits of its shafts or the defaults of their kind. Null for a belt that cannot
 * lie on its route.
 */
export function usualWindow(drive: Drive, beltId: string): TensionWindow | null {
  const states = statesThatMatter(marksOf(drive.speeds), { all: 'heaviest' }, false);
  return windowOf(tensionOf(drive), beltId, states, limitOrDefault);
}

/** What a new belt of a drive is set to by that window; null where nothing is to be aimed at. */
export function usualSetting(drive: Drive, beltId: string): NewBeltFigures | null {
  const window = usualWindow(drive, beltId);
  return window && newBeltFigures(window);
}

/**
 * What a warm engine adds to the tension of a belt on fixed centres, N: the block grows, the belt is held to grow by
 * nothing. 0 for a sprung arm, which takes it up.
 */
export function hotRise(drive: Drive, { belt, arm, cordLength }: StaticBelt, kelvin = WARM_KELVIN): number {
  if (arm !== null) return 0;
  const grown = drive.stations.reduce((warm, { id, x, y }) => {
    const by = 1 + ALUMINIUM_PER_KELVIN * kelvin;
    return moveStation(warm, id, x * by, y * by);
  }, drive);
  const [cold, hot] = [pathLength(drive, belt), pathLength(grown, belt)];
  return cold === null || hot === null ? 0 : (stiffnessN(belt) * (hot - cold)) / cordLength;
}
