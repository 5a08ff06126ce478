import { type ApiProblem, ask } from '../api/client';
import { clockOff, heard, newVersion, noAnswerWords, signedOut } from './here';
import { accessWanted } from './wanted';
import { agoWords, clockWords, digitsWords } from './words';

const NOW = Date.parse('2026-11-30T10:00:00Z');
const said = (date: string | null, build: string | null = null) =>
  heard(new Headers({ ...(date && { date }), ...(build && { 'emery-build': build }) }), NOW);

test.each([
  ['Mon, 30 Nov 2026 10:00:00 GMT', 0, ''],
  ['Mon, 30 Nov 2026 09:57:10 GMT', 0, ''],
  ['Mon, 30 Nov 2026 09:50:00 GMT', 10, "The clock of this device is 10 minutes ahead of Emery's."],
  ['Mon, 30 Nov 2026 13:00:00 GMT', -180, "The clock of this device is 3 hours behind Emery's."],
  ['Sat, 28 Nov 2026 10:00:00 GMT', 2880, "The clock of this device is 48 hours ahead of Emery's."],
])('a server that says %s: %d minutes off', (date, minutes, words) => {
  said(date);
  expect(clockOff.get()).toBe(minutes);
  expect(accessWanted.get()).toBe(minutes !== 0);
  if (minutes !== 0) expect(clockWords(minutes)).toBe(words);
});

test('the first version that is heard of is this page’s; another is a new one; an answer without either says nothing', () => {
  said('Mon, 30 Nov 2026 10:00:00 GMT', 'a');
  expect(newVersion.get()).toBe(false);
  said(null, 'b');
  expect(newVersion.get()).toBe(true);
  heard(undefined);
  heard(new Headers());
  expect([newVersion.get(), clockOff.get()]).toEqual([true, 0]);
  said(null, 'a');
  expect(newVersion.get()).toBe(false);
});

test('a server that does not answer: the network of this device, or the server', async () => {
  expect(noAnswerWords()).toBe('The Emery server does not answer. Is it running?');
  const online = jest.spyOn(navigator, 'onLine', 'get').mockReturnValue(false);
  globalThis.fetch = jest.fn(() => Promise.reject(new TypeError('Failed to fetch')));
  const failed = await ask('GET', '/shop').catch((error: unknown) => error as ApiProblem);
  expect(failed).toMatchObject({
    status: 0,
    message: 'This device has no network. Connect it to the network of the shop.',
  });
  online.mockRestore();
});

test('not signed in is told over the page, and the request waits for it', async () => {
  const text = JSON.stringify({ title: 'Not signed in', detail: 'This device was shut out.', ended: 'shut-out' });
  const answer = { ok: false, status: 401, headers: new Headers(), text: () => Promise.resolve(text) };
  globalThis.fetch = jest.fn(() => Promise.resolve(answer)) as never;
  const refused = await ask('GET', '/shop').catch((error: unknown) => error as ApiProblem);
  expect(refused).toMatchObject({ status: 401, needsSignIn: true, passing: false });
  expect(signedOut.get()).toEqual({ why: 'shut-out', words: 'This device was shut out.' });
  const told = jest.fn();
  const end = accessWanted.subscribe(told);
  signedOut.set(null);
  expect(told).toHaveBeenCalledTimes(1);
  end();
});

test('digits in threes; how long ago', () => {
  expect(digitsWords('042917')).toBe('042 917');
  const ago = (minutes: number) => agoWords(new Date(NOW - minutes * 60_000).toISOString(), NOW);
  expect([0, 1, 2, 59, 60, 47 * 60, 48 * 60].map(ago)).toEqual([
    ...['now', 'now', '2 min ago', '59 min ago', '1 h ago', '47 h ago', '2 days ago'],
  ]);
});
