/** @jest-environment jsdom */
import { forgetBegun, begunWaiting, beginDrive, sendAllBegun, sendBegun, sendWithoutVehicle } from './begun';
import { serverAway } from './away';
import { ask } from '../api/client';
import type { Drive } from '@emery/core/drive';

const drive = { format: 'emery-drive', version: 1, name: 'Field', crankRotation: 'cw', stations: [], belts: [] };

/** A store of answers as browsers have it, and a server that is away while it says so. */
const stored = new Map<string, string>();
const cache = {
  put: async (key: string, answer: { text: () => Promise<string> }) => void stored.set(key, await answer.text()),
  match: (key: string) =>
    Promise.resolve(
      stored.has(key) ? { text: () => Promise.resolve(stored.get(key)!), headers: new Map() } : undefined,
    ),
  delete: (key: string) => Promise.resolve(stored.delete(key)),
  keys: () => Promise.resolve([...stored.keys()]),
};
Object.assign(globalThis, {
  caches: { open: () => Promise.resolve(cache), delete: () => Promise.resolve(true) },
  Response: class {
    constructor(private readonly body: string) {}
    text = () => Promise.resolve(this.body);
  },
});
const sent: { method: string; url: string; body: { id: string; document: Drive } }[] = [];
let away = false;
let refuses = false;
let loses = false;
globalThis.fetch = jest.fn((url: string, { method = 'GET', body = '{}' }: { method?: string; body?: string } = {}) => {
  if (away) return Promise.reject(new TypeError('away'));
  if (method === 'POST') sent.push({ method, url, body: JSON.parse(body) as (typeof sent)[number]['body'] });
  if (loses) return Promise.reject(new TypeError('the answer was lost'));
  const [status, answer] = refuses
    ? [404, { title: 'Not found', detail: 'There is no such vehicle.' }]
    : [201, { id: 'made' }];
  return Promise.resolve({
    ok: status < 300,
    status,
    headers: new Map(),
    text: () => Promise.resolve(JSON.stringify(answer)),
  });
}) as never;

beforeEach(() => {
  jest.useFakeTimers();
  [away, refuses, loses] = [false, false, false];
  sent.length = 0;
  stored.clear();
  localStorage.clear();
});
afterEach(() => jest.useRealTimers());

test('with the server there a drive is made at once, and nothing waits', async () => {
  await beginDrive(drive as never, { id: 'v1', name: 'Truck' });
  expect(sent).toHaveLength(1);
  expect(sent[0]!.body).toMatchObject({ vehicleId: 'v1', document: { name: 'Field' } });
  expect(begunWaiting.get().count).toBe(0);
});

test('begun with the server away it opens here, and goes up once, under the name it had from the first', async () => {
  away = true;
  const begun = await beginDrive(drive as never, { id: 'v1', name: 'Truck' });
  expect(begunWaiting.get()).toEqual({ count: 1, refused: null });
  expect(serverAway.get()).toBe(true);
  // As the bench asks for it, also after a reload.
  expect(await ask(`GET`, `/drives/${begun.id}`)).toMatchObject({ id: begun.id, vehicleName: 'Truck', revision: 1 });
  await sendAllBegun();
  expect(begunWaiting.get().count).toBe(1);
  away = false;
  await Promise.all([sendAllBegun(), sendBegun(begun.id), sendBegun(begun.id)]);
  expect(sent.map(({ body }) => body.id)).toEqual([begun.id]);
  expect(begunWaiting.get()).toEqual({ count: 0, refused: null });
});

test('an answer that is lost: the same drive is asked for again, not another', async () => {
  loses = true;
  const begun = await beginDrive(drive as never, null);
  loses = false;
  await sendAllBegun();
  expect(new Set(sent.map(({ body }) => body.id))).toEqual(new Set([begun.id]));
});

test('what the server does not take stays on this device and is told, until it is let go', async () => {
  away = true;
  const begun = await beginDrive(drive as never, { id: 'gone', name: 'Truck' });
  [away, refuses] = [false, true];
  await sendAllBegun();
  expect(begunWaiting.get()).toEqual({
    count: 1,
    refused: { id: begun.id, problem: 'There is no such vehicle.' },
  });
  // Without its vehicle it goes up all the same.
  refuses = false;
  await sendWithoutVehicle(begun.id);
  expect(sent.at(-1)!.body).toEqual({ id: begun.id, document: drive });
  expect(begunWaiting.get()).toEqual({ count: 0, refused: null });
});

test('or it is let go', async () => {
  away = true;
  const begun = await beginDrive(drive as never, { id: 'gone', name: 'Truck' });
  [away, refuses] = [false, true];
  await sendAllBegun();
  expect(begunWaiting.get().refused?.id).toBe(begun.id);
  forgetBegun(begun.id);
  expect(begunWaiting.get()).toEqual({ count: 0, refused: null });
});

test('a plain no is a no: nothing is begun', async () => {
  refuses = true;
  await expect(beginDrive(drive as never, null)).rejects.toThrow('There is no such vehicle.');
  expect(begunWaiting.get().count).toBe(0);
});
