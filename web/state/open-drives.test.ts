import { onBench, openDrive, openDriveOf, type OpenDrive } from './open-drives';
import type { DriveOpened } from '@emery/core/api';
import { type Drive, newDrive } from '@emery/core/drive';
import { keptOf, merged, type Patch, startDevice } from '@emery/core/together';

Object.defineProperty(globalThis, 'crypto', { value: { randomUUID: () => `id-${Math.random()}` } });
Object.defineProperty(navigator, 'locks', {
  configurable: true,
  value: { request: () => Promise.resolve(), query: () => Promise.resolve({ held: [] }) },
});
Object.defineProperty(AbortSignal, 'timeout', { configurable: true, value: () => new AbortController().signal });

/** A server of one drive behind `fetch`, that can be away or slow. */
const server = {
  revision: 1,
  document: newDrive('start') as Drive,
  saves: [] as string[],
  up: true,
  slow: null as Promise<void> | null,
};
let number = 0;
const opened = (): DriveOpened => ({
  id: `drive-${number}`,
  vehicleId: 'v',
  savedBy: '',
  vehicleName: 'Loader',
  name: 'x',
  revision: server.revision,
  updatedAt: '2026-01-01T10:00:00Z',
  document: server.document,
});

beforeEach(() => {
  number += 1;
  localStorage.clear();
  Object.assign(server, { revision: 1, document: newDrive('start'), saves: [], up: true, slow: null });
  globalThis.fetch = async (_path: unknown, init?: RequestInit) => {
    if (!server.up) throw new TypeError('away');
    const patch = JSON.parse(init!.body as string) as Patch;
    await server.slow;
    const { drive, clashes } = merged(server.document, server.saves.includes(patch.saveId) ? [] : patch.changes);
    if (drive !== server.document)
      Object.assign(server, { revision: server.revision + 1, document: drive, saves: [...server.saves, patch.saveId] });
    const answer = {
      revision: server.revision,
      updatedAt: '2026-01-01T10:00:01Z',
      since: null,
      document: drive,
      clashes,
    };
    return { ok: true, status: 200, text: () => Promise.resolve(JSON.stringify(answer)) } as Response;
  };
});

const until = async (holds: () => boolean) => {
  for (let tries = 0; tries < 600 && !holds(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(holds()).toBe(true);
};
const rename = ({ store }: OpenDrive, name: string) =>
  store.dispatch({ type: 'edit', change: (drive) => ({ ...drive, name }) });
const saved = ({ saver }: OpenDrive) => saver.getState().kind === 'saved' && !saver.isDirty();

test('left with the server away and opened again in the same page: the edit is there, and both are saved', async () => {
  const first = await openDrive(opened());
  const leave = onBench(first);
  server.up = false;
  rename(first, 'first edit');
  await until(() => first.saver.getState().kind === 'waiting');
  leave();
  server.up = true;
  // The bench asks the page before it asks the server.
  const again = openDriveOf(opened().id)!;
  onBench(again);
  expect(again.store.get().present.name).toBe('first edit');
  again.store.dispatch({ type: 'edit', change: (drive) => ({ ...drive, crankRotation: 'ccw' }) });
  await until(() => saved(again));
  expect(server.document).toMatchObject({ name: 'first edit', crankRotation: 'ccw' });
});

test('a slow save, Back, Forward and another edit is no conflict with oneself', async () => {
  const first = await openDrive(opened());
  const leave = onBench(first);
  let answer = () => {};
  server.slow = new Promise((resolve) => (answer = resolve));
  rename(first, 'slow');
  first.saver.nudge();
  await new Promise((resolve) => setTimeout(resolve, 20));
  leave();
  const again = openDriveOf(opened().id)!;
  expect(again).toBe(first);
  onBench(again);
  rename(again, 'slow and more');
  answer();
  server.slow = null;
  await until(() => saved(again));
  expect(server).toMatchObject({ revision: 3, document: { name: 'slow and more' } });
});

test('one that is all saved and on no bench is let go, so that the next opening reads it from the server', async () => {
  const open = await openDrive(opened());
  const leave = onBench(open);
  rename(open, 'changed');
  await until(() => saved(open));
  expect(openDriveOf(opened().id)).toBe(open);
  leave();
  expect(openDriveOf(opened().id)).toBeNull();
});

const leave = (page: string, name: string, at: string, revision = 1) =>
  localStorage.setItem(
    `emery-draft:drive-${number}:${page}`,
    JSON.stringify({ revision, document: { ...server.document, name }, at }),
  );
/** As this Emery leaves them: what was done, over which revision. */
const leaveChange = (page: string, change: Partial<Drive>, at: string, revision = 1) => {
  const device = { ...startDevice(revision, newDrive('start')), present: { ...newDrive('start'), ...change } };
  localStorage.setItem(`emery-draft:drive-${number}:${page}`, JSON.stringify({ kept: keptOf(device), at }));
};
const keys = () => Object.keys(localStorage).filter((key) => key.startsWith('emery-draft:'));

test('of two drafts left behind the newest is taken up and saved, and the other stays until somebody decides', async () => {
  leave('page-a', 'older', '2026-01-01T10:00:00Z');
  leave('page-b', 'newer', '2026-01-01T11:00:00Z');
  const open = await openDrive(opened());
  await until(() => saved(open));
  expect(server.document.name).toBe('newer');
  expect(open.left.get().map(({ document }) => document.name)).toEqual(['older']);
  expect(keys()).toEqual([expect.stringContaining('page-a')]);
  open.left.forget(open.left.get()[0]!);
  expect([keys(), open.left.get()]).toEqual([[], []]);
});

test("a draft over an older revision waits for somebody to look at it, and the server's drive is shown", async () => {
  leave('page-a', 'mine', '2026-01-01T10:00:00Z', 1);
  server.revision = 4;
  const open = await openDrive(opened());
  expect([
    open.store.get().present.name,
    open.saver.isDirty(),
    open.left.get().map(({ document }) => document.name),
  ]).toEqual(['start', false, ['mine']]);
  expect(keys()).toHaveLength(1);
});

test('a draft that the server has already is no draft', async () => {
  leave('page-a', 'start', '2026-01-01T10:00:00Z');
  const open = await openDrive(opened());
  expect([keys(), open.left.get(), open.saver.isDirty()]).toEqual([[], [], false]);
});

test('with no room of its own the draft that was taken up stays where it was left until the server has it', async () => {
  leave('page-a', 'left', '2026-01-01T10:00:00Z');
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  const open = await openDrive(opened());
  expect(keys()).toEqual([expect.stringContaining('page-a')]);
  await until(() => saved(open));
  full.mockRestore();
  expect([keys(), server.document.name]).toEqual([[], 'left']);
});

test('what several pages left is all taken up, over whatever was saved since; what two changed is asked about', async () => {
  server.document = { ...newDrive('theirs'), use: { bins: [] } };
  server.revision = 4;
  leaveChange('page-a', { crankRotation: 'ccw' }, '2026-01-01T10:00:00Z');
  leaveChange('page-b', { name: 'mine', speeds: { idle: 650 } }, '2026-01-01T11:00:00Z');
  const open = await openDrive(opened());
  await until(() => saved(open));
  expect(server.document).toEqual({
    ...newDrive('theirs'),
    ...{ use: { bins: [] }, crankRotation: 'ccw', speeds: { idle: 650 } },
  });
  expect(open.saver.getQuestions()).toMatchObject([{ changes: [{ at: ['name'], now: 'mine' }] }]);
  // Left with the question open, it is there again.
  onBench(open)();
  expect(openDriveOf(opened().id)?.saver.getQuestions()).toHaveLength(1);
});

test('a save that was taken before the page was shut is sent again under its name, and is taken once', async () => {
  server.document = { ...newDrive('start'), name: 'mine, and theirs since' };
  server.saves = ['taken'];
  server.revision = 3;
  const kept = {
    revision: 1,
    sent: { revision: 1, saveId: 'taken', changes: [{ at: ['name'], was: 'start', now: 'mine' }] },
  };
  localStorage.setItem(
    `emery-draft:drive-${number}:page-a`,
    JSON.stringify({ kept: { ...kept, changes: [], questions: [] }, at: '2026-01-01T10:00:00Z' }),
  );
  const open = await openDrive(opened());
  await until(() => saved(open));
  expect(server.document.name).toBe('mine, and theirs since');
  expect(open.store.get().present.name).toBe('mine, and theirs since');
  expect(open.saver.getQuestions()).toEqual([]);
  expect(keys()).toEqual([]);
});

test('an undo takes back what was done here, and nothing that others did since', async () => {
  const open = await openDrive(opened());
  onBench(open);
  rename(open, 'mine');
  await until(() => saved(open));
  const changes = [{ at: ['crankRotation'], was: 'cw', now: 'ccw' }];
  server.document = { ...server.document, crankRotation: 'ccw' };
  server.revision += 1;
  open.saver.hear({ revision: server.revision, changes, by: 'Anna', at: '', saveId: 'theirs' });
  await until(() => open.store.get().present.crankRotation === 'ccw');
  open.store.dispatch({ type: 'undo' });
  expect(open.store.get().present).toMatchObject({ name: 'start', crankRotation: 'ccw' });
  open.store.dispatch({ type: 'redo' });
  expect(open.store.get().present).toMatchObject({ name: 'mine', crankRotation: 'ccw' });
  await until(() => saved(open));
  expect(server.document).toMatchObject({ name: 'mine', crankRotation: 'ccw' });
});
