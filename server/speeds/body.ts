import { mixed, number, object, string } from '../http/fields';
import { invalid, readBody } from '../http/problem';
import type { PulleyRow, SpeedBandRow } from './entity';
import { type Role, ROLES } from '@emery/core/drive';
import { type Surface, SURFACES } from '@emery/core/section';

/*
 * Speed bands and pulleys at hand, as they are typed and as archives carry them: one check for both ways in.
 */
const rpm = number()
  .typeError('must be a speed in rev/min')
  .min(0, 'must be 0 rev/min or more')
  .max(200_000, 'must be 200,000 rev/min at most')
  .nullable()
  .defined('is missing: a speed in rev/min, or null for none');
const bandBody = object({ least: rpm, continuous: rpm, burst: rpm }).required();

/** The most pulleys at hand that a shop keeps. */
export const MOST_PULLEYS = 500;

/** A speed band as it was sent; refuses with 422 what is none. */
export function readBand(role: Role, body: unknown): SpeedBandRow {
  const { least, continuous, burst } = readBody(bandBody, body);
  const rising = [least, continuous, burst].filter((value): value is number => value !== null);
  if (rising.some((value, k) => k > 0 && value < rising[k - 1]!))
    throw invalid([
      { path: 'burst', message: 'must not be below the speeds before it: least, continuous, burst rise' },
    ]);
  return { role, least, continuous, burst };
}

export const isRole = (text: unknown): text is Role => ROLES.includes(text as Role);

const integer = (what: string, max: number) =>
  number()
    .typeError(`must be ${what}`)
    .integer(`must be ${what}`)
    .min(1, `must be ${what}, 1 or more`)
    .max(max, `must be ${what}, ${max} at most`)
    .nullable();
const oneOf = (values: readonly string[]) =>
  mixed<string>()
    .oneOf(values, `must be one of ${values.join(', ')}`)
    .nullable();
const pulleyBody = object({
  label: string().max(120, 'must be 120 characters at most').matches(/\S/, 'needs a name').required('is missing'),
  role: oneOf(ROLES),
  surface: oneOf(SURFACES).required('is missing'),
  diameter: number()
    .typeError('must be a number of millimetres')
    .moreThan(0, 'must be more than 0 mm')
    .max(2000, 'must be 2,000 mm at most')
    .nullable(),
  teeth: integer('a whole number of teeth', 400),
  grooves: integer('a whole number of grooves', 60),
  set: string().max(80, 'must be 80 characters at most').nullable(),
  count: integer('a whole number of pulleys', 1000),
}).required();

/** A pulley at hand as it was sent; refuses with 422 what is none. */
export function readPulley(body: unknown): Omit<PulleyRow, 'id' | 'createdAt'> {
  const { label, role, surface, diameter, teeth, grooves, set, count } = readBody(pulleyBody, body);
  const toothed = surface === 'toothed';
  if (toothed ? !teeth : !diameter)
    throw invalid([
      toothed
        ? { path: 'teeth', message: 'are missing: a toothed pulley is counted' }
        : { path: 'diameter', message: 'is missing' },
    ]);
  return {
    label: label.trim(),
    role: (role ?? null) as Role | null,
    surface: surface as Surface,
    diameter: diameter ?? null,
    teeth: teeth ?? null,
    grooves: grooves ?? null,
    setName: set?.trim() || null,
    pieces: count ?? 1,
  };
}
