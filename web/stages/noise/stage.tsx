import { lazyModule, lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { NoiseProvider } from './NoiseProvider';
import { type Drive, failedCure, listeningsLeft } from '@emery/core/drive';

/** Noise: whose it is, what causes it, and the next test worth doing. */
export const noise: Stage = {
  id: 'noise',
  name: 'Noise',
  state,
  Ledger: lazyPart('Noise', () => import('./NoiseLedger')),
  Chart: lazyPart('The sound', () => import('./NoiseChart'), <section className="unrolled sheet" aria-busy />),
  Provider: NoiseProvider,
  Layer: lazyPart('Suspected part', () => import('./NoiseLayer')),
  pulleyFigure: lazyModule(async () => (await import('./figures')).usePulleyFigure),
  drag: noDrag,
};

/**
 * In hand once something was seen or heard; settled when every cure was listened to three times and stayed quiet; what
 * came back, or must not run, wants it.
 */
function state({ noise: kept }: Drive): StageState {
  const evidence = (kept?.evidence ?? []).filter(({ past }) => !past);
  const stops = evidence.some(
    ({ test, outcome }) => (test === 'wobble' && outcome === 'yes') || (test === 'count' && outcome === 'off'),
  );
  if (stops || failedCure({ noise: kept })) return 'needs attention';
  if (evidence.length > 0 || kept?.clips?.length) return 'in progress';
  if (!kept?.cures?.length) return 'untouched';
  return listeningsLeft({ noise: kept }).length === 0 ? 'settled' : 'in progress';
}
