import { lazyModule, lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { InspectFront } from './InspectFront';
import { InspectProvider } from './InspectProvider';
import type { Drive } from '@emery/core/drive';

/** The sums come after the bench: they weigh what Tension measured as well. */
const sums = lazyModule(() => import('@emery/core/inspect'));

/** Inspect: what to keep, what to change, and how long it has left. */
export const inspect: Stage = {
  id: 'inspect',
  name: 'Inspect',
  state,
  sums,
  Ledger: lazyPart('Inspect', () => import('./InspectLedger')),
  Chart: lazyPart('Unrolled belt', () => import('./InspectChart'), <section className="unrolled sheet" aria-busy />),
  Provider: InspectProvider,
  Front: InspectFront,
  Layer: lazyPart('Verdicts', () => import('./InspectLayer')),
  pulleyFigure: lazyModule(async () => (await import('./figures')).usePulleyFigure),
  drag: noDrag,
};

/** In hand once something was looked at; settled when every part is kept; a part to be changed or watched wants it. */
function state(drive: Drive): StageState {
  if (!drive.inspect?.findings?.some(({ past }) => !past)) return 'untouched';
  const there = sums.get();
  if (!there) return 'in progress';
  const verdicts = there.inspectDrive(drive).map(({ verdict }) => verdict);
  if (verdicts.includes('replace')) return 'needs attention';
  return verdicts.every((verdict) => verdict === 'keep' || verdict === 'watch') ? 'settled' : 'in progress';
}
