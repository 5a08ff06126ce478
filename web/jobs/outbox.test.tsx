/** @jest-environment jsdom */
import { act, render, screen } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { outboxWanted } from './kept';
import OutboxNotice from './OutboxNotice';
import { outbox } from './outbox';
import type { JobEvent } from '@emery/core/job';

const note = (id: string): JobEvent => ({
  id,
  at: '2026-11-29T09:00:00Z',
  by: 'Ann',
  kind: 'note',
  text: `note ${id}`,
});
/** What the server was sent, by address; it is away while it says so. */
const sent: { url: string; ids: string[] }[] = [];
let away = true;
let refuses = false;
const say = (status: number, body: object) =>
  Promise.resolve({ ok: status < 300, status, text: () => Promise.resolve(JSON.stringify(body)) });
global.fetch = jest.fn((url: string, { body }: { body: string }) => {
  if (away) return Promise.reject(new TypeError('away'));
  if (url.endsWith('/health')) return say(200, {});
  const ids = (JSON.parse(body) as { events: JobEvent[] }).events.map(({ id }) => id);
  if (refuses) return say(409, { title: 'Signed off', detail: 'Signed off by Bob.', refused: ids });
  sent.push({ url, ids });
  return say(200, { taken: ids.length, late: [] });
}) as never;

beforeEach(() => {
  jest.useFakeTimers();
  [away, refuses] = [true, false];
  sent.length = 0;
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
  localStorage.clear();
});
const settle = (ms = 0) => act(() => jest.advanceTimersByTimeAsync(ms));
const closing = () => {
  const event = new Event('beforeunload', { cancelable: true });
  window.dispatchEvent(event);
  return event.defaultPrevented;
};
const show = (at: string) =>
  render(
    <MemoryRouter initialEntries={[at]}>
      <OutboxNotice />
    </MemoryRouter>,
  );

test('any page sends what another page left, says what waits in the meantime, and is quiet once it is gone', async () => {
  localStorage.setItem('emery-job:x:1', JSON.stringify(note('1')));
  localStorage.setItem('emery-job:z:2', JSON.stringify(note('2')));
  show('/');
  await settle(100);
  // Most of it is gone before anybody could read that it waits.
  expect(screen.queryByRole('status')).toBeNull();
  await settle(5000);
  expect(screen.getByRole('status').textContent).toMatch(
    /1 entry of a job waits on this device\. It is sent while any/,
  );
  expect(closing()).toBe(false);
  away = false;
  await settle(40_000);
  expect(sent.map(({ url, ids }) => `${url} ${ids.join()}`).sort()).toEqual([
    '/api/jobs/x/events 1',
    '/api/jobs/z/events 2',
  ]);
  expect([screen.queryByRole('status'), localStorage.length]).toEqual([null, 0]);
});

test('put down while this page is open by another that is closed, it goes from here', async () => {
  show('/belts');
  away = false;
  await settle(10);
  localStorage.setItem('emery-job:w:3', JSON.stringify(note('3')));
  // Looked for every so often, and at once when the network is back.
  window.dispatchEvent(new Event('online'));
  await settle(10);
  expect(sent).toEqual([{ url: '/api/jobs/w/events', ids: ['3'] }]);
});

test('what was refused is told on every page but its own job’s, until it was read', async () => {
  [away, refuses] = [false, true];
  outbox.of('r').put(note('4'));
  const page = show('/counter');
  await settle(10);
  expect(screen.getByRole('status').textContent).toMatch(/1 entry of a job was not saved\. It stays on this device/);
  expect(screen.getByRole('link').getAttribute('href')).toBe('/jobs/r');
  page.unmount();
  show('/jobs/r');
  await settle(10);
  expect(screen.queryByRole('status')).toBeNull();
  act(() => outbox.of('r').forgetRefused());
  expect(localStorage.length).toBe(0);
});

test('where nothing can be stored it says so, and closing the page asks until it is sent', async () => {
  jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  show('/');
  outbox.of('f').put(note('5'));
  await settle(5000);
  expect(screen.getByRole('status').textContent).toMatch(/This browser cannot store it: keep this page open/);
  expect(closing()).toBe(true);
  away = false;
  await settle(40_000);
  expect([closing(), sent.at(-1)]).toEqual([false, { url: '/api/jobs/f/events', ids: ['5'] }]);
});

test('its code is wanted once anything is kept', () => expect(outboxWanted.get()).toBe(true));
