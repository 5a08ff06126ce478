import { readNumber } from './number';

/** One kilogram-force and one pound-force in newtons: exact by definition. */
export const N_PER_KGF = 9.80665;
export const N_PER_LBF = 4.4482216152605;

export type ForceUnit = 'N' | 'daN' | 'kN' | 'kgf' | 'lbf';
const NEWTONS: Record<ForceUnit, number> = { N: 1, daN: 10, kN: 1000, kgf: N_PER_KGF, lbf: N_PER_LBF };

/** What was understood, in N, or in plain words why nothing was. */
export type ForceReading = { ok: true; newtons: number; unit: ForceUnit } | { ok: false; problem: string };

const SPELLED: Record<string, ForceUnit> = {
  n: 'N',
  newton: 'N',
  newtons: 'N',
  dan: 'daN',
  kn: 'kN',
  kgf: 'kgf',
  kg: 'kgf',
  kp: 'kgf',
  lbf: 'lbf',
  lb: 'lbf',
  lbs: 'lbf',
};

/**
 * Reads `20`, `20 N`, `1 200 N`, `2 daN`, `4.5 lbf`, `2 kgf`; a bare figure is in `bareUnit`. More than 0 and up to
 * 20,000 N. A comma or point before exactly three digits is asked about.
 */
export function parseForce(text: string, bareUnit: ForceUnit): ForceReading {
  const accepted = 'Write a force such as 25 N, 5.5 lbf or 2.5 kgf; 20,000 N at most.';
  const match = /^(.*?)\s*([a-z]*)\.?$/.exec(text.trim().toLowerCase());
  const unit = match && (match[2] === '' ? bareUnit : SPELLED[match[2]!]);
  if (!match || !unit) return { ok: false, problem: accepted };
  const figure = readNumber(match[1]!, { max: 20_000 / NEWTONS[unit] });
  if (!figure.ok) return { ok: false, problem: match[1]!.trim() === '' ? accepted : `${figure.problem} ${accepted}` };
  const newtons = figure.value * NEWTONS[unit];
  return newtons > 0 && newtons <= 20_000 ? { ok: true, newtons, unit } : { ok: false, problem: accepted };
}
