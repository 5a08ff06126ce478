import { fixed, habitsNow } from './habits';
import { editableNumber, readNumber } from './number';

/** What a torque is written in. Files always hold N·m. */
export const TORQUE_UNITS = ['nm', 'kgf-m', 'lbf-ft', 'lbf-in'] as const;
export type TorqueUnit = (typeof TORQUE_UNITS)[number];

/** N·m of one pound-force foot: the pound and standard gravity are exact by definition, and so is the foot. */
const NM_PER_LBF_FT = 0.45359237 * 9.80665 * 0.3048;
const NM_PER: Record<TorqueUnit, number> = {
  nm: 1,
  'kgf-m': 9.80665,
  'lbf-ft': NM_PER_LBF_FT,
  'lbf-in': NM_PER_LBF_FT / 12,
};
export const TORQUE_UNIT_WORDS: Record<TorqueUnit, string> = {
  nm: 'N·m',
  'kgf-m': 'kgf·m',
  'lbf-ft': 'lbf·ft',
  'lbf-in': 'lbf·in',
};

/** What was understood, in N·m and as it was written, or in plain words why nothing was. */
export type TorqueReading = { ok: true; nm: number; unit: TorqueUnit } | { ok: false; problem: string };

const ACCEPTED = 'Write a torque such as 47 N·m, 35 lbf·ft or 120 lbf·in.';
/** No bolt of a belt drive takes more, N·m. */
const MOST_NM = 2000;

const POUNDS = String.raw`(?:lbf?s?|pounds?)`;
const WRITTEN: readonly [TorqueUnit, RegExp][] = [
  ['nm', /^n[·.* -]?m$|^newton[ -]?met(?:re|er)s?$/],
  ['kgf-m', /^(?:kgf?|kp|kilograms?|kilopond)[·.* -]?m$|^m[·.* -]?(?:kgf?|kp)$|^kilogram-?force[ -]?met(?:re|er)s?$/],
  ['lbf-ft', new RegExp(`^${POUNDS}[·.* -]?(?:ft|feet|foot)$|^(?:ft|feet|foot)[·.* -]?${POUNDS}$`)],
  ['lbf-in', new RegExp(`^${POUNDS}[·.* -]?(?:in|inch|inches)$|^(?:in|inch|inches)[·.* -]?${POUNDS}$`)],
];

/** Reads a torque as it stands in a manual; a bare number is in `bareUnit`. Never throws. */
export function parseTorque(text: string, bareUnit: TorqueUnit = 'nm'): TorqueReading {
  const plain = text.normalize('NFKC').trim().toLowerCase().replace(/\s+/g, ' ');
  if (plain === '') return { ok: false, problem: `Nothing written yet. ${ACCEPTED}` };
  const [, figure, written] = /^([\d.,' ]*\d[.,]?) ?(.*)$/.exec(plain) ?? [];
  const unit = written === '' ? bareUnit : WRITTEN.find(([, pattern]) => pattern.test(written ?? ''))?.[0];
  if (figure === undefined || unit === undefined)
    return { ok: false, problem: `"${text.trim()}" is no torque. ${ACCEPTED}` };
  const value = readNumber(figure, { max: MOST_NM / NM_PER[unit] });
  if (!value.ok) return { ok: false, problem: `${value.problem} ${ACCEPTED}` };
  const nm = value.value * NM_PER[unit];
  if (!(nm > 0) || nm > MOST_NM)
    return { ok: false, problem: `A bolt takes more than 0 and ${MOST_NM} N·m at most. ${ACCEPTED}` };
  return { ok: true, nm, unit };
}

/** A torque in one unit: whole from 20 on, tenths under that (hundredths of a kgf·m); `47 N·m`. */
export function formatTorque(nm: number, unit: TorqueUnit): string {
  const value = nm / NM_PER[unit];
  const figure =
    value >= 20 && Math.abs(value - Math.round(value)) < 0.05
      ? fixed(value, 0)
      : fixed(value, unit === 'kgf-m' ? 2 : 1);
  return `${figure.replace(/[.,]0+$/, '')} ${TORQUE_UNIT_WORDS[unit]}`;
}

/** The text a field starts from: reads back to within a millionth. */
export function editableTorque(nm: number, unit: TorqueUnit): string {
  return `${editableNumber(Number((nm / NM_PER[unit]).toPrecision(7)))} ${TORQUE_UNIT_WORDS[unit]}`;
}

/** As the manual has it, else by the habits, with the other units beside it: `35 lbf·ft (47.5 N·m)`. */
export function torqueFigure(nm: number, given?: TorqueUnit): string {
  const pounds = nm < 15 ? 'lbf-in' : 'lbf-ft';
  const unit = given ?? (habitsNow().torque === 'nm' ? 'nm' : pounds);
  const other = unit === 'nm' ? pounds : 'nm';
  return `${formatTorque(nm, unit)} (${formatTorque(nm, other)})`;
}
