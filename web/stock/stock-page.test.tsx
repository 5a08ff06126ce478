import { Route } from 'react-router';
import { onPage, settle } from '../test/bench-page';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import Dress from '../theme/Dress';
import StockPage from './StockPage';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

const belt = (id: number, lengthMm: number, onHand: number) => ({
  ...{ id, section: 'PK', ribs: 6, lengthMm, code: `TF ${lengthMm}`, maker: 'Fellside', note: '' },
  ...{ onHand, price: 24.5, place: 'Rack 2', pieces: onHand, count: onHand },
});
const show = (stock: (path: string) => unknown) =>
  onPage(
    '/belts',
    <Route element={<Dress />}>
      <Route path="/belts" element={<StockPage />} />
    </Route>,
    { reads: { stock } },
  );

test('the list of belts, and what everything in it does, is as it was read', async () => {
  const at = await show(() => ({ belts: [belt(1, 1800, 2), belt(2, 1735, 0)], total: 2 }));
  heldSeen('stock', [
    ...seen(at.page),
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: () => [at.page], most: 20, back: () => settle(4) })),
  ]);
});

test('an empty list says what to do first', async () => {
  const at = await show(() => ({ belts: [], total: 0 }));
  heldSeen('stock-empty', seen(at.page));
});
