import { createBench, edit } from './bench';
import { createDriveStore } from './drive-history';
import { addBelt, addStation, type Drive, newBelt, newDrive, newStation } from '@emery/core/drive';

function opened(kept: Drive | null = null) {
  let drive = addBelt(newDrive('bench'), newBelt(newDrive('bench'), 'PK'));
  drive = addStation(drive, newStation(drive, 'crankshaft', 0, 0, 'PK'));
  drive = addStation(drive, newStation(drive, 'alternator', 300, 0, 'PK'));
  const store = createDriveStore(drive);
  const bench = createBench(store, 'mm', kept);
  return { drive, store, bench, end: bench.connect() };
}

test('pointing at a pulley tells those who follow what is pointed at, and nobody else; nor twice', () => {
  const { bench } = opened();
  const calls = { bench: 0, selection: 0, pointed: 0 };
  bench.subscribe(() => (calls.bench += 1));
  bench.selection.subscribe(() => (calls.selection += 1));
  bench.pointed.subscribe(() => (calls.pointed += 1));
  const { hover, select } = bench.get();
  hover({ kind: 'pulley', station: 'crank-1', pulley: 'crank-1-1' });
  hover({ kind: 'pulley', station: 'crank-1', pulley: 'crank-1-1' });
  expect(calls).toEqual({ bench: 0, selection: 0, pointed: 1 });
  select({ kind: 'pulley', station: 'crank-1', pulley: 'crank-1-1' });
  // Another sheave of one shaft is another thing in hand.
  select({ kind: 'pulley', station: 'crank-1', pulley: 'crank-1-2' });
  expect(calls).toEqual({ bench: 0, selection: 2, pointed: 1 });
});

test('a drive is solved once for each change, and not for what leaves it as it is', () => {
  const { bench } = opened();
  const { solution, dispatch, setTapping } = bench.get();
  setTapping(true);
  dispatch(edit((drive) => drive));
  expect(bench.get().solution).toBe(solution);
  bench.get().tap('crank-1');
  bench.get().tap('alternator-1');
  expect(bench.get().belt!.contacts.map(({ pulley }) => pulley)).toEqual(['crank-1-1', 'alternator-1-1']);
  // The first again closes the route.
  bench.get().tap('crank-1');
  expect(bench.get().tapping).toBe(false);
  expect(bench.get().belt!.closed).toBe(true);
});

test('edits of a what-if stay its own until it is kept; undo is its own too', () => {
  const { bench, store, drive } = opened();
  bench.get().startWhatIf!((now) => ({ ...now, name: 'if' }));
  expect(bench.get().startWhatIf).toBeNull();
  bench.get().dispatch(edit((now) => ({ ...now, name: 'if more' })));
  expect(store.get().present).toBe(drive);
  bench.get().dispatch({ type: 'undo' });
  expect(bench.get().drive.name).toBe('if');
  bench.get().keepWhatIf();
  expect(store.get().present.name).toBe('if');
  expect(bench.get().startWhatIf).not.toBeNull();
  bench.get().dispatch({ type: 'undo' });
  expect(bench.get().drive).toBe(drive);
});

test('a what-if that was under way is there again; thrown away, the drive is as it was', () => {
  const { bench, drive } = opened({ ...newDrive('kept what-if') });
  expect(bench.get().drive.name).toBe('kept what-if');
  bench.get().throwAwayWhatIf();
  expect(bench.get().drive).toBe(drive);
});

test('a preview and a pose are looked at only, and go with the next edit or stage', () => {
  const { bench, store, drive } = opened();
  bench.get().setPreview({ ...drive, name: 'looked at' });
  bench.get().setPose({ ...drive, name: 'posed' });
  expect(bench.get()).toMatchObject({ drive: { name: 'looked at' }, shown: { drive: { name: 'posed' } } });
  expect(store.get().present).toBe(drive);
  bench.get().leaveStage();
  expect(bench.get()).toMatchObject({ drive, preview: null, shown: { drive } });
  bench.get().setPreview({ ...drive, name: 'looked at' });
  bench.get().dispatch(edit((now) => ({ ...now, name: 'edited' })));
  expect(bench.get()).toMatchObject({ preview: null, drive: { name: 'edited' } });
});

test('after the bench is left, the drive goes on without it', () => {
  const { bench, store, drive, end } = opened();
  let calls = 0;
  bench.subscribe(() => (calls += 1));
  end();
  store.dispatch(edit((now) => ({ ...now, name: 'elsewhere' })));
  expect(calls).toBe(0);
  const again = bench.connect();
  expect(bench.get().drive.name).toBe('elsewhere');
  again();
  expect(drive.name).toBe('bench');
});
