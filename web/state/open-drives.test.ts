import { onBench, openDrive, openDriveOf, type OpenDrive } from './open-drives';
import type { DriveOpened } from '@emery/core/api';
import { type Drive, newDrive } from '@emery/core/drive';

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
  saveId: '',
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
  Object.assign(server, { revision: 1, document: newDrive('start'), saveId: '', up: true, slow: null });
  globalThis.fetch = async (_path: unknown, init?: RequestInit) => {
    const request = JSON.parse(init!.body as string) as { revision: number; saveId: string; document: Drive };
    if (!server.up) throw new TypeError('away');
    await server.slow;
    const answer = (status: number, body: unknown) =>
      ({ ok: status === 200, status, text: () => Promise.resolve(JSON.stringify(body)) }) as Response;
    if (request.revision === server.revision)
      Object.assign(server, { revision: server.revision + 1, document: request.document, saveId: request.saveId });
    else if (request.saveId !== server.saveId) return answer(409, { title: 'x', detail: 'x', current: opened() });
    return answer(200, { revision: server.revision, updatedAt: '2026-01-01T10:00:01Z' });
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
