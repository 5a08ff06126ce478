import { ApiProblem } from '../api/client';
import { JobQueue } from './job-queue';
import type { JobEvent } from '@emery/core/job';

const tick = (step: string): JobEvent => ({
  id: step,
  at: '2026-11-26T10:00:00Z',
  by: 'Ann',
  kind: 'tick',
  step,
  done: true,
});
const away = () => new ApiProblem(0, 'No answer', 'The Emery server does not answer.');

/** A device's storage, and a server that can be away, answer late, or lose its answer after it took what was sent. */
function device() {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (k: number) => [...kept.keys()][k] ?? null,
    get length() {
      return kept.size;
    },
  };
  const there = new Map<string, JobEvent>();
  const server = { mode: 'up' as 'up' | 'away' | 'answer lost' | 'signed' };
  const post = async (events: readonly JobEvent[]) => {
    await Promise.resolve();
    if (server.mode === 'away') throw away();
    if (server.mode === 'signed') throw new ApiProblem(409, 'Signed off', 'This job was signed off by Bob.');
    for (const event of events) there.set(event.id, event);
    if (server.mode === 'answer lost') throw away();
  };
  const taken: string[] = [];
  const open = () => new JobQueue('j', post, (events) => taken.push(...events.map(({ id }) => id)), storage);
  return { kept, there, server, taken, open };
}
const settle = async () => {
  for (let k = 0; k < 20; k += 1) await Promise.resolve();
};

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('what happens is sent at once, and nothing is kept once the server has it', async () => {
  const { open, there, kept, taken } = device();
  const queue = open();
  queue.put(tick('a'));
  expect(kept.size).toBe(1);
  queue.put(tick('b'));
  await settle();
  expect([...there.keys()]).toEqual(['a', 'b']);
  expect(taken).toEqual(['a', 'b']);
  expect(queue.get()).toEqual({ waiting: [], problem: null, refused: null });
  expect(kept.size).toBe(0);
});

test('with the server away it waits, says so, and goes by itself once the server is back', async () => {
  const { open, there, server } = device();
  server.mode = 'away';
  const queue = open();
  queue.put(tick('a'));
  await settle();
  expect(queue.get()).toMatchObject({
    waiting: [{ id: 'a' }],
    problem: expect.stringMatching(/does not answer/) as string,
  });
  queue.put(tick('b'));
  await settle();
  server.mode = 'up';
  jest.advanceTimersByTime(20_000);
  await settle();
  expect([...there.keys()]).toEqual(['a', 'b']);
  expect(queue.get().waiting).toEqual([]);
});

test('a flat phone: opened anew it goes on with what was not taken in', async () => {
  const { open, there, server } = device();
  server.mode = 'away';
  const first = open();
  first.put(tick('a'));
  first.put(tick('b'));
  await settle();
  first.stop();
  server.mode = 'up';
  const second = open();
  expect(second.get().waiting.map(({ id }) => id)).toEqual(['a', 'b']);
  await second.send();
  await settle();
  expect([...there.keys()]).toEqual(['a', 'b']);
});

test('two pages of one device: neither takes from the other what it keeps', async () => {
  const { open, there, server } = device();
  server.mode = 'away';
  const [one, two] = [open(), open()];
  one.put(tick('a'));
  two.put(tick('b'));
  await settle();
  server.mode = 'up';
  await one.send();
  await settle();
  two.stop();
  const third = open();
  expect(third.get().waiting.map(({ id }) => id)).toEqual(['b']);
  await third.send();
  await settle();
  expect([...there.keys()]).toEqual(['a', 'b']);
});

test('an answer that is lost: it is sent again, and is there once', async () => {
  const { open, there, server, taken } = device();
  server.mode = 'answer lost';
  const queue = open();
  queue.put(tick('a'));
  await settle();
  expect(queue.get().waiting).toHaveLength(1);
  server.mode = 'up';
  jest.advanceTimersByTime(20_000);
  await settle();
  expect(there.size).toBe(1);
  expect(taken).toEqual(['a']);
});

test('signed off meanwhile: nothing is sent for ever, and what was not taken in can be read', async () => {
  const { open, server } = device();
  server.mode = 'signed';
  const queue = open();
  queue.put(tick('a'));
  await settle();
  expect(queue.get()).toMatchObject({
    waiting: [],
    refused: { why: 'This job was signed off by Bob.', events: [{ id: 'a' }] },
  });
  queue.forgetRefused();
  expect(queue.get().refused).toBeNull();
});

test('a device that keeps nothing, or something else than ours, works all the same', async () => {
  const sent: string[] = [];
  const post = async (events: readonly JobEvent[]) => void sent.push(...events.map(({ id }) => id));
  const full = {
    length: 2,
    key: (k: number) => `emery-job:j:${k}`,
    getItem: (key: string) => (key.endsWith('0') ? 'no JSON' : '{"no":"event"}'),
    removeItem: () => undefined,
    setItem: () => {
      throw new Error('full');
    },
  };
  const queue = new JobQueue('j', post, () => undefined, full);
  queue.put(tick('a'));
  await settle();
  expect(sent).toEqual(['a']);
});
