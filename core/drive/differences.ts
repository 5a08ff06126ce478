import { formatLength, type LengthUnit } from '../quantity';
import type { Belt } from './belt';
import type { Drive } from './drive';
import { fieldLabel } from './field-labels';
import type { FieldLabel } from './fields';
import {
  DIAMETER_WORDS,
  INSPECT_CHECK_NAMES,
  NOISE_TEST_NAMES,
  onTheBelt,
  READING_WORDS,
  TENSION_WAY_WORDS,
  TOOL_WORDS,
  TRIED_LIST_WORDS,
} from './labels';
import type { Check } from './inspect';
import { itemsOf, type ListName, type ListWay, rulesOf } from './lists';
import { same } from './same';
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
  /** Of a field that both have or could have: what it is called, and how either tells it. */
  field?: { name: string; ours: string; others: string };
}

type Json = Record<string, unknown>;

/** What a list and its items are called, and how its items are known. */
interface Kind {
  /** Many of them, for a change of their order. */
  many: string;
  /** What tells one from another, where that is not the field that `LISTS` says. */
  id?: (item: Json) => string;
  name: (item: Json, drive: Drive) => string;
}

/** Lists that `LISTS` has no rules for: nothing names their items, and they name nothing. */
type FreeList = 'stations.torque' | 'belts.measurements' | 'inspect.limits' | 'inspect.shop';

const partName = (drive: Drive, id: unknown) => {
  const belt = drive.belts.find((belt) => belt.id === id);
  return belt ? beltName(belt, drive) : pulleyLabel(drive, String(id));
};
const shaftName = (drive: Drive, id: unknown) => {
  const station = drive.stations.find((station) => station.id === id);
  return station ? stationLabel(station) : String(id);
};
const checkName = (check: unknown) => INSPECT_CHECK_NAMES[check as Check] ?? String(check);
/** An item by its place in its list, from 1. */
const placeIn = (list: ListName, { id }: Json, drive: Drive) =>
  itemsOf(drive, list).findIndex((item) => item.id === id) + 1;
const numbered =
  (list: ListName, what: string): Kind['name'] =>
  (item, drive) =>
    `${pulleyLabel(drive, item['pulley'] as string)}, ${what} ${placeIn(list, item, drive)}`;

/** Every list of the document by the way to it; null for one whose items are known by their place, told as a whole. */
const KINDS: Readonly<Record<ListWay | FreeList, Kind | null>> = {
  stations: { many: 'shafts', name: (item) => stationLabel(item as unknown as Station) },
  'stations.pulleys': { many: 'sheaves', name: ({ id }, drive) => pulleyLabel(drive, id as string) },
  'stations.torque': {
    many: 'states',
    id: ({ state }) => String(state),
    name: ({ state }) => `torque, ${String(state)}`,
  },
  obstacles: { many: 'obstacles', name: ({ id }, drive) => obstacleLabel(drive, id as string) },
  'survey.readings': { many: 'tapes', name: (item, drive) => tapeName(item as unknown as SurveyReading, drive) },
  'survey.diameters': {
    many: 'diameter readings',
    name: (item, drive) => diameterName(item as unknown as DiameterReading, drive),
  },
  'survey.photos': {
    many: 'pictures',
    name: (item, drive) => `Picture ${placeIn('survey.photos', item, drive)}`,
  },
  'survey.photos.rims': {
    many: 'rims',
    name: ({ pulley }, drive) => `rim of ${pulleyLabel(drive, pulley as string)}`,
  },
  belts: { many: 'belts', name: (item, drive) => beltName(item as unknown as Belt, drive) },
  'belts.measurements': {
    many: 'measurements',
    id: ({ id }) => String(id),
    name: ({ tool }) => (TOOL_WORDS as Record<string, { name: string }>)[tool as string]?.name ?? String(tool),
  },
  'belts.route': {
    many: 'pulleys',
    id: ({ pulley }) => String(pulley),
    name: ({ pulley }, drive) => onTheBelt(pulleyLabel(drive, pulley as string)),
  },
  'belts.tensionReadings': {
    many: 'tension readings',
    name: ({ way, span }, drive) => {
      const { from, to } = (span ?? {}) as { from?: string; to?: string };
      const where = from && to ? `, ${pulleyLabel(drive, from)} to ${pulleyLabel(drive, to)}` : '';
      return `${TENSION_WAY_WORDS[way as TensionWay]?.name ?? String(way)}${where}`;
    },
  },
  'belts.tried': {
    many: TRIED_LIST_WORDS.many,
    name: ({ marking, lengthMm }) =>
      TRIED_LIST_WORDS.name(typeof lengthMm === 'number' ? `${lengthMm} mm` : String(marking)),
  },
  loads: { many: 'loads', name: ({ name, id }) => String(name || id) },
  speedChecks: {
    many: 'checks',
    name: ({ station, rpm }, drive) =>
      `${stationLabel(drive.stations.find(({ id }) => id === station) ?? ({ role: 'other' } as Station))} at ${Number(rpm).toFixed(0)} rev/min`,
  },
  'align.readings': { many: 'readings', name: numbered('align.readings', 'reading') },
  'align.moves': null,
  'align.stacks': { many: 'stacks', name: numbered('align.stacks', 'stack') },
  'align.tracks': {
    many: 'tracks',
    name: ({ pulley }, drive) => `Track on ${pulleyLabel(drive, pulley as string)}`,
  },
  'align.done': { many: 'moves done', name: numbered('align.done', 'move') },
  'noise.evidence': {
    many: 'observations',
    id: ({ test, pulley, belt, past, at }) => [test, pulley ?? belt, past && at].filter(Boolean).join(' '),
    name: ({ test, pulley, belt }, drive) => {
      const part = pulley ?? belt;
      const name = NOISE_TEST_NAMES[test as NoiseTest] ?? String(test);
      return part === undefined ? name : `${name}, ${partName(drive, part)}`;
    },
  },
  'noise.clips': {
    many: 'sounds',
    name: (item, drive) => `Sound ${String(item['name'] ?? placeIn('noise.clips', item, drive))}`,
  },
  'noise.cures': { many: 'cures', name: ({ part }, drive) => `Repair of ${partName(drive, part)}` },
  'inspect.findings': {
    many: 'findings',
    name: ({ target, check, at }, drive) =>
      `${partName(drive, target)}, ${checkName(check)}${typeof at === 'string' ? ` of ${at.slice(0, 10)}` : ''}`,
  },
  'inspect.changed': { many: 'parts changed', name: ({ target }, drive) => `Change of ${partName(drive, target)}` },
  'inspect.skipped': {
    many: 'parts skipped',
    id: ({ on, target }) => `${String(on)} ${String(target)}`,
    name: ({ target }, drive) => `${partName(drive, target)}, skipped`,
  },
  'inspect.shop': {
    many: 'limits of the shop',
    id: ({ check, section, material, kind }) => [check, section, material, kind].map(String).join(' '),
    name: ({ check }) => `Limit of the shop, ${checkName(check)}`,
  },
  'inspect.limits': {
    many: 'limits',
    id: ({ check }) => String(check),
    name: ({ check }) => `Limit, ${checkName(check)}`,
  },
  'job.bolts': {
    many: 'bolts',
    name: ({ name, station }, drive) =>
      `Bolt ${typeof name === 'string' && name !== '' ? name : `of ${shaftName(drive, station)}`}`,
  },
  'job.own': { many: 'own steps', name: ({ text }) => `Step "${String(text).slice(0, 40)}"` },
  'job.words': { many: 'steps reworded', name: ({ step }) => `Step ${String(step)}` },
};

/** Headings, by the way to what stands under each; what has none stands under that of what holds it. */
const HEADINGS: Readonly<Record<string, string>> = {
  stations: 'Shafts and pulleys',
  obstacles: 'Obstacles',
  survey: 'Survey',
  'survey.readings': 'Tapes',
  'survey.diameters': 'Diameters',
  'survey.photos': 'Pictures',
  belts: 'Belts',
  'belts.tensionReadings': 'Tension readings',
  'belts.tried': TRIED_LIST_WORDS.heading,
  loads: 'Electrical loads',
  speedChecks: 'Speed checks',
  align: 'Alignment',
  noise: 'Noise',
  inspect: 'Inspection',
  job: 'Job card',
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
  names: readonly [ours: string, others: string] = ['yours', 'theirs'],
): DriveDifference[] {
  const differences = new Differences(mine, theirs, unit, names);
  differences.ofObjects(plain(mine), plain(theirs), { path: '', holder: '', part: 'The drive', name: '' });
  return differences.found;
}

/** Where something stands, and what is said before it. */
interface Place {
  path: string;
  /** The way by the names of lists and fields alone, without ids: what labels go by. */
  holder: string;
  part: string;
  name: string;
}

class Differences {
  readonly found: DriveDifference[] = [];

  constructor(
    private readonly mine: Drive,
    private readonly theirs: Drive,
    private readonly unit: LengthUnit,
    private readonly names: readonly [ours: string, others: string],
  ) {}

  ofObjects(a: Json, b: Json, { path, holder, part, name }: Place): void {
    for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
      const [left, right] = [own(a, key), own(b, key)];
      if (same(left, right)) continue;
      const label = fieldLabel(holder, key);
      const within = holder === '' ? key : `${holder}.${key}`;
      const heading = own(HEADINGS, within) ?? part;
      const at = { path: path === '' ? key : `${path}.${key}`, holder: within, part: heading, name };
      const kind = own<Kind | null>(KINDS, within) ?? null;
      const before = this.found.length;
      if (kind && isListOrMissing(left) && isListOrMissing(right))
        this.ofLists((left ?? []) as Json[], (right ?? []) as Json[], kind, {
          ...at,
          name: heading === part ? name : '',
        });
      else if (path === '' && heading !== part && isRecordOrMissing(left) && isRecordOrMissing(right))
        this.ofObjects((left ?? {}) as Json, (right ?? {}) as Json, { ...at, name: '' });
      else if (isRecord(left) && isRecord(right))
        this.ofObjects(left, right, { ...at, name: [name, label.label].filter(Boolean).join(', ') });
      // What only one of them has, and is empty there, is a difference all the same.
      if (this.found.length === before) this.ofValues(left, right, label, at);
    }
  }

  private ofLists(a: readonly Json[], b: readonly Json[], kind: Kind, at: Place): void {
    const [ours, others] = this.names;
    const field = rulesOf(at.holder)?.id ?? 'id';
    const idOf = (item: Json) => (kind.id ? kind.id(item) : item[field]);
    const [left, right] = [new Map(a.map((item) => [idOf(item), item])), new Map(b.map((item) => [idOf(item), item]))];
    const placed = (id: unknown, item: Json, drive: Drive): Place => ({
      ...at,
      path: `${at.path}.${String(id)}`,
      name: [at.name, kind.name(item, drive)]
        .filter(Boolean)
        .filter((word, k, all) => word !== all[k - 1])
        .join(', '),
    });
    for (const [id, item] of left) {
      const other = right.get(id);
      if (!other) this.tell(placed(id, item, this.mine), `only in ${ours}`);
      else if (!same(item, other)) this.ofObjects(item, other, placed(id, item, this.mine));
    }
    for (const [id, item] of right) if (!left.has(id)) this.tell(placed(id, item, this.theirs), `only in ${others}`);
    const [order, otherOrder] = [
      [...left.keys()].filter((id) => right.has(id)),
      [...right.keys()].filter((id) => left.has(id)),
    ];
    if (!same(order, otherOrder)) this.tell(at, `the ${kind.many} are in another order`);
  }

  private ofValues(a: unknown, b: unknown, { label, unit }: FieldLabel, at: Place): void {
    const [ours, others] = this.names;
    let [yours, other] = [this.valueWords(unit, a), this.valueWords(unit, b)];
    // Nearer together than the eye is shown.
    if (yours === other && typeof a === 'number' && typeof b === 'number') [yours, other] = [String(a), String(b)];
    const name = [at.name, label].filter(Boolean).join(', ');
    if (yours === other) this.tell(at, `${label} differs`);
    else this.tell(at, `${label} ${yours} in ${ours}, ${other} in ${others}`, { name, ours: yours, others: other });
  }

  private valueWords(counted: FieldLabel['unit'], value: unknown): string {
    if (value === undefined || value === null) return 'nothing';
    if (typeof value === 'number' && counted === 'mm') return formatLength(value, this.unit);
    if (typeof value === 'number') return counted === '°' ? `${value}°` : [value, counted].filter(Boolean).join(' ');
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    if (value === 'cw' || value === 'ccw') return value === 'cw' ? 'clockwise' : 'counter-clockwise';
    if (typeof value === 'string') return `"${value.length > 60 ? `${value.slice(0, 60)} …` : value}"`;
    return Array.isArray(value) ? `${value.length} ${value.length === 1 ? 'entry' : 'entries'}` : 'other figures';
  }

  private tell({ path, part, name }: Place, text: string, field?: DriveDifference['field']): void {
    this.found.push({ path, part, text: name === '' ? text : `${name}: ${text}`, ...(field && { field }) });
  }
}

/** As it is written to a file: without what is undefined. */
const plain = (drive: Drive): Json => JSON.parse(JSON.stringify(drive)) as Json;
const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isRecordOrMissing = (value: unknown) => value === undefined || isRecord(value);
const isListOrMissing = (value: unknown) => value === undefined || (Array.isArray(value) && value.every(isRecord));

/** What an object holds itself: not `constructor`, as every object does. */
const own = <T>(record: Readonly<Record<string, T>>, key: string): T | undefined =>
  Object.hasOwn(record, key) ? record[key] : undefined;

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
