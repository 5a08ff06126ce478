import { Route } from 'react-router';
import { DEMO } from '../../core/test/demo';
import { onBench, onPage, settle } from '../test/bench-page';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import Dress from '../theme/Dress';
import JobPage from './JobPage';
import type { JobOpened, JobSheet } from '@emery/core/api';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

test('a job at the vehicle, and what everything in it does, is as it was read', async () => {
  const bench = await onBench(DEMO.rescue, 'job', 'mm');
  await bench.press('Start this job');
  const started = bench.server.sent.find(({ method, path }) => method === 'POST' && path === '/jobs')!;
  const { sheet, name } = started.body as { sheet: JobSheet; name: string };
  expect(sheet.steps.length).toBeGreaterThan(10);
  const job: JobOpened = {
    id: 'job-1',
    vehicleId: 'v1',
    driveId: 'd1',
    name,
    startedAt: '2026-11-20T08:00:00.000Z',
    startedBy: 'Technician',
    signedAt: null,
    signedBy: null,
    vehicleName: 'Test lorry',
    plate: 'TF 1',
    odometerUnit: 'km',
    vehicleOdometer: 120_000,
    sheet,
    events: [],
    seq: 0,
  };
  const news = { events: [], seq: 0, signedAt: null, signedBy: null };
  const at = await onPage(
    '/jobs/job-1',
    <Route element={<Dress />}>
      <Route path="/jobs/:jobId" element={<JobPage />} />
    </Route>,
    {
      reads: {
        jobs: (path) =>
          path.includes('/events') ? news : path.includes('pace') ? { factor: 1, plusMinus: 0.3, jobs: 0 } : job,
      },
    },
  );
  const lines = ['=== the job', ...seen(at.page, { drawings: false })];
  const main = () => [at.page.querySelector('main') ?? at.page];
  lines.push(
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: main, most: 40, back: () => settle(4) })),
  );
  heldSeen('job-page', lines);
});
