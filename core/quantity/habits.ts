export type DistanceUnit = 'km' | 'mi';

/**
 * How a person writes figures. Sums know nothing of them: they change words alone, and no file. Those of the command
 * line and of the server are the defaults.
 */
export interface Habits {
  /** What lengths come in first; null goes by the shop. */
  unit: 'mm' | 'in' | null;
  decimal: '.' | ',';
  torque: 'nm' | 'lbf-ft';
  /** What forces come in first; null goes by the lengths. */
  force: 'N' | 'lbf' | null;
  distance: DistanceUnit;
  clock: 'h24' | 'h12';
}

export const DEFAULT_HABITS: Habits = {
  unit: null,
  decimal: '.',
  torque: 'nm',
  force: null,
  distance: 'km',
  clock: 'h24',
};

const CHOICES: { readonly [K in keyof Habits]: readonly Habits[K][] } = {
  unit: [null, 'in', 'mm'],
  decimal: ['.', ','],
  torque: ['nm', 'lbf-ft'],
  force: [null, 'N', 'lbf'],
  distance: ['km', 'mi'],
  clock: ['h24', 'h12'],
};

/** Habits as they were kept: what is missing or nothing that is known is as usual. */
export function readHabits(kept: unknown): Habits {
  const given = typeof kept === 'object' && kept !== null ? (kept as Record<string, unknown>) : {};
  const known = Object.entries(CHOICES).filter(([name, choices]) => (choices as unknown[]).includes(given[name]));
  return { ...DEFAULT_HABITS, ...Object.fromEntries(known.map(([name]) => [name, given[name]])) };
}

let now: Habits = DEFAULT_HABITS;

/** Whose habits words are written by from now on: one person sits before one page. */
export function setHabits(habits: Habits): void {
  now = habits;
}

export const habitsNow = (): Habits => now;

/** A figure with that many decimals, by the decimal mark of the habits. */
export function fixed(value: number, places: number): string {
  const text = value.toFixed(places);
  return now.decimal === ',' ? text.replace('.', ',') : text;
}

/** A figure with its thousands apart: 12,500, or 12 500 where a comma is the decimal mark. */
export function grouped(value: number): string {
  const text = value.toLocaleString('en');
  // A narrow space that does not break, as ISO 80000-1 has it.
  return now.decimal === ',' ? text.replace(/,/g, '\u202f').replace('.', ',') : text;
}

/** A figure as it is, by the decimal mark of the habits. */
export const written = (value: number): string =>
  now.decimal === ',' ? String(value).replace('.', ',') : String(value);
