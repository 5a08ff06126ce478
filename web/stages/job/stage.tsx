import { lazyModule, lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { JobProvider } from './JobProvider';
import type { Drive } from '@emery/core/drive';

/** The sums come after the bench: the card is written from what all the others decided. */
const sums = lazyModule(() => import('@emery/core/job'));

/** Job card: the work written out in order, what to bring, and the bolts. */
export const job: Stage = {
  id: 'job',
  name: 'Job card',
  state,
  sums,
  Ledger: lazyPart('Job card', () => import('./JobLedger')),
  Chart: lazyPart('Drive from the side', () => import('./JobChart'), <section className="unrolled sheet" aria-busy />),
  Provider: JobProvider,
  Layer: lazyPart('Order of the work', () => import('./JobLayer')),
  pulleyFigure: lazyModule(async () => (await import('./figures')).usePulleyFigure),
  drag: noDrag,
};

/** In hand once something of the card was written; settled when every bolt that is named has its torque. */
function state(drive: Drive): StageState {
  const { bolts = [], own = [], words = [], leftOut = [], order = [] } = drive.job ?? {};
  // One belt is in nobody's way.
  if (drive.belts.length > 1 && sums.get()?.beltOrder(drive).tangled.length) return 'needs attention';
  if (bolts.length + own.length + words.length + leftOut.length + order.length === 0) return 'untouched';
  const known = bolts.every(({ torqueNm, angleDeg }) => torqueNm !== undefined || angleDeg !== undefined);
  return bolts.length > 0 && known ? 'settled' : 'in progress';
}
