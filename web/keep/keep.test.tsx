import { fireEvent } from '@testing-library/react';
import { Route } from 'react-router';
import { driveOf, SERPENTINE } from '../../core/test/examples';
import { onBench, onPage, settle } from '../test/bench-page';
import Dress from '../theme/Dress';
import { BackupLine } from './BackupLine';
import KeepPage from './KeepPage';
import { agoText } from './words';
import type { Health } from '@emery/core/api';
import { bytesText } from '@emery/core/quantity';

const AT = '2026-11-19T08:00:00.000Z';
const HEALTH: Health = {
  problems: ['The last backup is 9 days old.'],
  versions: { emery: '0.1.0', node: '20.19.0', database: '10.11', shop: 'Keep1797400000000' },
  startedAt: AT,
  shopBytes: 41e6,
  disk: { freeBytes: 12.4e9, totalBytes: 250e9, fullOn: '2027-03-04' },
  certificateEnds: '2027-12-25T00:00:00.000Z',
  queue: { used: 3, most: 12, waiting: 0 },
  slowest: [{ what: 'GET /vehicles', ms: 41.5, at: AT }],
  history: { versions: 1234, bytes: 5.2e6 },
  backups: {
    ...{
      folder: '/media/stick/emery',
      sameDisk: false,
      isSealed: false,
      isOld: true,
      says: 'The last backup is 9 days old.',
      passed: null,
      problem: null,
    },
    ...{ lastAt: AT, files: [{ name: 'emery-2026-11-19T08-00-00Z.zip', at: AT, bytes: 3.4e6 }] },
  },
};

const show = (health: Health) =>
  onPage(
    '/keep',
    <Route element={<Dress />}>
      <Route path="/keep" element={<KeepPage />} />
    </Route>,
    { reads: { keep: () => health, access: () => ({ role: 'owner', machine: true, owned: true }) } },
  );
const backups = (change: Partial<Health['backups']>): Health => ({
  ...HEALTH,
  backups: { ...HEALTH.backups, ...change },
});

test('what is to be looked at, the age of the last backup and what is left of the disk stand there', async () => {
  const { page } = await show(HEALTH);
  for (const text of ['▲ The last backup is 9 days old.', '1 day ago', '12 GB', 'of 250 GB', 'full on 2027-03-04'])
    expect(page.textContent).toContain(text);
  expect(page.textContent).toContain('GET /vehicles');
  expect(page.querySelector('a[download]')?.getAttribute('href')).toBe(
    '/api/keep/backups/emery-2026-11-19T08-00-00Z.zip',
  );
});

test('one is begun with a tap; while it is made it says how far it is, and is cancelled with another', async () => {
  const still = await show(HEALTH);
  await still.press('Back up now');
  expect(still.server.sent).toEqual([{ method: 'POST', path: '/keep/backups', body: undefined }]);
  const making = await show(backups({ passed: 120e6 }));
  expect(making.page.textContent).toContain('Backing up, 120 MB …');
  await making.press('Cancel');
  expect(making.server.sent).toEqual([{ method: 'DELETE', path: '/keep/backups', body: undefined }]);
});

test('a folder that is refused says why at its field, and what was typed stays', async () => {
  const at = await show(backups({ folder: null, files: [], lastAt: null }));
  expect(at.page.textContent).toContain('No backup yet');
  at.server.refuse('PUT', '/keep/folder', 422, 'folder is not there: make it, or plug in what it is on');
  await at.write('Folder for backups', '/media/stick');
  await at.press('Use this folder');
  await settle(4);
  expect(at.server.sent).toEqual([{ method: 'PUT', path: '/keep/folder', body: { folder: '/media/stick' } }]);
  expect(at.page.textContent).toContain('is not there: make it');
  expect(at.page.querySelector('input')?.value).toBe('/media/stick');
});

test('the shop says aloud that the last backup is old, and nothing while it is not', async () => {
  const line = async (isOld: boolean) =>
    (
      await onPage('/', <Route path="/" element={<BackupLine />} />, {
        reads: { keep: () => ({ lastAt: AT, isOld, says: isOld ? 'The last backup is 9 days old.' : null }) },
      })
    ).page.textContent;
  expect(await line(true)).toBe('▲ The last backup is 9 days old. Backups and health');
  expect(await line(false)).toBe('');
});

test('a drive as it was is chosen by day and person, shows what differs, and comes back as one step', async () => {
  const now = { ...driveOf(SERPENTINE), name: 'Now' };
  const bench = await onBench(now, 'size');
  const dialog = () => document.querySelector('.ant-modal')!;
  await bench.press('Earlier versions');
  await settle(8);
  expect([...dialog().querySelectorAll('h3')].map(({ textContent }) => textContent)).toHaveLength(2);
  const versions = [...dialog().querySelectorAll<HTMLButtonElement>('.past-version')];
  expect(versions.map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/^now *Ines$/),
    expect.stringMatching(/at the machine$/),
    expect.stringMatching(/Tam$/),
  ]);
  expect(versions[0]!.disabled).toBe(true);
  fireEvent.click(versions[2]!);
  await settle(8);
  expect(dialog().textContent).toContain('As it was on');
  expect(dialog().querySelector('.conflict-list')?.textContent).toMatch(/Before.*Now|Now.*Before/);
  await bench.press('Bring this version back');
  await settle(8);
  expect(bench.drive().name).toBe('Before');
  await bench.press('Undo');
  await settle(4);
  expect(bench.drive()).toEqual(now);
});

test('sizes and ages are told as people say them', () => {
  expect([1, 999, 12_345, 3.4e6, 41e6, 1.26e9, 77e9].map(bytesText)).toEqual([
    ...['1 kB', '1 kB', '12 kB', '3.4 MB', '41 MB', '1.3 GB', '77 GB'],
  ]);
  const now = Date.parse('2026-11-20T09:00:00Z');
  expect(
    [AT, '2026-11-20T08:00:00Z', '2026-11-11T08:00:00Z', '2026-11-20T09:30:00Z'].map((at) => agoText(at, now)),
  ).toEqual([...['1 day ago', 'Less than a day ago', '9 days ago', 'Less than a day ago']]);
});
