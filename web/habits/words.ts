import type { LightWanted } from '../theme/light';
import type { Habits, LengthUnit } from '@emery/core/quantity';

/** The words of a person's own settings. */
export const HABITS = {
  title: 'My settings',
  done: 'Done',
  kept: 'Kept for you on this device. Files and other people are not changed.',
  light: 'Light',
  unit: 'Lengths in',
} as const;

export const LIGHT_NAMES: Record<LightWanted, string> = {
  device: 'As the device',
  day: 'Day',
  night: 'Night',
  sun: 'Sun',
};

export const UNIT_NAMES: Record<LengthUnit, string> = { in: 'Inches', mm: 'Millimetres' };

/** A habit with what it is called and what can be chosen. */
export interface HabitRow {
  habit: Exclude<keyof Habits, 'unit'>;
  label: string;
  options: readonly { value: string; label: string }[];
}

const row = (habit: HabitRow['habit'], label: string, names: Record<string, string>): HabitRow => ({
  habit,
  label,
  options: Object.entries(names).map(([value, name]) => ({ value, label: name })),
});

export const HABIT_ROWS: readonly HabitRow[] = [
  row('decimal', 'Decimal mark', { '.': 'Point: 169.9', ',': 'Comma: 169,9' }),
  row('torque', 'Torques in', { nm: 'N·m', 'lbf-ft': 'lbf·ft' }),
  row('force', 'Forces in', { N: 'N', lbf: 'lbf' }),
  row('distance', 'Odometer of new vehicles in', { km: 'Kilometres', mi: 'Miles' }),
  // Spelled with a letter, so that the order is this one.
  row('clock', 'Clock', { h24: '24 h: 14:05', h12: '12 h: 2:05 pm' }),
];
