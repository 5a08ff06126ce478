import fc from 'fast-check';
import { isSchema } from 'yup';
import { DEMO } from '../test/demo';
import { draws } from '../test/draws';
import { type Drawn, drawnEdit, editedByAll, SOME_DRIVE } from '../test/edits';
import {
  changeStation,
  type Drive,
  driveSchema,
  flipStop,
  isListKnown,
  itemsOf,
  putItem,
  readDrive,
  removeItem,
  removeStation,
  same,
  withItems,
} from '../drive';
import { changesBetween, forced, merged, withMine } from './index';
import { questionsOf } from './question';

const numRuns = draws(2400);
const some = fc.array(drawnEdit, { maxLength: 6 });

test('every list of the document has a row in the table that says how it is merged', () => {
  const ways = new Set<string>();
  const look = (schema: unknown, way: string): void => {
    if (!isSchema(schema)) return;
    const { type, spec } = schema as unknown as { type: string; spec: { meta?: Record<string, unknown> } };
    const {
      fields = {},
      shapes = [],
      item,
    } = (spec.meta ?? {}) as {
      fields?: Record<string, { schema: unknown }>;
      shapes?: unknown[];
      item?: unknown;
    };
    if (type === 'array') ways.add(way);
    look(item, way);
    for (const shape of shapes) look(shape, way);
    for (const [field, { schema: inner }] of Object.entries(fields))
      look(inner, way === '' ? field : `${way}.${field}`);
  };
  look(driveSchema, '');
  expect(ways.size).toBeGreaterThan(40);
  expect([...ways].filter((way) => !isListKnown(way))).toEqual([]);
});

test('what was done to a drive, done again, gives the drive that came of it', () => {
  fc.assert(
    fc.property(SOME_DRIVE, some, some, (name, before, after) => {
      const drive = DEMO[name];
      const [a, b] = [editedByAll(drive, before), editedByAll(editedByAll(drive, before), after)];
      const changes = JSON.parse(JSON.stringify(changesBetween(a, b))) as ReturnType<typeof changesBetween>;
      expect(forced(a, changes)).toEqual(JSON.parse(JSON.stringify(b)));
      expect(merged(a, changes)).toMatchObject({ clashes: [] });
      expect(same(merged(a, changes).drive, b)).toBe(true);
    }),
    { numRuns },
  );
});

test('from any drive to any other, and back', () => {
  const all = Object.values(DEMO);
  for (const a of all) for (const b of all) expect(same(forced(a, changesBetween(a, b)), b)).toBe(true);
});

test('what others did stays, what I did is in or is asked about, and the drive passes every check', () => {
  fc.assert(
    fc.property(SOME_DRIVE, some, some, (name, mine, others) => {
      const drive = DEMO[name];
      const [a, b] = [editedByAll(drive, mine, '-a'), editedByAll(drive, others, '-b')];
      const { drive: both, clashes } = merged(b, changesBetween(drive, a));
      expect(readDrive(both)).toMatchObject({ ok: true });
      // Theirs is in whole: made once more it changes nothing that did not clash and was not mine to change.
      const again = merged(both, changesBetween(drive, b));
      expect(same(again.drive, both)).toBe(true);
      const asked = new Set(clashes.flatMap(({ changes }) => changes.map(({ at }) => at.join('/'))));
      const left = changesBetween(both, merged(both, changesBetween(drive, a)).drive).map(({ at }) => at.join('/'));
      expect(left.filter((way) => !asked.has(way))).toEqual([]);
    }),
    { numRuns },
  );
});

test('the order in which two are taken in makes no difference where nobody is asked', () => {
  fc.assert(
    fc.property(SOME_DRIVE, some, some, (name, one, other) => {
      const drive = DEMO[name];
      const [a, b] = [editedByAll(drive, one, '-a'), editedByAll(drive, other, '-b')];
      const [ab, ba] = [merged(a, changesBetween(drive, b)), merged(b, changesBetween(drive, a))];
      if (ab.clashes.length > 0 || ba.clashes.length > 0) return;
      expect(sorted(ab.drive)).toEqual(sorted(ba.drive));
    }),
    { numRuns },
  );
});

/** Where both put something at one place, who came first stands first. */
const sorted = (drive: Drive): unknown =>
  JSON.parse(JSON.stringify(drive), (_key, value: unknown) => {
    if (Array.isArray(value)) return value.map((item) => JSON.stringify(item)).sort();
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
  });

test.each<[string, Drawn[]]>([['nothing', []]])('%s done is no change', (_name, edits) => {
  expect(changesBetween(DEMO.rescue, editedByAll(DEMO.rescue, edits))).toEqual([]);
});

test.each<[string, (drive: Drive) => Drive]>([
  [
    'read one of its tapes again',
    (drive) => {
      const tape = itemsOf(drive, 'survey.readings').find(({ to }) => to === 'alt-1')!;
      return putItem(drive, 'survey.readings', { ...tape, mm: 501 } as typeof tape);
    },
  ],
  [
    'put a tape on it',
    (drive) => putItem(drive, 'survey.readings', { id: 'new', kind: 'gap', from: 'alt-1', to: 'ac-1', mm: 90 }),
  ],
  ['turned its place on the belt over', (drive) => flipStop(drive, 'main', 4)],
  ['moved it', (drive) => changeStation(drive, 'alt', { x: 190 })],
])('a shaft goes with all that names it or not at all, where somebody %s', (_what, change) => {
  const start = DEMO.rescue;
  const theirs = change(start);
  const { drive, clashes } = merged(theirs, changesBetween(start, removeStation(start, 'alt')));
  expect(clashes).toHaveLength(1);
  // All of it stays until somebody has answered.
  expect(same(drive, theirs)).toBe(true);
  const mine = withMine(drive, clashes[0]!.changes);
  expect(mine.stations.some(({ id }) => id === 'alt')).toBe(false);
  expect(readDrive(mine)).toMatchObject({ ok: true });
  // The other way round: what was done to it asks, and can bring it back.
  const asked = merged(removeStation(start, 'alt'), changesBetween(start, theirs));
  expect(asked.clashes.length).toBeGreaterThan(0);
  expect(same(asked.drive, removeStation(start, 'alt'))).toBe(true);
  const [question] = questionsOf(asked.clashes, theirs, asked.drive, []);
  expect(readDrive(withMine(asked.drive, question?.changes ?? []))).toMatchObject({ ok: true });
});

test('an item that has another shape by now asks where somebody took it out', () => {
  const start = DEMO.rescue;
  const other = putItem(start, 'survey.diameters', { id: 'dia-1', pulley: 'crank-1', method: 'around', mm: 528 });
  const { drive, clashes } = merged(removeItem(start, 'survey.diameters', 'dia-1'), changesBetween(start, other));
  expect(clashes).toMatchObject([{ why: 'gone' }]);
  expect(itemsOf(drive, 'survey.diameters').map(({ id }) => id)).toEqual(['dia-2']);
  const [question] = questionsOf(clashes, other, drive, []);
  expect(itemsOf(withMine(drive, question!.changes), 'survey.diameters')).toContainEqual(
    expect.objectContaining({ id: 'dia-1', method: 'around' }),
  );
});

test('of a full list the oldest that have had their time make room, else what came is asked about', () => {
  const start = DEMO.rescue;
  const many = (from: number, count: number) =>
    Array.from(
      { length: count },
      (_, k) => ({ id: `p-${from + k}`, kind: 'gap', from: 'alt-1', to: 'ac-1', mm: 9 }) as const,
    );
  const kept = itemsOf(start, 'survey.readings');
  const theirs = withItems(start, 'survey.readings', [...kept, ...many(0, 400 - kept.length)]);
  const mine = withItems(start, 'survey.readings', [...kept, ...many(900, 2)]);
  const { drive, clashes } = merged(theirs, changesBetween(start, { ...mine, name: 'Other' }));
  expect(drive.name).toBe('Other');
  expect(clashes.map(({ why }) => why)).toEqual(['full', 'full']);
  expect(readDrive(drive)).toMatchObject({ ok: true });
});
