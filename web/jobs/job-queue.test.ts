import { ApiProblem } from '../api/client';
import { JobQueue, jobsKept, type Keep } from './job-queue';
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

const storageOf = (kept: Map<string, string>, full = false): Keep => ({
  getItem: (key) => kept.get(key) ?? null,
  setItem: (key, value) => {
    if (full) throw new DOMException('full', 'QuotaExceededError');
    kept.set(key, value);
  },
  removeItem: (key) => void kept.delete(key),
  key: (k) => [...kept.keys()][k] ?? null,
  get length() {
    return kept.size;
  },
});

/** A device's storage, and a server that can be away, answer late, or lose its answer after it took what was sent. */
function device() {
  const kept = new Map<string, string>();
  const storage = storageOf(kept);
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
  expect(queue.get()).toEqual({ waiting: [], problem: null, refused: null, kept: true });
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
  const [first, second] = [open(), open()];
  first.put(tick('a'));
  second.put(tick('b'));
  await settle();
  server.mode = 'up';
  await first.send();
  await settle();
  second.stop();
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

const note = (id: string, text = 'The bracket is cracked'): JobEvent => ({
  ...{ id, at: `2026-11-26T10:00:0${id.length}Z`, by: 'Ann', kind: 'note', text },
});

test('a remark that is refused outlives the page, whole, until it was read; ticks beside it go on', async () => {
  const { kept, there, open } = device();
  const sent: string[][] = [];
  const post = async (events: readonly JobEvent[]) => {
    await Promise.resolve();
    sent.push(events.map(({ id }) => id));
    const refused = events.filter(({ kind }) => kind !== 'tick').map(({ id }) => id);
    if (refused.length > 0) throw new ApiProblem(409, 'Signed off', 'Signed off by Bob.', [], { refused });
    for (const event of events) there.set(event.id, event);
    return { late: events.map(({ id }) => id) };
  };
  const storage = storageOf(kept);
  const taken: JobEvent[] = [];
  const queue = new JobQueue('j', post, (events) => taken.push(...events), storage);
  queue.put(tick('a'));
  queue.put(note('bb'));
  queue.put(tick('ccc'));
  await settle();
  await settle();
  expect([...there.keys()]).toEqual(['a', 'ccc']);
  // The story has them as late, and so has this page.
  expect(taken).toMatchObject([
    { id: 'a', late: true },
    { id: 'ccc', late: true },
  ]);
  expect(queue.get()).toMatchObject({ waiting: [], kept: true, refused: { events: [{ id: 'bb' }] } });
  queue.stop();
  const again = new JobQueue('j', post, () => undefined, storage);
  expect(again.get().refused).toMatchObject({
    why: 'Signed off by Bob.',
    events: [{ id: 'bb', text: 'The bracket is cracked' }],
  });
  expect(jobsKept(storage)).toEqual(new Set(['j']));
  await again.send();
  expect(sent.flat().filter((id) => id === 'bb')).toHaveLength(1);
  again.forgetRefused(['bb']);
  expect([again.get().refused, kept.size, jobsKept(storage).size]).toEqual([null, 0, 0]);
  expect(open().get().refused).toBeNull();
});

test('one that is refused by its place does not take the others with it', async () => {
  const { kept, there } = device();
  const post = async (events: readonly JobEvent[]) => {
    await Promise.resolve();
    const k = events.findIndex(({ id }) => id === 'bb');
    if (k >= 0)
      throw new ApiProblem(422, 'Not accepted', 'too long', [{ path: `events[${k}].text`, message: 'too long' }]);
    for (const event of events) there.set(event.id, event);
  };
  const queue = new JobQueue('j', post, () => undefined, storageOf(kept));
  for (const event of [tick('a'), note('bb'), tick('c')]) queue.put(event);
  for (let k = 0; k < 5; k += 1) await settle();
  expect([...there.keys()]).toEqual(['a', 'c']);
  expect(queue.get().refused).toMatchObject({ why: 'too long', events: [{ id: 'bb' }] });
});

test.each([
  ['full', () => storageOf(new Map(), true)],
  ['forbidden', () => null],
])('where the storage is %s it says that nothing is kept, and sends all the same', async (_how, storage) => {
  const there: string[] = [];
  let away = true;
  const post = async (events: readonly JobEvent[]) => {
    await Promise.resolve();
    if (away) throw new ApiProblem(0, 'No answer', 'away');
    there.push(...events.map(({ id }) => id));
  };
  const queue = new JobQueue('j', post, () => undefined, storage());
  queue.put(note('a'));
  await settle();
  expect(queue.get()).toMatchObject({ kept: false, waiting: [{ id: 'a' }] });
  away = false;
  jest.advanceTimersByTime(20_000);
  await settle();
  expect([there, queue.get().kept]).toEqual([['a'], true]);
});

test('what another page left is taken on, once', async () => {
  const { open, server, there } = device();
  server.mode = 'away';
  const [first, second] = [open(), open()];
  first.put(note('bb'));
  first.put(tick('a'));
  await settle();
  first.stop();
  second.adopt();
  second.adopt();
  expect(
    second
      .get()
      .waiting.map(({ id }) => id)
      .sort(),
  ).toEqual(['a', 'bb']);
  server.mode = 'up';
  await second.send();
  await settle();
  expect([...there.keys()].sort()).toEqual(['a', 'bb']);
});
