import { screen } from '@testing-library/react';
import { DEMO } from '../../core/test/demo';
import { onBench, settle } from '../test/bench-page';
import { DRIVE_ID } from '../test/fake-server';
import { seen } from '../test/seen';
import { heldSeen } from '../test/views';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const SAVE = new RegExp(`^/drives/${DRIVE_ID}$`);
const notices = (page: Element) => seen(page.querySelector('.bench')!, { drawings: false }).slice(0, 60);
const saves = (bench: Awaited<ReturnType<typeof onBench>>) =>
  bench.server.sent.filter(({ method, path }) => method === 'PUT' && SAVE.test(path));

async function renamed(refusal?: { status: number; detail: string; more?: object }) {
  const bench = await onBench(DEMO.pickup, 'route');
  if (refusal) bench.server.refuse('PUT', SAVE, refusal.status, refusal.detail, refusal.more);
  await bench.write('Name of the drive', 'Fan belts');
  await settle(4);
  return bench;
}

test('a change is saved once, over the revision that was read, and the header says so', async () => {
  const bench = await renamed();
  expect(saves(bench)).toHaveLength(1);
  expect(saves(bench)[0]!.body).toMatchObject({ revision: 1, document: { name: 'Fan belts' } });
  expect(document.querySelector('[data-save]')!.getAttribute('data-save')).toBe('saved');
  expect(document.title).toBe('Test lorry · Fan belts · Emery');
});

test('one whose server is away waits, says why, and goes by itself', async () => {
  const bench = await renamed({ status: 503, detail: 'The database is not answering.' });
  await settle(12);
  expect(saves(bench).length).toBeGreaterThan(1);
  expect(saves(bench).at(-1)!.body).toEqual(saves(bench)[0]!.body);
  expect(document.querySelector('[data-save]')!.getAttribute('data-save')).toBe('saved');
});

const theirs = {
  id: DRIVE_ID,
  vehicleId: 'v1',
  vehicleName: 'Test lorry',
  revision: 5,
  updatedAt: '2026-11-19T08:00:00.000Z',
  document: { ...DEMO.pickup, name: 'Theirs' },
};

test('two versions are laid side by side, with what differs; mine goes over theirs only when it is said', async () => {
  const bench = await renamed({ status: 409, detail: 'Saved elsewhere.', more: { current: theirs } });
  heldSeen('conflict', notices(bench.page));
  expect(saves(bench)).toHaveLength(1);
  await bench.press('Replace theirs with mine');
  await settle(4);
  expect(saves(bench).at(-1)!.body).toMatchObject({ revision: 5, document: { name: 'Fan belts' } });
  expect(screen.queryByRole('alertdialog')).toBeNull();
});

test('theirs stands where that is chosen, and undo brings mine back', async () => {
  const bench = await renamed({ status: 409, detail: 'Saved elsewhere.', more: { current: theirs } });
  await bench.press('Take theirs');
  await settle(4);
  expect(bench.drive().name).toBe('Theirs');
  expect(saves(bench)).toHaveLength(1);
  await bench.press('Undo');
  expect(bench.drive().name).toBe('Fan belts');
});

test('a drive that was deleted meanwhile can be brought back with what was drawn', async () => {
  const bench = await renamed({ status: 404, detail: 'There is no such drive.', more: { deleted: 'drive' } });
  heldSeen('deleted-meanwhile', notices(bench.page));
});

test('one that the server refuses says why, and keeps what was drawn', async () => {
  const bench = await renamed({ status: 422, detail: 'The name is too long.' });
  heldSeen('refused', notices(bench.page));
  expect(bench.drive().name).toBe('Fan belts');
});
