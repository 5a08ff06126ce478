import { screen } from '@testing-library/react';
import { DEMO } from '../../core/test/demo';
import { onBench, settle } from '../test/bench-page';
import { DRIVE_ID } from '../test/fake-server';
import { seen } from '../test/seen';
import { heldSeen } from '../test/views';
import { changeStation, type Drive, removeStation } from '@emery/core/drive';
import { type Change, changesBetween } from '@emery/core/together';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const SAVE = new RegExp(`^/drives/${DRIVE_ID}$`);
const notices = (page: Element) => seen(page.querySelector('.bench')!, { drawings: false }).slice(0, 60);
const saves = (bench: Awaited<ReturnType<typeof onBench>>) =>
  bench.server.sent.filter(({ method, path }) => method === 'PATCH' && SAVE.test(path));

async function renamed(refusal?: { status: number; detail: string; more?: object }) {
  const bench = await onBench(DEMO.pickup, 'route');
  if (refusal) bench.server.refuse('PATCH', SAVE, refusal.status, refusal.detail, refusal.more);
  await bench.write('Name of the drive', 'Fan belts');
  await settle(4);
  return bench;
}

test('a change is saved once, over the revision that was read, and the header says so', async () => {
  const bench = await renamed();
  expect(saves(bench)).toHaveLength(1);
  expect(saves(bench)[0]!.body).toMatchObject({ revision: 1, changes: [{ at: ['name'], now: 'Fan belts' }] });
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

/** As the server answers where somebody else has changed the same. */
const meanwhile = (theirs: Drive, changes: Change[]) => ({
  ...{ status: 200, detail: '' },
  more: {
    ...{ revision: 5, updatedAt: '2026-11-19T08:00:00.000Z', document: theirs, clashes: [{ why: 'changed', changes }] },
    since: null,
  },
});
const rename = { at: ['name'], was: DEMO.pickup.name, now: 'Fan belts' };

test('what two changed is asked about, that alone, and mine goes over theirs only when it is said', async () => {
  const bench = await renamed(meanwhile({ ...DEMO.pickup, name: 'Theirs', crankRotation: 'ccw' }, [rename]));
  heldSeen('question', notices(bench.page));
  expect(bench.drive()).toMatchObject({ name: 'Theirs', crankRotation: 'ccw' });
  expect(saves(bench)).toHaveLength(1);
  await bench.press('Use mine: "Fan belts"');
  await settle(4);
  expect(saves(bench).at(-1)!.body).toMatchObject({
    revision: 5,
    changes: [{ at: ['name'], was: 'Theirs', now: 'Fan belts' }],
  });
  expect(screen.queryByRole('alertdialog')).toBeNull();
});

test('theirs stands where that is chosen, and nothing is sent', async () => {
  const bench = await renamed(meanwhile({ ...DEMO.pickup, name: 'Theirs' }, [rename]));
  await bench.press('Keep theirs: "Theirs"');
  await settle(4);
  expect(bench.drive().name).toBe('Theirs');
  expect(saves(bench)).toHaveLength(1);
  expect(screen.queryByRole('alertdialog')).toBeNull();
});

test('a deletion that met a change of somebody else tells all that would go, and goes when it is said', async () => {
  const gone = removeStation(DEMO.pickup, 'pump');
  const theirs = changeStation(DEMO.pickup, 'pump', { label: 'Fan and pump' });
  const bench = await renamed(meanwhile(theirs, changesBetween(DEMO.pickup, gone)));
  heldSeen('question-deleted', notices(bench.page));
  await bench.press('Use mine');
  await settle(4);
  expect(bench.drive().stations.some(({ id }) => id === 'pump')).toBe(false);
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
