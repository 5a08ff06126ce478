/** One kilogram-force and one pound-force in newtons: exact by definition. */
export const N_PER_KGF = 9.80665;
export const N_PER_LBF = 4.4482216152605;

export type ForceUnit = 'N' | 'kgf' | 'lbf';
const NEWTONS: Record<ForceUnit, number> = { N: 1, kgf: N_PER_KGF, lbf: N_PER_LBF };

/** What was understood, in N, or in plain words why nothing was. */
export type ForceReading = { ok: true; newtons: number; unit: ForceUnit } | { ok: false; problem: string };

const SPELLED: Record<string, ForceUnit> = {
  n: 'N',
  newton: 'N',
  newtons: 'N',
  kgf: 'kgf',
  kg: 'kgf',
  kp: 'kgf',
  lbf: 'lbf',
  lb: 'lbf',
  lbs: 'lbf',
};

/** Reads `20`, `20 N`, `4.5 lbf`, `2 kgf`; a bare figure is in `bareUnit`. More than 0 and up to 20,000 N. */
export function parseForce(text: string, bareUnit: ForceUnit): ForceReading {
  const match = /^(\d+(?:\.\d*)?|\.\d+)\s*([a-z]*)\.?$/.exec(text.trim().toLowerCase().replace(',', '.'));
  const unit = match && (match[2] === '' ? bareUnit : SPELLED[match[2]!]);
  const newtons = match && unit ? Number(match[1]) * NEWTONS[unit] : 0;
  return newtons > 0 && newtons <= 20_000
    ? { ok: true, newtons, unit: unit as ForceUnit }
    : { ok: false, problem: 'Write a force such as 25 N, 5.5 lbf or 2.5 kgf; 20,000 N at most.' };
}
