import type { LightWanted } from '../theme/light';

/** The words of a person's own settings. */
export const HABITS = {
  title: 'My settings',
  kept: 'Kept for you on this device. Files and other people are not changed.',
  light: 'Light',
  unit: 'Lengths in',
  decimal: 'Decimal mark',
  torque: 'Torques in',
  force: 'Forces in',
  distance: 'Odometer of new vehicles in',
  clock: 'Clock',
} as const;

export const LIGHT_NAMES: Record<LightWanted, string> = {
  device: 'As the device',
  day: 'Day',
  night: 'Night',
  sun: 'Sun',
};
