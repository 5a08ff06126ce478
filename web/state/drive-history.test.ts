import { createDriveStore, reduceHistory, startHistory, type DriveAction } from './drive-history';
import { type Drive, newDrive } from '@emery/core/drive';

const rename = (name: string, group?: string): DriveAction => ({
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

test('edits of one group are one step; another group or an undo begins a new one', () => {
  const drag = [rename('a', 'drag 1'), rename('b', 'drag 1'), rename('c', 'drag 1')];
  expect(names([...drag, { type: 'undo' }])).toBe('start');
  expect(names([...drag, rename('d', 'drag 2'), { type: 'undo' }])).toBe('c');
  expect(names([...drag, { type: 'undo' }, { type: 'redo' }, rename('d', 'drag 1'), { type: 'undo' }])).toBe('c');
});

test('a drive replaced from elsewhere can be undone too', () => {
  expect(names([rename('mine'), { type: 'replace', drive: newDrive('theirs') }])).toBe('theirs');
  expect(names([rename('mine'), { type: 'replace', drive: newDrive('theirs') }, { type: 'undo' }])).toBe('mine');
});

test('an edit that changes nothing is no step, and tells nobody', () => {
  const store = createDriveStore(newDrive('start'));
  let told = 0;
  const leave = store.subscribe(() => (told += 1));
  store.dispatch({ type: 'edit', change: (drive) => drive });
  store.dispatch({ type: 'undo' });
  expect(told).toBe(0);
  store.dispatch(rename('a'));
  expect(store.get().present.name).toBe('a');
  leave();
  store.dispatch(rename('b'));
  expect(told).toBe(1);
});

test('a long day keeps its last steps, not all of them', () => {
  const history = Array.from({ length: 1000 }, (_, k) => rename(`step ${k}`)).reduce(
    reduceHistory,
    startHistory(newDrive('start')),
  );
  expect(history.past.length).toBeLessThanOrEqual(300);
  expect(history.present.name).toBe('step 999');
});
