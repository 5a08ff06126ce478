import {
  array,
  lazy,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type AnySchema,
  type ISchema,
  type Lazy,
  ValidationError,
} from 'yup';
import { OVERRIDABLE, SECTION_NAMES, sectionFor } from '../section/sections';
import { LAYS, STATES, TOOLS } from '../size/measuring-tools';
import { DIAMETER_METHODS } from '../survey/diameters';
import { READING_KINDS } from '../survey/readings';
import { ROLES, SURFACES } from './types';

/*
 * Messages leave the path out: Yup carries it beside the message, and the reader puts the two together. A zero or an
 * absurd size is let through on purpose: the path solver answers it with a finding that points at the pulley, while a
 * refusal here would stop a half-finished job from being saved.
 */

/** A number of what is said. Every number in the file has an end, so that every sum over it has one too. */
const finite = (what = 'a number', most = 1e6) =>
  number()
    .strict()
    .typeError(`must be ${what}`)
    .test('finite', `must be ${what}`, (value) => value === undefined || value === null || Number.isFinite(value))
    .test(
      'bounded',
      `must be ${what} from −${most.toLocaleString('en')} to ${most.toLocaleString('en')}`,
      (value) => value === undefined || value === null || !Number.isFinite(value) || Math.abs(value) <= most,
    );
/** A hundred metres: more than any engine, and a slip of a unit still goes in and is found. */
const MOST_MM = 100_000;
const length = () => finite('a number of millimetres', MOST_MM);
const size = () => length().min(0, 'must be 0 mm or more');
const angle = () => finite('a number of degrees', 3600);
const whole = (what: string, most: number) =>
  finite(what)
    .integer(`must be ${what}`)
    .min(1, `must be ${what}, 1 or more`)
    .max(most, `must be ${what}, ${most} at most`);
const text = (most: number) =>
  string().strict().typeError('must be text').max(most, `must be ${most} characters at most`);
const id = () => text(80).required('is missing: every item needs an id').matches(/\S/, 'must not be blank');
const yesOrNo = () =>
  mixed().test('boolean', 'must be true or false', (value) => value === undefined || typeof value === 'boolean');
const oneOf = (values: readonly string[]) =>
  mixed<string>().oneOf([...values, undefined] as string[], `must be one of ${values.join(', ')}`);
const needed = <S extends AnySchema>(schema: S): S => schema.required('is missing');
/** Fields of one object. The shapes are typed by hand in `types.ts`, so Yup's own inference is not wanted here. */
type Fields = Record<string, ISchema<unknown, AnyObject>>;
/** More problems than these are not looked for. */
export const MOST_PROBLEMS = 20;

/**
 * A list whose items are looked at one after the other until enough problems are found. One that is too long is refused
 * as such, and none of its items is looked at: what a file costs to check is bounded by what a drive may hold, not by
 * what the file holds.
 */
const items = (item: AnySchema | Lazy<unknown>, most: number) =>
  array()
    .strict()
    .typeError('must be a list')
    .max(most, `must have ${most} items at most`)
    .test('items', (value, { path, options }) => {
      if (!Array.isArray(value) || value.length > most) return true;
      const found: ValidationError[] = [];
      for (const [k, one] of value.entries()) {
        try {
          // The way down is told by `path`, which Yup reads and does not name in its types.
          item.validateSync(one, { ...options, path: `${path}[${k}]` } as typeof options);
        } catch (error) {
          if (!(error instanceof ValidationError)) throw error;
          found.push(...(error.inner.length > 0 ? error.inner : [error]));
          if (found.length >= MOST_PROBLEMS) break;
        }
      }
      return found.length === 0 || new ValidationError(found, value, path, undefined, true);
    });
const list = (item: AnySchema | Lazy<unknown>, most: number) =>
  items(item, most).required('is missing: it must be a list');
const record = (fields: Fields) => object(fields).strict().typeError('must be an object').default(undefined);
const optionalList = items;
const item = (fields: Fields) => record(fields).required('must be an object').nonNullable('must be an object');

const point = () => record({ x: needed(length()), y: needed(length()) }).required('is missing: it needs x and y');

const ADJUSTER_FIELDS: Record<string, Fields> = {
  'sprung-arm': {
    pivot: point(),
    armLength: needed(size()),
    freeAngle: needed(angle()),
    fullAngle: needed(angle()),
    shortMark: angle(),
    longMark: angle(),
    springTorqueAtFree: finite(),
    springRate: finite(),
  },
  'slot-pivot': { pivot: point(), inAngle: needed(angle()), outAngle: needed(angle()) },
  slide: { direction: needed(angle()), travel: needed(length()) },
  turnbuckle: { pivot: point(), anchor: point(), lug: point(), minLength: needed(size()), maxLength: needed(size()) },
  shims: { shims: list(needed(size()), 40), spare: mixed() },
  fixed: {},
};
export const ADJUSTER_KINDS = Object.keys(ADJUSTER_FIELDS);

const adjuster = lazy((value: unknown) => {
  if (value === undefined || value === null) return mixed();
  const kind = (value as AnyObject)['kind'];
  return record({ kind: needed(oneOf(ADJUSTER_KINDS)), ...(typeof kind === 'string' ? ADJUSTER_FIELDS[kind] : {}) });
});

const pulley = lazy((value: unknown) => {
  const toothed = (value as AnyObject | null)?.['surface'] === 'toothed';
  return item({
    id: id(),
    surface: needed(oneOf(SURFACES)),
    diameter: toothed ? size() : needed(size()),
    grooves: whole('a whole number of grooves', 60),
    grooveAngle: angle().moreThan(0, 'must be more than 0°').lessThan(180, 'must be less than 180°'),
    ride: length(),
    teeth: toothed
      ? needed(
          finite('a whole number of teeth')
            .integer('must be a whole number of teeth')
            .min(0, 'must be 0 teeth or more')
            .max(10_000, 'must be 10,000 teeth at most'),
        )
      : mixed(),
    plane: length(),
  });
});

const rpm = () =>
  finite('a speed in rev/min').min(0, 'must be 0 rev/min or more').max(200_000, 'must be 200,000 rev/min at most');
const amps = () => finite('a current in A').min(0, 'must be 0 A or more').max(5000, 'must be 5,000 A at most');

const station = item({
  id: id(),
  role: needed(oneOf(ROLES)),
  label: text(80),
  x: needed(length()),
  y: needed(length()),
  requires: oneOf(['cw', 'ccw']),
  adjuster,
  optional: yesOrNo(),
  region: record({ x: needed(length()), y: needed(length()), radius: needed(size()) }),
  speedBand: record({ least: rpm().nullable(), continuous: rpm().nullable(), burst: rpm().nullable() }),
  output: optionalList(item({ rpm: needed(rpm()), amps: needed(amps()) }), 60),
  need: record({ rpm: needed(rpm()), engineRpm: needed(rpm()).moreThan(0, 'must be more than 0 rev/min') }),
  power: record({
    rpm: needed(rpm()).moreThan(0, 'must be more than 0 rev/min'),
    kw: needed(finite('a power in kW', 10_000).min(0, 'must be 0 kW or more')),
  }),
  pulleys: list(pulley, 12).min(1, 'must have one pulley or more'),
});

const obstacle = item({
  id: id(),
  label: text(80),
  x: needed(length()),
  y: needed(length()),
  to: record({ x: needed(length()), y: needed(length()) }),
  diameter: needed(size()),
  plane: length(),
});

const routeStop = item({ pulley: id(), side: needed(oneOf(['drive', 'back'])) });

const measurement = item({
  id: id(),
  tool: needed(oneOf(TOOLS)),
  mm: needed(size()),
  state: oneOf(STATES),
  lay: oneOf(LAYS),
  doubled: yesOrNo(),
  thickness: size(),
  stretch: finite().min(0, 'must be 0 or more').max(0.2, 'must be 0.2 at most'),
  worn: finite().min(0, 'must be 0 or more').max(0.2, 'must be 0.2 at most'),
  circumference: size(),
  plusMinus: finite().moreThan(0, 'must be more than 0'),
});

const belt = item({
  id: id(),
  section: needed(text(40)).test(
    'known',
    `must be one of ${SECTION_NAMES.join(', ')}`,
    (value) => value === undefined || sectionFor(value) !== null,
  ),
  ribs: whole('a whole number of ribs', 60),
  length: size().nullable(),
  reserve: finite().min(0, 'must be 0 or more').max(0.05, 'must be 0.05 at most'),
  measurements: optionalList(measurement, 40),
  sectionOverrides: record(Object.fromEntries(OVERRIDABLE.map((key) => [key, finite()]))),
  route: list(routeStop, 128),
});

const reading = lazy((value: unknown) => {
  const kind = (value as AnyObject | null)?.['kind'];
  const angular = kind === 'angle';
  const between = kind === 'outer' || kind === 'gap' || kind === 'centre' || angular;
  return item({
    id: id(),
    kind: needed(oneOf(READING_KINDS)),
    from: between ? id() : mixed(),
    to: id(),
    mm: angular ? mixed() : needed(between ? size() : length()),
    deg: angular ? needed(angle()) : mixed(),
    plusMinus: finite().moreThan(0, 'must be more than 0'),
  });
});

const diameter = lazy((value: unknown) =>
  item({
    id: id(),
    pulley: id(),
    method: needed(oneOf(DIAMETER_METHODS)),
    mm: needed(size()),
    plusMinus: finite().moreThan(0, 'must be more than 0'),
    of: (value as AnyObject | null)?.['method'] === 'step' ? id() : mixed(),
    at: text(40),
  }),
);

/** Five times the widest picture. */
const MOST_PX = 100_000;
const isPoint = (value: unknown) =>
  Array.isArray(value) &&
  value.length === 2 &&
  value.every((part) => Number.isFinite(part) && Math.abs(part as number) <= MOST_PX);
/** By the thousand in a drive of many pictures, so each is looked at without a schema of its own. */
const pictureOutline = array()
  .strict()
  .typeError('must be a list')
  .required('is missing: it must be a list')
  .max(200, 'must have 200 items at most')
  .test('points', (value, { path, createError }) => {
    const wrong = value.length > 200 ? -1 : value.findIndex((point) => !isPoint(point));
    return (
      wrong < 0 ||
      createError({
        path: `${path}[${wrong}]`,
        message: `must be a point, [x, y] in px, each from −${MOST_PX.toLocaleString('en')} to ${MOST_PX.toLocaleString('en')}`,
      })
    );
  });
const rim = item({ pulley: id(), points: pictureOutline, known: yesOrNo() });
const photo = item({
  id: id(),
  hash: text(64)
    .required('is missing')
    .matches(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal'),
  width: whole('a whole number of px', 20_000).required('is missing'),
  height: whole('a whole number of px', 20_000).required('is missing'),
  cameraDistance: length().moreThan(0, 'must be more than 0 mm'),
  cropped: yesOrNo(),
  rims: optionalList(rim, 64),
});

const useBin = item({
  from: needed(rpm()),
  to: needed(rpm()),
  share: needed(finite('a share of the time').min(0, 'must be 0 or more')),
});
const use = record({
  name: text(80),
  bins: list(useBin, 200),
  kmPerHour: finite('a speed in km/h').moreThan(0, 'must be more than 0 km/h').max(500, 'must be 500 km/h at most'),
});
const load = item({ id: id(), name: text(80), amps: needed(amps()), on: yesOrNo() });
const speedCheck = item({
  id: id(),
  station: id(),
  crankRpm: needed(rpm()),
  rpm: needed(rpm()),
  plusMinus: finite().moreThan(0, 'must be more than 0'),
  simulated: yesOrNo(),
  at: text(40),
});

export const driveSchema = object({
  format: mixed().test('format', 'must be "emery-drive"', (value) => value === 'emery-drive'),
  name: text(200),
  crankRotation: needed(oneOf(['cw', 'ccw'])),
  speeds: record({ idle: rpm(), cruise: rpm(), redline: rpm() }),
  stations: list(station, 64),
  obstacles: optionalList(obstacle, 64),
  survey: record({
    readings: optionalList(reading, 400),
    diameters: optionalList(diameter, 400),
    photos: optionalList(photo, 24),
  }),
  use,
  loads: optionalList(load, 100),
  speedChecks: optionalList(speedCheck, 200),
  belts: list(belt, 16),
}).strict();
