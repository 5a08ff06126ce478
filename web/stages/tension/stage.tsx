import { lazyModule, lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { TensionProvider } from './TensionProvider';
import type { Drive } from '@emery/core/drive';

/** Tension: how tight, what slips, what it costs the bearings, and how to check it by hand. */
export const tension: Stage = {
  id: 'tension',
  name: 'Tension',
  state,
  Ledger: lazyPart('Tension', () => import('./TensionLedger')),
  Chart: lazyPart(
    'The chart of Tension',
    () => import('./TensionChart'),
    <section className="unrolled sheet" aria-busy />,
  ),
  Provider: TensionProvider,
  Layer: lazyPart('The loads', () => import('./TensionLayer')),
  coversPulleys: true,
  pulleyFigure: lazyModule(async () => (await import('./figures')).usePulleyFigure),
  drag: noDrag,
};

/** Settled once every belt was read, in hand where one is set or read; a look that is due wants attention. */
function state({ belts }: Drive): StageState {
  const routed = belts.filter(({ route }) => route.length > 1);
  const today = new Date().toISOString();
  if (routed.some(({ care }) => care?.nextLookAt !== undefined && care.nextLookAt < today)) return 'needs attention';
  const read = routed.filter(({ tensionReadings }) => (tensionReadings?.length ?? 0) > 0);
  if (routed.length > 0 && read.length === routed.length) return 'settled';
  return read.length > 0 || routed.some(({ staticTension }) => staticTension !== undefined)
    ? 'in progress'
    : 'untouched';
}
