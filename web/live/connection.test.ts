/** @jest-environment jsdom */
import { signedOut } from '../access/here';
import { listen, moveTab } from './connection';
import { live, onLive } from './messages';
import type { HereTab, LiveMessage, Me } from '@emery/core/api';

/* One tab of a browser without locks, so it leads; what it listens by stands in here. */

Object.defineProperty(globalThis, 'crypto', { value: { randomUUID: () => '00000000-0000-4000-8000-000000000001' } });

class Source {
  static made: Source[] = [];
  static OPEN = 1;
  static CLOSED = 2;
  readyState = Source.OPEN;
  private readonly listeners = new Map<string, (event: object) => void>();

  constructor(readonly url: string) {
    Source.made.push(this);
  }
  addEventListener = (kind: string, listener: (event: object) => void) => void this.listeners.set(kind, listener);
  close = () => (this.readyState = Source.CLOSED);
  send = (message: object) => this.listeners.get('message')?.({ data: JSON.stringify(message) });
  refuse = () => {
    this.readyState = Source.CLOSED;
    this.listeners.get('error')?.({});
  };
}

let role: Me['role'] = 'lent';
globalThis.fetch = jest.fn(() =>
  Promise.resolve({
    ok: true,
    status: 200,
    headers: new Headers(),
    text: () => Promise.resolve(JSON.stringify({ role, name: null, machine: false, job: null, owned: true })),
  }),
) as never;
Object.assign(globalThis, { EventSource: Source, BroadcastChannel: undefined });

const places: (readonly HereTab[])[] = [];
const heard: LiveMessage[] = [];
const last = () => Source.made[Source.made.length - 1];
const settle = (ms: number) => jest.advanceTimersByTimeAsync(ms);

test('one device listens: not where it is lent, from the last number on where it is refused for a while', async () => {
  jest.useFakeTimers();
  onLive((message) => heard.push(message));
  listen((tabs) => places.push(tabs));
  await settle(20_000);
  // Lent for a job: nothing is asked for that would be refused.
  expect(Source.made).toHaveLength(0);
  role = 'bench';
  await settle(15_000);
  expect(last()?.url).toMatch(/^\/api\/live\?device=[\w-]{8,36}$/);
  expect(live.get()).toBe(false);
  last()?.send({ kind: 'hello', seq: 40, gap: true });
  expect(live.get()).toBe(true);
  moveTab({ tab: 't', drive: 'd', stage: 'size', part: '' });
  expect(places.at(-1)).toEqual([{ tab: 't', drive: 'd', stage: 'size', part: '' }]);
  last()?.send({ kind: 'lists', seq: 44, topics: ['stock'], jobs: [], drives: [] });
  expect(heard.map(({ kind, seq }) => [kind, seq])).toEqual([
    ['hello', 40],
    ['lists', 44],
  ]);
  last()?.refuse();
  expect(live.get()).toBe(false);
  await settle(3500);
  expect(last()?.url).toMatch(/&after=44$/);
  last()?.send({ kind: 'hello', seq: 44, gap: false });
  // Caught up with once, whatever was open meanwhile.
  expect(heard.filter(({ kind }) => kind === 'hello')).toHaveLength(2);
  const before = Source.made.length;
  signedOut.set({ why: 'idle', words: 'Signed out' });
  expect([live.get(), last()?.readyState]).toEqual([false, Source.CLOSED]);
  await settle(60_000);
  expect(Source.made).toHaveLength(before);
  signedOut.set(null);
  await settle(100);
  expect(Source.made).toHaveLength(before + 1);
});
