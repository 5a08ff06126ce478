import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import {
  type Drive,
  itemsOf,
  type ListName,
  LISTS,
  parseDrive,
  putItem,
  readDrive,
  removeItem,
  removePulley,
  removeStation,
} from '@emery/core/drive';

const FOLDER = path.resolve(import.meta.dirname, '../demo');
const demos = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.emery.json'))
  .map((name): [string, Drive] => {
    const reading = parseDrive(readFileSync(path.join(FOLDER, name), 'utf8'));
    if (!reading.ok) throw new Error(name);
    return [name, reading.drive];
  });
/** As it would come back from its file. */
const reread = (drive: Drive) => readDrive(JSON.parse(JSON.stringify(drive)));

test.each(demos)('%s: whatever shaft or sheave goes, nothing is left that names it', (_, drive) => {
  for (const { id, pulleys } of drive.stations) {
    const less = removeStation(drive, id);
    expect(reread(less)).toMatchObject({ ok: true });
    expect(JSON.stringify(less)).not.toContain(`"${pulleys[0]!.id}"`);
    for (const { id: pulley } of pulleys) expect(reread(removePulley(drive, pulley))).toMatchObject({ ok: true });
  }
});

test.each(demos)('%s: what a deleted shaft does not touch is the very same', (_, drive) => {
  const last = drive.stations.at(-1)!;
  const less = removeStation(drive, last.id);
  for (const station of less.stations) expect(drive.stations).toContain(station);
  const gone = new Set(last.pulleys.map(({ id }) => id));
  const kept = itemsOf(drive, 'survey.readings').filter(({ from, to }) => !gone.has(to) && !gone.has(from ?? ''));
  expect(itemsOf(less, 'survey.readings')).toEqual(kept);
});

test('every list of the table: an item is put, laid over, and taken out again; the rest is the same', () => {
  for (const [, drive] of demos) {
    for (const list of Object.keys(LISTS) as ListName[]) {
      const [first] = itemsOf(drive, list);
      if (!first) continue;
      // Any item will do: the table is what is tried.
      const made = { ...first, id: 'made' } as never;
      const more = putItem(drive, list, made);
      expect(itemsOf(more, list)).toEqual([...itemsOf(drive, list), made]);
      expect(itemsOf(putItem(more, list, made), list)).toHaveLength(itemsOf(more, list).length);
      expect(itemsOf(removeItem(more, list, 'made'), list)).toEqual(itemsOf(drive, list));
    }
  }
});

test('an id that is used twice, or a name of nothing, is told at its place in every list', () => {
  for (const [, drive] of demos) {
    for (const list of Object.keys(LISTS) as ListName[]) {
      const items = itemsOf(drive, list);
      // Some lists go by place, or by the pulley that they name.
      if (items.length < 2 || LISTS[list].id !== 'id') continue;
      const copy = JSON.parse(JSON.stringify(drive)) as Drive;
      (itemsOf(copy, list)[1] as { id: string }).id = items[0]!.id;
      const reading = readDrive(copy);
      expect(reading).toMatchObject({ ok: false });
      if (!reading.ok) expect(reading.problems.map(({ path: at }) => at)).toContain(`${list}[1].id`);
    }
  }
});

test('fields that Emery does not know come back from edits and from the file, at every depth', () => {
  const [, drive] = demos[0]!;
  const strange = JSON.parse(JSON.stringify(drive)) as Record<string, unknown>;
  const mark = (value: unknown): void => {
    if (Array.isArray(value)) value.forEach(mark);
    else if (typeof value === 'object' && value !== null) {
      Object.values(value).forEach(mark);
      (value as Record<string, unknown>)['x-other'] = { kept: true };
    }
  };
  mark(strange['stations']);
  mark(strange['belts']);
  const reading = readDrive(strange);
  expect(reading).toMatchObject({ ok: true });
  const count = (document: unknown) => JSON.stringify(document).split('"x-other"').length - 1;
  const own = count((strange['stations'] as unknown[]).at(-1));
  const stops = (strange['belts'] as Drive['belts']).flatMap(({ route }) => route);
  const gone = drive.stations.at(-1)!;
  const less = removeStation((reading as { drive: Drive }).drive, gone.id);
  const fallen = stops.filter(({ pulley }) => gone.pulleys.some(({ id }) => id === pulley)).length;
  expect(count(less)).toBe(count(strange) - own - fallen);
});
