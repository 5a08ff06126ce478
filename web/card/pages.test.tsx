import { Route } from 'react-router';
import { DEMO } from '../../core/test/demo';
import { onPage, settle } from '../test/bench-page';
import { seen } from '../test/seen';
import { tryAll } from '../test/try-all';
import { heldSeen } from '../test/views';
import CardOnPaperPage from '../jobs/CardOnPaperPage';
import Dress from '../theme/Dress';
import GloveboxPage from './GloveboxPage';
import RoutingCardPage from './RoutingCardPage';

jest.mock('../state/run-core', () => jest.requireActual('../test/core-here'));

test.each([
  ['card', RoutingCardPage],
  ['glovebox', GloveboxPage],
  ['job-card', CardOnPaperPage],
])('the %s on paper, and what everything on it does, is as it was read', async (name, Page) => {
  const at = await onPage(
    `/drives/d1/${name}`,
    <Route element={<Dress />}>
      <Route path={`/drives/:driveId/${name}`} element={<Page />} />
    </Route>,
    { document: DEMO.pickup, unit: 'in' },
  );
  heldSeen(`paper-${name}`, [
    ...seen(at.page),
    '--- what everything does',
    ...(await tryAll({ bench: at, roots: () => [at.page], most: 16, back: () => settle(4) })),
  ]);
});
