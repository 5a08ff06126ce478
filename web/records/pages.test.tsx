import { Route } from 'react-router';
import { DEMO } from '../../core/test/demo';
import { onPage, settle } from '../test/bench-page';
import { listedVehicle } from '../test/listed';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import Dress from '../theme/Dress';
import RecordsPage from './RecordsPage';
import VehiclePage from './VehiclePage';
import type { BeltOn, DueListed, RecordListed } from '@emery/core/api';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const WHOSE = {
  vehicleId: 'v1',
  vehicleName: 'Lorry v1',
  plate: 'TF v1',
  vehicleOdometer: 120_000,
  odometerUnit: 'km' as const,
  driveId: 'v1-d0',
  driveName: 'Front drive',
};
const lorry = listedVehicle('v1', [DEMO.rescue]);
const dues = lorry.drives.flatMap((drive) => drive.dues.map((due, id): DueListed => ({ ...due, ...WHOSE, id })));
const happened = (id: number, kind: RecordListed['kind'], title: string): RecordListed => ({
  ...WHOSE,
  ...{ id, kind, title, jobId: kind === 'job' ? 'j1' : null, at: `2026-0${id}-04T10:00:00.000Z` },
  ...{ readingAt: 100_000 + id, unit: 'km', belt: 'main', detail: 'As it was found.', pictures: [] },
});
const belt = (id: number, ranKm: number | null): BeltOn =>
  ({
    ...WHOSE,
    ...{ id, belt: 'main', section: 'PK', ribs: 6, lengthMm: 1800, number: 'TF 10', kind: '6-rib PK', ranKm },
    ...{ fittedAt: ranKm === null ? null : '2025-05-04T10:00:00.000Z', fittedOdometer: ranKm === null ? null : 90_000 },
  }) as unknown as BeltOn;

const READS = {
  vehicles: () => lorry,
  records: (path: string) => {
    if (path.startsWith('/records/due')) return { dues, total: dues.length, due: 1, soon: 1 };
    if (path.startsWith('/records/belts')) return { belts: [belt(1, 30_000), belt(2, null)], total: 2, understood: '' };
    return { records: [happened(1, 'belt', 'Belt changed'), happened(2, 'job', 'Job signed off')], total: 2 };
  },
};
const PAGES = ['/records/due', '/records/belts', '/records/happened', '/vehicles/v1'];

test.each(PAGES)('%s, and what everything on it does, is as it was read', async (address) => {
  const at = await onPage(
    address,
    <Route element={<Dress />}>
      <Route path="/records/:view?" element={<RecordsPage />} />
      <Route path="/vehicles/:vehicleId" element={<VehiclePage />} />
    </Route>,
    { reads: READS, document: DEMO.rescue },
  );
  heldSeen(`records${address.replaceAll('/', '-')}`, [
    ...seen(at.page),
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: () => [at.page], most: 24, back: () => settle(4) })),
  ]);
});
