import { screen } from '@testing-library/react';
import { Route } from 'react-router';
import { DEMO } from '../../core/test/demo';
import { onPage, settle } from '../test/bench-page';
import { listedVehicle } from '../test/listed';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import Dress from '../theme/Dress';
import ShopPage from './ShopPage';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const show = (vehicles: readonly unknown[]) =>
  onPage(
    '/',
    <Route element={<Dress />}>
      <Route path="/" element={<ShopPage />} />
    </Route>,
    {
      reads: {
        vehicles: (path) => (path.includes('deleted') ? { vehicles, total: 1 } : { vehicles, total: vehicles.length }),
      },
    },
  );

test('the shop, and what everything in it does, is as it was read', async () => {
  const at = await show([listedVehicle('v1', [DEMO.rescue, DEMO.pickup]), listedVehicle('v2', [])]);
  const lines = ['=== the shop', ...seen(at.page)];
  lines.push(
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: () => [at.page], most: 40, back: () => settle(4) })),
  );
  heldSeen('shop', lines);
});

test('an empty shop says what to do first', async () => {
  const at = await show([]);
  heldSeen('shop-empty', seen(at.page));
});

describe('a vehicle of many drives', () => {
  const drives = Array.from({ length: 30 }, (_, k) => ({ ...DEMO.pickup, name: `Drive ${k}` }));
  const tiles = () =>
    screen.getAllByRole('link', { name: /^Open Drive/ }).map((link) => link.getAttribute('aria-label'));

  test('shows the first few until all are asked for, and folds them again', async () => {
    const at = await show([listedVehicle('v1', drives)]);
    expect(tiles()).toEqual([0, 1, 2, 3].map((k) => `Open Drive ${k} of Lorry v1`));
    await at.press('Show all 30 drives');
    expect(tiles()).toHaveLength(30);
    await at.press('Show fewer drives');
    expect(tiles()).toHaveLength(4);
  });

  test('shows first those that were searched for, wherever they stand', async () => {
    const at = await show([listedVehicle('v1', drives)]);
    await at.write('Search the shop', 'drive 27');
    expect(tiles()[0]).toBe('Open Drive 0 of Lorry v1');
    await at.write('Search the shop', '27');
    expect(tiles()[0]).toBe('Open Drive 27 of Lorry v1');
    expect(tiles()).toHaveLength(4);
  });

  test('six are all shown: a fold that hides two saves nothing', async () => {
    await show([listedVehicle('v1', drives.slice(0, 6))]);
    expect(tiles()).toHaveLength(6);
    expect(screen.queryByText(/^Show all/)).toBeNull();
  });
});
