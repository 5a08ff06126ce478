import {
  createDriveStore,
  reduceHistory,
  RUN_PAUSE_MS,
  startHistory,
  type DriveAction,
  type EditGroup,
} from './drive-history';
import { refusedEdit } from './full-drive';
import { type Drive, newDrive } from '@emery/core/drive';

const rename = (name: string, group?: EditGroup): DriveAction => ({
  type: 'edit',
  change: (drive: Drive) => ({ ...drive, name }),
  ...(group && { group }),
});
const names = (actions: DriveAction[]) => actions.reduce(reduceHistory, startHistory(newDrive('start'))).present.name;

test('undo and redo walk the steps; an edit after undo drops what was ahead', () => {
  expect(names([rename('a'), rename('b'), { type: 'undo' }])).toBe('a');
  expect(names([rename('a'), rename('b'), { type: 'undo' }, { type: 'undo' }, { type: 'undo' }])).toBe('start');
  expect(names([rename('a'), rename('b'), { type: 'undo' }, { type: 'redo' }, { type: 'redo' }])).toBe('b');
  expect(names([rename('a'), { type: 'undo' }, rename('c'), { type: 'redo' }])).toBe('c');
});

const drag = (name: string): EditGroup => ({ kind: 'drag', name });
const run = (name: string, at: number): EditGroup => ({ kind: 'run', name, at });

test('edits of one drag are one step; another drag or an undo begins a new one', () => {
  const one = [rename('a', drag('1')), rename('b', drag('1')), rename('c', drag('1'))];
  expect(names([...one, { type: 'undo' }])).toBe('start');
  expect(names([...one, rename('d', drag('2')), { type: 'undo' }])).toBe('c');
  expect(names([...one, { type: 'undo' }, { type: 'redo' }, rename('d', drag('1')), { type: 'undo' }])).toBe('c');
  // A run of the same name is no part of it.
  expect(names([...one, rename('d', run('1', 0)), { type: 'undo' }])).toBe('c');
});

test('a run of keys or letters is one step until it pauses, however long it is in all', () => {
  const steady = Array.from({ length: 9 }, (_, k) => rename(`n${k}`, run('name', k * RUN_PAUSE_MS)));
  expect(names([...steady, { type: 'undo' }])).toBe('start');
  const later = rename('minutes later', run('name', 8 * RUN_PAUSE_MS + RUN_PAUSE_MS + 1));
  expect(names([...steady, later, { type: 'undo' }])).toBe('n8');
  expect(names([...steady, later, { type: 'undo' }, { type: 'undo' }])).toBe('start');
  // Another thing in between ends it as well.
  expect(
    names([rename('a', run('name', 0)), rename('b', run('label', 1)), rename('c', run('name', 2)), { type: 'undo' }]),
  ).toBe('b');
});

test('a drive replaced from elsewhere can be undone too', () => {
  expect(names([rename('mine'), { type: 'replace', drive: newDrive('theirs') }])).toBe('theirs');
  expect(names([rename('mine'), { type: 'replace', drive: newDrive('theirs') }, { type: 'undo' }])).toBe('mine');
});

test('an edit that changes nothing is no step, and tells nobody', () => {
  const store = createDriveStore(newDrive('start'));
  let calls = 0;
  const leave = store.subscribe(() => (calls += 1));
  store.dispatch({ type: 'edit', change: (drive) => drive });
  store.dispatch({ type: 'undo' });
  expect(calls).toBe(0);
  store.dispatch(rename('a'));
  expect(store.get().present.name).toBe('a');
  leave();
  store.dispatch(rename('b'));
  expect(calls).toBe(1);
});

test('a long day keeps its last steps, not all of them', () => {
  const history = Array.from({ length: 1000 }, (_, k) => rename(`step ${k}`)).reduce(
    reduceHistory,
    startHistory(newDrive('start')),
  );
  expect(history.past.length).toBeLessThanOrEqual(300);
  expect(history.present.name).toBe('step 999');
});

describe('a list that is full', () => {
  const bolt = (k: number) => ({ id: `b${k}`, station: 's', use: 'pivot' as const });
  const full = { ...newDrive('full'), job: { bolts: Array.from({ length: 100 }, (_, k) => bolt(k)) } } as Drive;
  const add: DriveAction = {
    type: 'edit',
    change: (drive) => ({ ...drive, job: { bolts: [...(drive.job?.bolts ?? []), bolt(900)] } }),
  };
  beforeEach(() => refusedEdit.set(null));

  test('changes nothing, tells why, and leaves no step to undo; the next edit is made', () => {
    const store = createDriveStore(full);
    let calls = 0;
    store.subscribe(() => (calls += 1));
    store.dispatch(add);
    expect([store.get().present, store.get().past, calls]).toEqual([full, [], 0]);
    expect(refusedEdit.get()).toMatchObject({
      text: expect.stringMatching(/^Bolt: a drive holds 100 at most/) as string,
    });
    store.dispatch(rename('b'));
    expect([store.get().present.name, calls, refusedEdit.get()]).toEqual(['b', 1, null]);
    store.dispatch({ type: 'edit', change: (drive) => ({ ...drive, job: { bolts: drive.job!.bolts!.slice(1) } }) });
    store.dispatch(add);
    expect(store.get().present.job!.bolts).toHaveLength(100);
  });

  test('told twice it is told anew', () => {
    const store = createDriveStore(full);
    store.dispatch(add);
    const first = refusedEdit.get();
    store.dispatch(add);
    expect(refusedEdit.get()!.times).toBe(first!.times + 1);
  });

  test('past items make room, and what was undone is there again', () => {
    const finding = (k: number, past?: true) => ({
      ...{ id: `f${k}`, on: 'belt', target: 'b', check: 'cracks', value: 1 },
      ...(past && { past }),
    });
    const findings = [finding(0), finding(1, true), ...Array.from({ length: 998 }, (_, k) => finding(k + 2))];
    const store = createDriveStore({ ...newDrive('f'), inspect: { findings } } as unknown as Drive);
    store.dispatch({
      type: 'edit',
      change: (drive) =>
        ({ ...drive, inspect: { findings: [...drive.inspect!.findings!, finding(2000)] } }) as unknown as Drive,
    });
    const ids = () => store.get().present.inspect!.findings!.map(({ id }) => id);
    expect([ids().length, ids().includes('f1'), ids().at(-1), refusedEdit.get()]).toEqual([1000, false, 'f2000', null]);
    store.dispatch({ type: 'undo' });
    expect([ids().length, ids().includes('f1')]).toEqual([1000, true]);
  });
});

test('what others changed is in every step, and a step that they built on cannot be taken back', () => {
  const start = newDrive('start');
  const edit = (change: Partial<Drive>): DriveAction => ({
    type: 'edit',
    change: (drive) => ({ ...drive, ...change }),
  });
  const merge = (from: Drive, change: Partial<Drive>): DriveAction => ({
    type: 'merge',
    from,
    to: { ...from, ...change },
  });
  const station = {
    id: 's',
    role: 'idler',
    x: 1,
    y: 2,
    pulleys: [{ id: 's-1', surface: 'smooth', diameter: 60 }],
  } as const;
  let history = [edit({ name: 'a' }), edit({ stations: [station] }), edit({ name: 'b' })].reduce(
    reduceHistory,
    startHistory(start),
  );
  const reading = { id: 't', kind: 'x', to: 's-1', mm: 5 } as const;
  history = reduceHistory(history, merge(history.present, { crankRotation: 'ccw' }));
  expect(history.past.map(({ crankRotation }) => crankRotation)).toEqual(['ccw', 'ccw', 'ccw']);
  history = reduceHistory(history, merge(history.present, { survey: { readings: [reading] } }));
  // The shaft came with the second step: a tape is on it by now.
  expect(history.past).toHaveLength(1);
  const back = reduceHistory(history, { type: 'undo' }).present;
  expect(back).toMatchObject({ name: 'a', crankRotation: 'ccw', survey: { readings: [reading] } });
  // Mine that they have changed over is no step any more.
  const named = [edit({ name: 'c' }), edit({ speeds: { idle: 1 } })].reduce(reduceHistory, startHistory(start));
  const over = reduceHistory(named, merge(named.present, { name: 'theirs' }));
  expect(over.past.map(({ name, speeds }) => [name, speeds])).toEqual([['theirs', undefined]]);
});
