import {
  array,
  lazy,
  mixed,
  number,
  object,
  string,
  ValidationError,
  type AnyObject,
  type ISchema,
  type Lazy,
  type ObjectSchema,
  type Schema,
} from 'yup';

/*
 * The kinds of field a drive file has. Messages leave the path out: Yup carries it beside the message, and the reader
 * puts the two together. A zero or an absurd size is let through on purpose: the path solver answers it with a finding
 * that points at the pulley, while a refusal here would stop a half-finished job from being saved.
 */

/** What a figure of the file is counted in; a length is told in the shop's own unit. */
export type FieldUnit =
  'mm' | '°' | 'N' | 'N·m' | 'N·m per degree' | 'rev/min' | 'kW' | 'A' | 'Hz' | 's' | 'kg/m' | 'min' | 'km/h' | 'px';

/** What a field is called, and its unit where it has one. */
export interface FieldLabel {
  label: string;
  unit?: FieldUnit;
}

/** A field's schema with what the field is called, where a person reads of it. */
export interface Named<S> extends Partial<FieldLabel> {
  schema: S;
}

export const named = <S>(label: string, schema: S, unit?: FieldUnit): Named<S> => ({
  label,
  ...(unit && { unit }),
  schema,
});

/**
 * A schema and a name for each field of `T` and for nothing else: the compiler refuses one that is missing, odd, or too
 * wide.
 */
export type Fields<T> = { readonly [K in keyof Required<T>]: Named<ISchema<T[K]>> };

/** A number of what is said. Every number in the file has an end, so that every sum over it has one too. */
export const finite = (what = 'a number', max = 1e6) =>
  number()
    .strict()
    .typeError(`must be ${what}`)
    .test('finite', `must be ${what}`, (value) => value === undefined || value === null || Number.isFinite(value))
    .test(
      'bounded',
      `must be ${what} from −${max.toLocaleString('en')} to ${max.toLocaleString('en')}`,
      (value) => value === undefined || value === null || !Number.isFinite(value) || Math.abs(value) <= max,
    );

/** A hundred metres: more than any engine, and a mistake of a unit still goes in and is found. */
const MOST_MM = 100_000;
export const length = () => finite('a number of millimetres', MOST_MM);
export const size = () => length().min(0, 'must be 0 mm or more');
export const angle = () => finite('a number of degrees', 3600);
export const rpm = () =>
  finite('a speed in rev/min').min(0, 'must be 0 rev/min or more').max(200_000, 'must be 200,000 rev/min at most');
export const force = () => finite('a force in N', 200_000).min(0, 'must be 0 N or more');
export const amps = () => finite('a current in A').min(0, 'must be 0 A or more').max(5000, 'must be 5,000 A at most');
/** One standard deviation, in the unit of what it belongs to. */
export const plusMinus = () => finite().moreThan(0, 'must be more than 0');
/** A part of one whole, from 0. */
export const fraction = (max: number) => finite().min(0, 'must be 0 or more').max(max, `must be ${max} at most`);
export const wholeNumber = (what: string, max: number) =>
  finite(what)
    .integer(`must be ${what}`)
    .min(1, `must be ${what}, 1 or more`)
    .max(max, `must be ${what}, ${max} at most`);
export const text = (max: number) =>
  string().strict().typeError('must be text').max(max, `must be ${max} characters at most`);
export const id = () => text(80).required('is missing: every item needs an id').matches(/\S/, 'must not be blank');
export const yesOrNo = () =>
  mixed<boolean>().test(
    'boolean',
    'must be true or false',
    (value) => value === undefined || typeof value === 'boolean',
  );
export const oneOf = <T extends string>(values: readonly T[]) =>
  mixed<T>().oneOf([...values, undefined], `must be one of ${values.join(', ')}`);
export const needed = <S extends { required: (message: string) => unknown }>(schema: S) =>
  schema.required('is missing') as ReturnType<S['required']>;

/** One number of 0 or more, or a list of such. */
export const numberOrNumbers = (what: string) =>
  mixed<number | readonly number[]>().test('numbers', `must be ${what}`, (value) => {
    const isPart = (part: unknown) => typeof part === 'number' && part >= 0 && part <= MOST_MM;
    return value === undefined || isPart(value) || (Array.isArray(value) && value.length <= 40 && value.every(isPart));
  });
/** Nothing that this kind of item has, and so without a name; what stands there is let be. */
export const ignored = (): Named<ISchema<undefined>> => ({ schema: mixed() as unknown as ISchema<undefined> });

/** An object of these fields. What they are called goes with its schema (`meta.fields`), for `fileFields` to read. */
export function objectOf<T extends object>(fields: Fields<T>): ObjectSchema<T> {
  const all = Object.entries(fields as Record<string, Named<ISchema<unknown>>>);
  // Yup infers an object from its fields, where this one is told what it is; `Fields` has seen to it that both agree.
  const made = object(Object.fromEntries(all.map(([key, { schema }]) => [key, schema]))).strict();
  // Set on what nobody else holds yet: a `meta()` for each of 300 fields would make a copy of each.
  made.spec.meta = { fields };
  return made as unknown as ObjectSchema<T>;
}

/** Fields of one object that may be left out. */
export const record = <T extends object>(fields: Fields<T>) =>
  objectOf(fields).typeError('must be an object').default(undefined) as unknown as ObjectSchema<
    T | undefined,
    AnyObject,
    undefined
  >;

/** Fields of one object that has to be there. */
export const item = <T extends object>(fields: Fields<T>) =>
  record(fields).required('must be an object').nonNullable('must be an object') as unknown as ObjectSchema<T>;

export interface Point {
  readonly x: number;
  readonly y: number;
}
export const place = () =>
  record<Point>({
    x: named('right of the crank', needed(length()), 'mm'),
    y: named('above the crank', needed(length()), 'mm'),
  });
export const point = () => place().required('is missing: it needs x and y') as unknown as ObjectSchema<Point>;

/** The members of a union that may have `V` in the field that tells them apart, without that field. */
type Rest<T, K extends keyof T, V> = T extends unknown ? (V extends T[K] ? Omit<T, K> : never) : never;

/**
 * One of several shapes, told apart by one field, which is called `label`. What is none of them is refused by that
 * field; the fields that all of them have (`shared`) are then looked at all the same. `optional` lets it be left out.
 */
export function variants<T extends object, K extends keyof T & string>(
  by: K,
  label: string,
  shared: Partial<Fields<Omit<T, K>>>,
  shapes: { readonly [V in T[K] & string]: Fields<Rest<T, K, V>> },
  { optional = false, order = [by] as readonly string[] } = {},
): Lazy<T> {
  const values = Object.keys(shapes) as (T[K] & string)[];
  const kind = named(label, needed(oneOf(values)));
  const build = (fields: object) => {
    const all: Record<string, unknown> = { ...fields, [by]: kind };
    // Faults are told in the order of the fields.
    const first = Object.fromEntries(order.filter((key) => key in all).map((key) => [key, all[key]]));
    const joined = { ...first, ...all } as Fields<object>;
    return optional ? record(joined) : item(joined);
  };
  const fallback = build(shared);
  const built = new Map<unknown, typeof fallback>(values.map((value) => [value, build(shapes[value])]));
  const nothing = mixed();
  return lazy((value: unknown) => {
    if (optional && (value === undefined || value === null)) return nothing;
    return built.get((value as AnyObject | null | undefined)?.[by]) ?? fallback;
    // Read by what names the fields.
  }).meta({ shapes: [fallback, ...built.values()], needed: !optional } as Record<
    string,
    unknown
  >) as unknown as Lazy<T>;
}

/** More problems than these are not looked for. */
export const MOST_PROBLEMS = 20;

/**
 * A list whose items are looked at one after the other until enough problems are found. One that is too long is refused
 * as such, and none of its items is looked at: what a file costs to check is bounded by what a drive may hold, not by
 * what the file holds.
 */
const items = (
  item: { validateSync: (value: unknown, options: object) => unknown },
  max: number,
  beyond = `must have ${max} items at most`,
) =>
  array()
    .strict()
    .typeError('must be a list')
    .max(max, beyond)
    // Read by what holds an edit to these bounds.
    .meta({ max, item } as object)
    .test('items', (value, { path, options }) => {
      if (!Array.isArray(value) || value.length > max) return true;
      const found: ValidationError[] = [];
      for (const [k, part] of value.entries()) {
        try {
          // The way down is told by `path`, which Yup reads and does not name in its types.
          item.validateSync(part, { ...options, path: `${path}[${k}]` });
        } catch (error) {
          if (!(error instanceof ValidationError)) throw error;
          found.push(...(error.inner.length > 0 ? error.inner : [error]));
          if (found.length >= MOST_PROBLEMS) break;
        }
      }
      return found.length === 0 || new ValidationError(found, value, path, undefined, true);
    });

/** A list that may be left out; `beyond` says what is wrong with one that is too long. */
export const optionalList = <T>(item: ISchema<T> & Parameters<typeof items>[0], max: number, beyond?: string) =>
  items(item, max, beyond) as unknown as Schema<readonly T[] | undefined>;

/** A list that has to be there; `empty` says what an empty one lacks, where it may not be empty. */
export const list = <T>(
  item: ISchema<T> & Parameters<typeof items>[0],
  max: number,
  empty?: string,
  beyond?: string,
) => {
  const needs = items(item, max, beyond).required('is missing: it must be a list');
  return (empty === undefined ? needs : needs.min(1, empty)) as unknown as Schema<readonly T[]>;
};
