import fc from 'fast-check';
import { isSchema } from 'yup';
import { DEMO } from '../test/demo';
import { type Drive, driveSchema } from './drive';
import { fullWords, MOST_DRIVE_BYTES, withinLists } from './full-lists';
import { readDrive } from './read-drive';

type Json = Record<string, unknown>;

/** A drive with an item or more in every list there is. */
const WHOLE: Drive = {
  ...DEMO.rescue,
  ...rest(),
} as unknown as Drive;

function rest(): object {
  const [station] = DEMO.rescue.stations as unknown as (Json & { pulleys: Json[] })[];
  const [belt] = DEMO.rescue.belts as unknown as Json[];
  const pulley = station!.pulleys[0]!['id'] as string;
  const photo = { hash: 'a'.repeat(64), width: 100, height: 100 };
  const at = '2026-01-02T10:00:00Z';
  return {
    obstacles: [{ id: 'o', x: 900, y: 900, radius: 5 }],
    loads: [{ id: 'l', name: 'Lamp', amps: 2 }],
    speedChecks: [{ id: 'c', station: station!['id'], rpm: 900, engineRpm: 800 }],
    noise: {
      evidence: [{ test: 'water', outcome: 'louder', at }],
      clips: [{ id: 'k', kind: 'squeal', rpm: 900, wav: 'UklGRg==' }],
      cures: [{ id: 'u', cause: 'worn-belt', part: pulley, listened: [{ when: 'at-once', outcome: 'back' }] }],
    },
    inspect: {
      findings: [{ id: 'f', on: 'belt', target: belt!['id'], check: 'cracks', value: 2 }],
      skipped: [{ on: 'belt', target: belt!['id'] }],
      changed: [{ id: 'g', on: 'belt', target: belt!['id'], at }],
      limits: [{ check: 'cracks', from: 'shop', replace: 9 }],
      shop: [{ check: 'cracks', replace: 9 }],
    },
    job: {
      bolts: [{ id: 'b', station: station!['id'], use: 'pivot' }],
      own: [{ id: 's', phase: 'after', text: 'Wipe it' }],
      words: [{ step: 'w', text: 'Say so' }],
      leftOut: ['x'],
      order: ['y'],
    },
    survey: {
      readings: [{ id: 'r', from: pulley, to: pulley, value: 100 }],
      diameters: [{ id: 'd', pulley, value: 60 }],
      photos: [{ id: 'p', ...photo, rims: [{ pulley, points: [[1, 1]] }] }],
    },
    align: {
      readings: [{ id: 'q', pulley, offset: 1 }],
      moves: [{ pulley, kind: 'shim', sizes: [1], options: [{ name: 'n', pieces: [1] }] }],
      stacks: [{ id: 't', pulley, options: [{ id: 'v', pieces: [{ name: 'n' }] }], pieces: [{ name: 'n' }] }],
      tracks: [{ pulley, mm: 1 }],
      done: [{ id: 'e', pulley }],
    },
    stations: [
      { ...station, output: [{ rpm: 900, amps: 20 }], torque: [{ at: 1, points: [{ rpm: 900, torque: 4 }] }] },
      ...DEMO.rescue.stations.slice(1),
    ],
    belts: [
      {
        ...belt,
        tensionReadings: [{ id: 'z' }],
        measurements: [{ id: 'm' }],
        tried: [{ id: 'v', rubs: ['n'] }],
        carries: ['n'],
      },
    ],
    use: { bins: [{ rpm: 900, share: 1 }] },
  };
}

interface Found {
  way: string;
  count: number;
  /** The drive with other items in that list. */
  put: (items: readonly unknown[]) => Drive;
  items: readonly unknown[];
}

/** Every list of a drive that has an item, with its bound, by the way to the first of it. */
function listsOf(schema: unknown, value: unknown, way: string, wrap: (inner: unknown) => Drive): Found[] {
  if (!isSchema(schema) || typeof value !== 'object' || value === null) return [];
  const own = schema as unknown as {
    type: string;
    resolve: (options: object) => unknown;
    fields?: Record<string, unknown>;
    spec: { meta?: { max: number; item: unknown } };
  };
  if (own.type === 'lazy') return listsOf(own.resolve({ value }), value, way, wrap);
  if (Array.isArray(value)) {
    const { max: count, item } = own.spec.meta!;
    const items = value as unknown[];
    return items.length === 0
      ? []
      : [
          { way, count, items, put: wrap },
          ...listsOf(item, items[0], way, (inner) => wrap([inner, ...items.slice(1)])),
        ];
  }
  return Object.entries(own.fields ?? {}).flatMap(([field, inner]) =>
    listsOf(inner, (value as Json)[field], way === '' ? field : `${way}.${field}`, (next) =>
      wrap({ ...(value as Json), [field]: next }),
    ),
  );
}
const LISTS = listsOf(driveSchema, WHOLE, '', (drive) => drive as Drive);

/** Another item like this one, with names of its own. */
let count = 0;
function another(item: unknown): unknown {
  count += 1;
  if (typeof item === 'string') return `${item} ${count}`;
  if (typeof item !== 'object' || item === null || Array.isArray(item)) return item;
  return Object.fromEntries(
    Object.entries(item as Json).map(([field, value]) => [
      field,
      (field === 'id' || field === 'step') && typeof value === 'string'
        ? `${value} ${count}`
        : field === 'pulleys' && Array.isArray(value)
          ? value.map(another)
          : value,
    ]),
  );
}
const filled = ({ items, count, put }: Found, over = 0) =>
  put(
    [...items, ...Array.from({ length: count + over - items.length }, () => another(items.at(-1)))].slice(
      0,
      count + over,
    ),
  );

test('there is a drive with something in nearly every list', () => {
  const ways = LISTS.map(({ way }) => way);
  for (const way of ['noise.cures', 'survey.readings', 'job.bolts', 'inspect.findings', 'belts.tensionReadings'])
    expect(ways).toContain(way);
  expect(new Set(ways).size).toBeGreaterThan(28);
});

/** What the file itself says of a list that is too long. */
const messages = (drive: Drive) => {
  const reading = readDrive(drive);
  return reading.ok ? '' : reading.problems.map(({ message }) => message).join();
};

test.each(LISTS.map((found) => [found.way, found] as const))(
  '%s: one more than a file may hold is not taken, or a past one makes room',
  (way, found) => {
    const max = filled(found);
    const edited = filled(found, 1);
    expect(messages(max)).not.toMatch(/items at most/);
    expect(messages(edited)).toMatch(/items at most/);
    const { drive, full } = withinLists(max, edited);
    expect(messages(drive)).not.toMatch(/items at most/);
    if (way === 'inspect.changed') expect(full).toBeNull();
    else expect([drive === max, full]).toEqual([true, { list: way, max: found.count }]);
    if (full) expect(fullWords(full)).toMatch(/^[A-Z].*holds [\d,]+ at most\. Nothing was changed/);
    // Up to the bound it is as it was put, and so is what shrinks from beyond it.
    expect(withinLists(found.put(found.items), max)).toEqual({ drive: max, full: null });
    expect(withinLists(filled(found, 2), edited).full).toBeNull();
  },
);

test('of past findings and cures the oldest make room, those that count stay', () => {
  const finding = (k: number, past: boolean) => ({
    ...{ id: `f${k}`, on: 'belt', target: 'main', check: 'cracks', value: 2 },
    ...(past && { past }),
  });
  const withFindings = (findings: object[]) => ({ ...DEMO.rescue, inspect: { findings } }) as unknown as Drive;
  fc.assert(
    fc.property(
      fc.array(fc.boolean(), { minLength: 1000, maxLength: 1000 }),
      fc.integer({ min: 1, max: 30 }),
      (past, more) => {
        const before = past.map((entry, k) => finding(k, entry));
        const added = Array.from({ length: more }, (_, k) => finding(2000 + k, false));
        const from = withFindings(before);
        const { drive, full } = withinLists(from, withFindings([...before, ...added]));
        const left = drive.inspect!.findings!;
        if (past.filter(Boolean).length < more) return full !== null && drive === from;
        const dropped = before.filter(({ id }) => !left.some((finding) => finding.id === id));
        const oldest = before.filter((entry) => 'past' in entry).slice(0, more);
        return full === null && left.length === 1000 && JSON.stringify(dropped) === JSON.stringify(oldest);
      },
    ),
    { numRuns: 20 },
  );
});

test('a drive that would be larger than is saved is not taken, whatever its lists hold', () => {
  const clip = (k: number) => ({
    id: `c${k}`,
    kind: 'squeal',
    rpm: 900,
    wav: 'A'.repeat(80_000),
    name: 'ü'.repeat(50),
  });
  const withClips = (count: number) =>
    ({ ...DEMO.rescue, noise: { clips: Array.from({ length: count }, (_, k) => clip(k)) } }) as unknown as Drive;
  let now = withClips(0);
  let taken = 0;
  for (let k = 1; k <= 20; k += 1) {
    const { drive, full } = withinLists(now, withClips(k));
    if (full) {
      expect([full, drive === now]).toEqual([{ list: '', max: expect.any(Number) as number }, true]);
      break;
    }
    [now, taken] = [drive, k];
  }
  expect(taken).toBe(12);
  expect(new TextEncoder().encode(JSON.stringify(now)).length).toBeLessThanOrEqual(MOST_DRIVE_BYTES);
  expect(fullWords({ list: '', max: 1 })).toMatch(/1 MB/);
});

declare class TextEncoder {
  encode: (text: string) => Uint8Array;
}
