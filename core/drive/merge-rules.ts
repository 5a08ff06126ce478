import { type Json, rulesOf } from './lists';

/**
 * How two people's changes of one field or list become one. `items`: each item on its own, by what it is known by;
 * readings too, whose sum all of them are. `set`: what both put in is in, what either took out is out. `whole`: it is
 * one answer, and two different ones ask.
 */
export type ListMerge = { kind: 'items'; key: (item: Json) => string } | { kind: 'set' } | { kind: 'whole' };

const by = (...fields: string[]): ListMerge => ({
  kind: 'items',
  key: (item) =>
    fields
      .map((field) => item[field])
      .filter((value) => value !== undefined)
      .map(String)
      .join(' '),
});
const SET: ListMerge = { kind: 'set' };
const WHOLE: ListMerge = { kind: 'whole' };

/** Lists that `LISTS` knows no id of: what their items are known by, or that they are one answer. */
const OTHER_LISTS: Readonly<Record<string, ListMerge>> = {
  'stations.torque': by('state'),
  'stations.torque.points': WHOLE,
  'stations.output': WHOLE,
  'stations.adjuster.pitches': WHOLE,
  'stations.adjuster.shims': WHOLE,
  'stations.adjuster.strut.points': WHOLE,
  'survey.photos.rims.points': SET,
  'use.bins': WHOLE,
  'align.moves': by('pulley', 'kind'),
  'align.moves.sizes': WHOLE,
  'align.moves.options': WHOLE,
  'align.stacks.pieces': WHOLE,
  'align.stacks.pieces.options': WHOLE,
  'belts.measurements': by('id'),
  'belts.carries': SET,
  'belts.tried.rubs': SET,
  'belts.route': by('pulley'),
  'noise.evidence': {
    kind: 'items',
    key: ({ test, pulley, belt, past, at }) =>
      [test, pulley ?? belt, past && at].filter((part) => part !== undefined && part !== false).join(' '),
  },
  'noise.cures.listened': by('when', 'at'),
  'inspect.findings.places': SET,
  'inspect.findings.marks.tips': SET,
  'inspect.findings.marks.valleys': SET,
  'inspect.skipped': by('on', 'target'),
  'inspect.limits': by('check'),
  'inspect.shop': WHOLE,
  'job.leftOut': SET,
  'job.order': WHOLE,
};

/** How a list at a way is merged; as a whole where nobody says. */
export function listMerge(way: string): ListMerge {
  const known = OTHER_LISTS[way];
  if (known) return known;
  const id = rulesOf(way)?.id;
  return id ? by(id) : WHOLE;
}

/** Whether a rule says how the list at a way is merged. */
export const isListKnown = (way: string): boolean => way in OTHER_LISTS || Boolean(rulesOf(way)?.id);

/** Objects that are one answer: of a point nobody wants x from one person and y from another. */
const UNITS: ReadonlySet<string> = new Set([
  'stations.adjuster.pivot',
  'stations.adjuster.anchor',
  'stations.adjuster.lug',
  'stations.adjuster.strut.anchor',
  'stations.adjuster.strut.lug',
  'stations.region',
  'stations.need',
  'stations.power',
  'obstacles.to',
  'belts.tensionReadings.span',
  'inspect.findings.photo',
  'inspect.findings.marks.stretch',
  'inspect.life',
]);
export const isUnit = (way: string): boolean => UNITS.has(way);

/** Fields that are one answer together, under a name of their own that no field has. */
const TOGETHER: Readonly<Record<string, readonly string[]>> = {
  stations: ['x', 'y'],
  obstacles: ['x', 'y'],
  'survey.photos': ['hash', 'width', 'height'],
};
export const fieldsTogether = (way: string): readonly string[] => TOGETHER[way] ?? [];
/** Stands between the names of fields that are one answer. */
const JOINED = '+';
export const joinedName = (fields: readonly string[]): string => fields.join(JOINED);
/** The fields that a step of a way names. */
export const fieldsNamed = (way: string, field: string): readonly string[] =>
  field === joinedName(fieldsTogether(way)) ? fieldsTogether(way) : [field];

/** The field that tells shapes apart: what is of another shape is another thing as a whole. */
const SHAPES: Readonly<Record<string, string>> = {
  'stations.pulleys': 'surface',
  'stations.adjuster': 'kind',
  'survey.readings': 'kind',
  'survey.diameters': 'method',
  'belts.tensionReadings': 'way',
  'inspect.findings': 'check',
};
export const isOtherShape = (way: string, a: Json, b: Json): boolean => {
  const field = SHAPES[way];
  return field !== undefined && a[field] !== b[field];
};

/** Fields of which the last one written stands, and nobody is asked: when something was read, at which speed last. */
const LAST_WRITER: ReadonlySet<string> = new Set(['noise.rpm', 'noise.rpmFrom']);
const DATES: ReadonlySet<string> = new Set(['at', 'date']);
export const isLastWriter = (holder: string, field: string): boolean =>
  DATES.has(field) || LAST_WRITER.has(holder === '' ? field : `${holder}.${field}`);
