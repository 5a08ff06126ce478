import { formatLength, type LengthUnit } from '../quantity';
import type { Belt } from './belt';
import type { Drive } from './drive';
import { type FieldLabel, fieldLabel } from './field-labels';
import {
  DIAMETER_WORDS,
  INSPECT_CHECK_NAMES,
  NOISE_TEST_NAMES,
  READING_WORDS,
  TENSION_WAY_WORDS,
  TOOL_WORDS,
} from './labels';
import type { Check } from './inspect';
import { obstacleLabel, pulleyLabel, stationLabel } from './look-up';
import type { NoiseTest } from './noise';
import type { Station } from './station';
import type { DiameterReading, SurveyReading } from './survey';
import type { TensionWay } from './tension';

/** One thing that is not the same in two drives. */
export interface DriveDifference {
  /** Where in the file, such as `stations.alt.x`, with ids in place of numbers where items have them. */
  path: string;
  /** The part of the drive it belongs to, as a heading. */
  part: string;
  /** What differs, in plain words. */
  text: string;
}

type Json = Record<string, unknown>;

/** A list whose items are known by a field of their own, and what one of them is called. */
interface Kind {
  part: string;
  /** Many of them, for a change of their order. */
  many: string;
  /** The field they are known by, or what else tells one from another. */
  id: string | ((item: Json) => string);
  name: (item: Json, drive: Drive) => string;
  /** What is called differently in it than elsewhere. */
  lists?: Record<string, Kind>;
}

const PULLEY: Kind = {
  part: 'Shafts and pulleys',
  many: 'sheaves',
  id: 'id',
  name: (item, drive) => pulleyLabel(drive, item['id'] as string),
};
const MEASUREMENT: Kind = {
  part: 'Belts',
  many: 'measurements',
  id: 'id',
  name: ({ tool }) => (TOOL_WORDS as Record<string, { name: string }>)[tool as string]?.name ?? String(tool),
};
const TENSION_READING: Kind = {
  part: 'Tension readings',
  many: 'tension readings',
  id: 'id',
  name: ({ way, span }, drive) => {
    const { from, to } = (span ?? {}) as { from?: string; to?: string };
    const where = from && to ? `, ${pulleyLabel(drive, from)} to ${pulleyLabel(drive, to)}` : '';
    return `${TENSION_WAY_WORDS[way as TensionWay]?.name ?? String(way)}${where}`;
  },
};
const TORQUE: Kind = {
  part: 'Shafts and pulleys',
  many: 'states',
  id: 'state',
  name: ({ state }) => `torque, ${String(state)}`,
};
const RIM: Kind = {
  part: 'Pictures',
  many: 'rims',
  id: 'pulley',
  name: ({ pulley }, drive) => `rim of ${pulleyLabel(drive, pulley as string)}`,
};
const KINDS: Record<string, Kind> = {
  stations: {
    part: 'Shafts and pulleys',
    many: 'shafts',
    id: 'id',
    name: (item) => stationLabel(item as unknown as Station),
    lists: { pulleys: PULLEY, torque: TORQUE },
  },
  obstacles: {
    part: 'Obstacles',
    many: 'obstacles',
    id: 'id',
    name: ({ id }, drive) => obstacleLabel(drive, id as string),
  },
  readings: {
    part: 'Tapes',
    many: 'tapes',
    id: 'id',
    name: (item, drive) => tapeName(item as unknown as SurveyReading, drive),
  },
  diameters: {
    part: 'Diameters',
    many: 'diameter readings',
    id: 'id',
    name: (item, drive) => diameterName(item as unknown as DiameterReading, drive),
  },
  photos: {
    part: 'Pictures',
    many: 'pictures',
    id: 'id',
    name: ({ id }) => `Picture ${String(id)}`,
    lists: { rims: RIM },
  },
  belts: {
    part: 'Belts',
    many: 'belts',
    id: 'id',
    name: (item, drive) => beltName(item as unknown as Belt, drive),
    lists: { measurements: MEASUREMENT, tensionReadings: TENSION_READING },
  },
  loads: { part: 'Electrical loads', many: 'loads', id: 'id', name: ({ name, id }) => String(name || id) },
  speedChecks: {
    part: 'Speed checks',
    many: 'checks',
    id: 'id',
    name: ({ station, rpm }, drive) =>
      `${stationLabel(drive.stations.find(({ id }) => id === station) ?? ({ role: 'other' } as Station))} at ${Number(rpm).toFixed(0)} rev/min`,
  },
};

/** What stands under `align`; moves have no id of their own, and differ as a whole. */
const ofPulley = (many: string): Kind => ({
  part: 'Alignment',
  many,
  id: 'id',
  name: ({ pulley, id }, drive) => `${pulleyLabel(drive, pulley as string)}, ${String(id)}`,
});
const ALIGN_KINDS: Record<string, Kind> = {
  readings: ofPulley('readings'),
  stacks: ofPulley('stacks'),
  done: ofPulley('moves done'),
  tracks: {
    ...ofPulley('tracks'),
    id: 'pulley',
    name: ({ pulley }, drive) => `Track on ${pulleyLabel(drive, pulley as string)}`,
  },
};

const partName = (drive: Drive, id: unknown) => {
  const belt = drive.belts.find((one) => one.id === id);
  return belt ? beltName(belt, drive) : pulleyLabel(drive, String(id));
};
const NOISE_KINDS_OF: Record<string, Kind> = {
  evidence: {
    part: 'Noise',
    many: 'observations',
    id: ({ test, pulley, belt, past, at }) => [test, pulley ?? belt, past && at].filter(Boolean).join(' '),
    name: ({ test, pulley, belt }, drive) => {
      const part = pulley ?? belt;
      const name = NOISE_TEST_NAMES[test as NoiseTest] ?? String(test);
      return part === undefined ? name : `${name}, ${partName(drive, part)}`;
    },
  },
  clips: { part: 'Noise', many: 'sounds', id: 'id', name: ({ id, name }) => `Sound ${String(name ?? id)}` },
  cures: { part: 'Noise', many: 'cures', id: 'id', name: ({ part }, drive) => `Repair of ${partName(drive, part)}` },
};
const checkName = (check: unknown) => INSPECT_CHECK_NAMES[check as Check] ?? String(check);
const INSPECT_KINDS: Record<string, Kind> = {
  findings: {
    part: 'Inspection',
    many: 'findings',
    id: 'id',
    name: ({ target, check, at }, drive) =>
      `${partName(drive, target)}, ${checkName(check)}${typeof at === 'string' ? ` of ${at.slice(0, 10)}` : ''}`,
  },
  changed: {
    part: 'Inspection',
    many: 'parts changed',
    id: 'id',
    name: ({ target }, drive) => `Change of ${partName(drive, target)}`,
  },
  skipped: {
    part: 'Inspection',
    many: 'parts skipped',
    id: ({ on, target }) => `${String(on)} ${String(target)}`,
    name: ({ target }, drive) => `${partName(drive, target)}, skipped`,
  },
  shop: {
    part: 'Inspection',
    many: 'limits of the shop',
    id: ({ check, section, material, kind }) => [check, section, material, kind].map(String).join(' '),
    name: ({ check }) => `Limit of the shop, ${checkName(check)}`,
  },
  limits: { part: 'Inspection', many: 'limits', id: 'check', name: ({ check }) => `Limit, ${checkName(check)}` },
};
const JOB_KINDS: Record<string, Kind> = {
  bolts: {
    part: 'Job card',
    many: 'bolts',
    id: 'id',
    name: ({ name, station }, drive) =>
      `Bolt ${typeof name === 'string' && name !== '' ? name : `of ${shaftName(drive, station)}`}`,
  },
  own: { part: 'Job card', many: 'own steps', id: 'id', name: ({ text }) => `Step "${String(text).slice(0, 40)}"` },
  words: { part: 'Job card', many: 'steps reworded', id: 'step', name: ({ step }) => `Step ${String(step)}` },
};
const shaftName = (drive: Drive, id: unknown) => {
  const station = drive.stations.find((one) => one.id === id);
  return station ? stationLabel(station) : String(id);
};
/** What stands in fields of the drive itself, with a heading of its own. */
const PARTS: Record<string, { part: string; lists: Record<string, Kind> }> = {
  align: { part: 'Alignment', lists: ALIGN_KINDS },
  survey: { part: 'Survey', lists: KINDS },
  noise: { part: 'Noise', lists: NOISE_KINDS_OF },
  inspect: { part: 'Inspection', lists: INSPECT_KINDS },
  job: { part: 'Job card', lists: JOB_KINDS },
};

/**
 * All that differs between two versions of one drive, in plain words for the person who has to choose between them:
 * what only one of them has, and what both have and tell differently, fields that Emery does not know included. The two
 * are called by the names given. Empty where they are the same.
 */
export function driveDifferences(
  mine: Drive,
  theirs: Drive,
  unit: LengthUnit,
  [ours, others] = ['yours', 'theirs'],
): DriveDifference[] {
  const found: DriveDifference[] = [];
  const tell = (path: string, part: string, name: string, text: string) =>
    found.push({ path, part, text: name === '' ? text : `${name}: ${text}` });

  const value = (counted: FieldLabel['unit'], of: unknown): string => {
    if (of === undefined || of === null) return 'nothing';
    if (typeof of === 'number' && counted === 'mm') return formatLength(of, unit);
    if (typeof of === 'number') return counted === '°' ? `${of}°` : [of, counted].filter(Boolean).join(' ');
    if (typeof of === 'boolean') return of ? 'yes' : 'no';
    if (of === 'cw' || of === 'ccw') return of === 'cw' ? 'clockwise' : 'counter-clockwise';
    if (typeof of === 'string') return `"${of.length > 60 ? `${of.slice(0, 60)} …` : of}"`;
    return Array.isArray(of) ? `${of.length} ${of.length === 1 ? 'entry' : 'entries'}` : 'other figures';
  };
  const scalar = (
    path: string,
    part: string,
    name: string,
    { label: word, unit: counted }: FieldLabel,
    a: unknown,
    b: unknown,
  ) => {
    let [yours, other] = [value(counted, a), value(counted, b)];
    // Nearer together than the eye is shown.
    if (yours === other && typeof a === 'number' && typeof b === 'number') [yours, other] = [String(a), String(b)];
    tell(path, part, name, yours === other ? `${word} differs` : `${word} ${yours} in ${ours}, ${other} in ${others}`);
  };

  // `holder` is the way by the names of lists and fields alone, without ids: what labels go by.
  const object = (
    a: Json,
    b: Json,
    path: string,
    holder: string,
    part: string,
    name: string,
    lists: Record<string, Kind>,
  ) => {
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
      const [left, right] = [a[key], b[key]];
      if (same(left, right)) continue;
      const at = path === '' ? key : `${path}.${key}`;
      const within = holder === '' ? key : `${holder}.${key}`;
      const label = fieldLabel(holder, key);
      const kind = lists[key];
      const before = found.length;
      if (kind && isListOrMissing(left) && isListOrMissing(right))
        list((left ?? []) as Json[], (right ?? []) as Json[], at, within, kind, kind.part === part ? name : '');
      else if (path === '' && PARTS[key])
        object((left ?? {}) as Json, (right ?? {}) as Json, at, within, PARTS[key].part, '', PARTS[key].lists);
      else if (isRecord(left) && isRecord(right))
        object(left, right, at, within, part, [name, label.label].filter(Boolean).join(', '), {});
      // What only one of them has, and is empty there, is a difference all the same.
      if (found.length === before) scalar(at, kind?.part ?? part, name, label, left, right);
    }
  };
  const list = (a: readonly Json[], b: readonly Json[], path: string, holder: string, kind: Kind, within: string) => {
    const idOf = (item: Json) => (typeof kind.id === 'string' ? item[kind.id] : kind.id(item));
    const [left, right] = [new Map(a.map((item) => [idOf(item), item])), new Map(b.map((item) => [idOf(item), item]))];
    const called = (item: Json, drive: Drive) =>
      [within, kind.name(item, drive)]
        .filter(Boolean)
        .filter((word, k, all) => word !== all[k - 1])
        .join(', ');
    for (const [id, item] of left) {
      const other = right.get(id);
      if (!other) tell(`${path}.${String(id)}`, kind.part, called(item, mine), `only in ${ours}`);
      else if (!same(item, other))
        object(item, other, `${path}.${String(id)}`, holder, kind.part, called(item, mine), kind.lists ?? {});
    }
    for (const [id, item] of right)
      if (!left.has(id)) tell(`${path}.${String(id)}`, kind.part, called(item, theirs), `only in ${others}`);
    const [order, otherOrder] = [
      [...left.keys()].filter((id) => right.has(id)),
      [...right.keys()].filter((id) => left.has(id)),
    ];
    if (!same(order, otherOrder)) tell(path, kind.part, within, `the ${kind.many} are in another order`);
  };
  object(plain(mine), plain(theirs), '', '', 'The drive', '', KINDS);
  return found;
}

/** As it is written to a file: without what is undefined. */
const plain = (drive: Drive): Json => JSON.parse(JSON.stringify(drive)) as Json;
const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isListOrMissing = (value: unknown) => value === undefined || (Array.isArray(value) && value.every(isRecord));

/** The same as JSON, whatever the order of an object's fields. */
function same(a: unknown, b: unknown): boolean {
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, k) => same(item, b[k]));
  if (!isRecord(a) || !isRecord(b)) return a === b;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && same(a[key], b[key]));
}

function tapeName({ kind, from, to }: SurveyReading, drive: Drive): string {
  const words = READING_WORDS[kind] ?? kind;
  return from === undefined
    ? `${pulleyLabel(drive, to)}, ${words}`
    : `${pulleyLabel(drive, from)} to ${pulleyLabel(drive, to)}, ${words}`;
}

function diameterName({ pulley, method }: DiameterReading, drive: Drive): string {
  return `${pulleyLabel(drive, pulley)}, ${(DIAMETER_WORDS[method]?.name ?? method).toLowerCase()}`;
}

function beltName(belt: Belt, drive: Drive): string {
  return drive.belts.length > 1 ? `Belt ${drive.belts.findIndex(({ id }) => id === belt.id) + 1}` : 'Belt';
}
