import { DEMO } from '../../../core/test/demo';
import { heldSeen, viewsOf } from '../../test/views';

jest.mock('../../state/run-core', () => jest.requireActual('../../test/core-here'));

test('what every view shows of a drive, and what everything in it does, is as it was read', async () => {
  heldSeen('inspect', await viewsOf('inspect', DEMO.rescue, 'mm', 45));
});
