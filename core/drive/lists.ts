import type { AlignReading, AlignStack, DoneMove } from './align';
import type { Belt } from './belt';
import type { Drive } from './drive';
import type { ChangedPart, InspectFinding } from './inspect';
import type { Bolt, OwnStep } from './job';
import type { NoiseClip, NoiseCure } from './noise';
import type { Obstacle } from './obstacle';
import { TRIED_LIST_WORDS } from './labels';
import type { ElectricalLoad, SpeedCheck } from './speeds';
import type { Station } from './station';
import type { DiameterReading, SurveyPhoto, SurveyReading } from './survey';

/** What an item of a list may name: a shaft, a pulley of one, a belt; or a pulley or a belt. */
type Target = 'station' | 'pulley' | 'belt';
type Named = Target | 'part';

/** An object of the document, looked at by the fields that the table names. */
export type Json = Readonly<Record<string, unknown>>;

/** What each may be the name of. */
const MEANT: Record<Named, readonly Target[]> = {
  station: ['station'],
  pulley: ['pulley'],
  belt: ['belt'],
  part: ['pulley', 'belt'],
};
const NONE: Record<Named, string> = {
  station: 'there is no such station',
  pulley: 'no station has that pulley',
  belt: 'there is no such belt',
  part: 'there is no such pulley or belt',
};

/** What an inspection looked at: a belt, or else a pulley. */
const inspectedPart = ({ on }: Json): Named => {
  if (on === undefined) return 'part';
  return on === 'belt' ? 'belt' : 'pulley';
};

/** A list of the document: how its items are known, what they name, and the lists inside them. */
export interface ListRules {
  /** What one item is called in a message. */
  what: string;
  /** The field that no two items share; null for a list whose items are known by their place alone. */
  id: string | null;
  /** What the items are for others to name. */
  is?: Target;
  /** The fields that name a shaft or pulley of the drive, by the way to each. An item falls with any that it names. */
  names?: Readonly<Record<string, Named | ((item: Json) => Named)>>;
  lists?: Readonly<Record<string, ListRules>>;
}

/**
 * Every list of the document whose items have an id or name something, by the way to it. Reading a file (ids used
 * twice, names of nothing), putting and removing items, and what falls with a deleted shaft or pulley all go by this.
 */
export const LISTS = {
  stations: {
    what: 'station',
    id: 'id',
    is: 'station',
    lists: { pulleys: { what: 'pulley', id: 'id', is: 'pulley' } },
  },
  'survey.readings': { what: 'reading', id: 'id', names: { from: 'pulley', to: 'pulley' } },
  'survey.diameters': { what: 'diameter reading', id: 'id', names: { pulley: 'pulley', of: 'pulley' } },
  'survey.photos': {
    what: 'picture',
    id: 'id',
    lists: { rims: { what: 'rim of the picture', id: 'pulley', names: { pulley: 'pulley' } } },
  },
  obstacles: { what: 'obstacle', id: 'id' },
  speedChecks: { what: 'speed check', id: 'id', names: { station: 'station' } },
  loads: { what: 'load', id: 'id' },
  'align.readings': { what: 'alignment reading', id: 'id', names: { pulley: 'pulley' } },
  'align.moves': { what: 'move', id: null, names: { pulley: 'pulley' } },
  'align.stacks': { what: 'stack', id: 'id', names: { pulley: 'pulley' } },
  'align.tracks': { what: 'track', id: 'pulley', names: { pulley: 'pulley' } },
  'align.done': { what: 'move that was done', id: 'id', names: { pulley: 'pulley' } },
  belts: {
    what: 'belt',
    id: 'id',
    is: 'belt',
    lists: {
      route: { what: 'stop', id: null, names: { pulley: 'pulley' } },
      tensionReadings: { what: 'tension reading', id: 'id', names: { 'span.from': 'pulley', 'span.to': 'pulley' } },
      tried: { what: TRIED_LIST_WORDS.item, id: 'id' },
    },
  },
  'noise.evidence': { what: 'observation', id: null, names: { pulley: 'pulley', belt: 'belt' } },
  'noise.clips': { what: 'sound', id: 'id' },
  'noise.cures': { what: 'cure', id: 'id', names: { part: 'part' } },
  'inspect.findings': { what: 'finding', id: 'id', names: { target: inspectedPart } },
  'inspect.changed': { what: 'part that was changed', id: 'id', names: { target: inspectedPart } },
  'inspect.skipped': { what: 'part that was passed over', id: null, names: { target: inspectedPart } },
  'job.bolts': { what: 'bolt', id: 'id', names: { station: 'station' } },
  'job.own': { what: 'step', id: 'id' },
  'job.words': { what: 'step in other words', id: 'step' },
} as const satisfies Record<string, ListRules>;

type Inner<K extends keyof typeof LISTS> = (typeof LISTS)[K] extends { lists: infer L }
  ? `${K}.${keyof L & string}`
  : never;
/** The way to a list, also to one inside the items of another: `belts.route`. */
export type ListWay = { [K in keyof typeof LISTS]: K | Inner<K> }[keyof typeof LISTS];

/** The rules of the list at a way; null where there is none. */
export function rulesOf(way: string): ListRules | null {
  const among = (lists: Readonly<Record<string, ListRules>> = {}, name: string) =>
    (Object.hasOwn(lists, name) && lists[name]) || null;
  const cut = way.lastIndexOf('.');
  return among(LISTS, way) ?? (cut < 0 ? null : among(rulesOf(way.slice(0, cut))?.lists, way.slice(cut + 1)));
}

/** What the lists of the document hold. */
export interface ListItems {
  stations: Station;
  'survey.readings': SurveyReading;
  'survey.diameters': DiameterReading;
  'survey.photos': SurveyPhoto;
  obstacles: Obstacle;
  speedChecks: SpeedCheck;
  loads: ElectricalLoad;
  'align.readings': AlignReading;
  'align.stacks': AlignStack;
  'align.done': DoneMove;
  belts: Belt;
  'noise.clips': NoiseClip;
  'noise.cures': NoiseCure;
  'inspect.findings': InspectFinding;
  'inspect.changed': ChangedPart;
  'job.bolts': Bolt;
  'job.own': OwnStep;
}
export type ListName = keyof ListItems & keyof typeof LISTS;

/** The items of a list; none where the document has no such list. */
export function itemsOf<L extends ListName>(drive: Drive, list: L): readonly ListItems[L][] {
  // The table's names are the document's own fields; the two types above are what ties them together.
  return (at(drive as unknown as Json, list.split('.')) ?? []) as readonly ListItems[L][];
}

/** The drive with other items in a list. */
export function withItems<L extends ListName>(drive: Drive, list: L, items: readonly ListItems[L][]): Drive {
  return withAt(drive as unknown as Json, list.split('.'), items) as unknown as Drive;
}

/** Adds an item to a list, or lays it over the one of its id. */
export function putItem<L extends ListName>(drive: Drive, list: L, item: ListItems[L]): Drive {
  return withItems(drive, list, put(itemsOf(drive, list), item));
}

/** The list with an item put at its end, or over the one of its id. */
export function put<T extends { readonly id: string }>(items: readonly T[] | undefined, item: T): readonly T[] {
  const list = items ?? [];
  return list.some(({ id }) => id === item.id) ? list.map((old) => (old.id === item.id ? item : old)) : [...list, item];
}

/** Takes the item of that id out of a list. */
export function removeItem(drive: Drive, list: ListName, id: string): Drive {
  return withItems(drive, list, itemsOf(drive, list).filter((item) => item.id !== id) as never);
}

/** What was deleted, by id. */
export type Gone = { readonly [T in Target]?: ReadonlySet<string> };

/** The drive without whatever names a shaft or a pulley that is gone. */
export function withoutNamesOf(drive: Drive, gone: Gone): Drive {
  return Object.entries<ListRules>(LISTS).reduce<Json>(
    (document, [list, rules]) => {
      const items = at(document, list.split('.'));
      if (!Array.isArray(items)) return document;
      const left = itemsWithout(items as readonly Json[], rules, gone);
      return left === items ? document : withAt(document, list.split('.'), left);
    },
    drive as unknown as Json,
  ) as unknown as Drive;
}

function itemsWithout(items: readonly Json[], { names = {}, lists = {} }: ListRules, gone: Gone): readonly Json[] {
  const stays = (item: Json) =>
    Object.entries(names).every(([field, named]) =>
      MEANT[typeof named === 'function' ? named(item) : named].every(
        (target) => !gone[target]?.has(at(item, field.split('.')) as string),
      ),
    );
  const left = items.filter(stays).map((item) =>
    Object.entries(lists).reduce((result, [field, rules]) => {
      const inner = result[field];
      if (!Array.isArray(inner)) return result;
      const rest = itemsWithout(inner as readonly Json[], rules, gone);
      return rest === inner ? result : { ...result, [field]: rest };
    }, item),
  );
  return left.length === items.length && left.every((item, k) => item === items[k]) ? items : left;
}

/** The shafts, pulleys and belts that an item of the list at a way names. */
export function namesIn(way: string, item: Json): string[] {
  return Object.keys(rulesOf(way)?.names ?? {})
    .map((field) => at(item, field.split('.')))
    .filter((name) => typeof name === 'string');
}

/** The drive without items that name what is not there, as after somebody else deleted it. */
export function withoutLostNames(drive: Drive): Drive {
  const { stations, belts } = drive;
  const there = new Set<unknown>(
    [...stations, ...stations.flatMap(({ pulleys }) => pulleys), ...belts].map(({ id }) => id),
  );
  const lost = new Set<string>();
  const look = (items: unknown, way: string) => {
    if (!Array.isArray(items)) return;
    for (const item of items as readonly Json[]) {
      for (const name of namesIn(way, item)) if (!there.has(name)) lost.add(name);
      for (const field of Object.keys(rulesOf(way)?.lists ?? {})) look(item[field], `${way}.${field}`);
    }
  };
  for (const list of Object.keys(LISTS)) look(at(drive as unknown as Json, list.split('.')), list);
  return lost.size === 0 ? drive : withoutNamesOf(drive, { station: lost, pulley: lost, belt: lost });
}

/** What is wrong with the ids of a document and with what its items name, each with the way to it. */
export function brokenNames(drive: Drive): { path: string; message: string }[] {
  const document = drive as unknown as Json;
  const problems: { path: string; message: string }[] = [];
  const known: Record<Target, Set<string>> = { station: new Set(), pulley: new Set(), belt: new Set() };
  const look = (items: readonly Json[], path: string, rules: ListRules, elsewhere?: Set<string>) => {
    const { what, id, names = {}, lists = {} } = rules;
    const own = elsewhere ?? new Set<string>();
    for (const [k, item] of items.entries()) {
      if (id !== null) {
        const value = item[id] as string;
        if (own.has(value)) {
          const message = `"${value}" is used by another ${what}. Each ${what} needs an id of its own`;
          problems.push({ path: `${path}[${k}].${id}`, message });
        }
        own.add(value);
      }
      for (const [field, named] of Object.entries(names)) {
        const value = at(item, field.split('.')) as string | undefined;
        const meant = typeof named === 'function' ? named(item) : named;
        if (value === undefined || MEANT[meant].some((target) => known[target].has(value))) continue;
        problems.push({ path: `${path}[${k}].${field}`, message: `names "${value}", and ${NONE[meant]}` });
      }
      for (const [field, inner] of Object.entries(lists)) {
        const list = item[field];
        // What others name is known by its id throughout the drive, other items within the one that holds them.
        if (Array.isArray(list))
          look(list as readonly Json[], `${path}[${k}].${field}`, inner, inner.is && known[inner.is]);
      }
    }
  };
  for (const [list, rules] of Object.entries<ListRules>(LISTS)) {
    look((at(document, list.split('.')) ?? []) as readonly Json[], list, rules, rules.is && known[rules.is]);
  }
  return problems;
}

function at(document: Json, way: readonly string[]): unknown {
  return way.reduce<unknown>((here, field) => (here as Json | undefined)?.[field], document);
}

function withAt(document: Json, [field, ...rest]: readonly string[], value: unknown): Json {
  const inner = rest.length === 0 ? value : withAt((document[field!] ?? {}) as Json, rest, value);
  return { ...document, [field!]: inner };
}
