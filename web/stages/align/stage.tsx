import { lazyModule, lazyPart } from '../../parts/lazy-part';
import { noDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { AlignProvider } from './AlignProvider';
import type { Drive } from '@emery/core/drive';
import type { DriveSolution } from '@emery/core/path';

/** The sums come after the bench: least squares weigh more than all else that it opens with. */
const sums = lazyModule(async () => {
  const [{ alignmentOf }, { grooveCounts }] = await Promise.all([
    import('@emery/core/planes'),
    import('@emery/core/align'),
  ]);
  return { alignmentOf, grooveCounts };
});

/** Align: which pulley is off, by how much, and the fewest moves that put it right. */
export const align: Stage = {
  id: 'align',
  name: 'Align',
  state,
  sums,
  Ledger: lazyPart('Align', () => import('./AlignLedger')),
  Chart: lazyPart('The edge view', () => import('./AlignChart'), <section className="unrolled sheet" aria-busy />),
  Provider: AlignProvider,
  Layer: lazyPart('Runs', () => import('./AlignLayer')),
  pulleyFigure: lazyModule(async () => (await import('./figures')).usePulleyFigure),
  drag: noDrag,
};

/** In hand once something was read or counted; settled when every run is read and good; a run that is not wants it. */
function state(drive: Drive, { belts }: DriveSolution): StageState {
  const counted = drive.belts.some(({ route }) => route.some(({ front }) => front !== undefined));
  if (!drive.align?.readings?.length && !counted) return 'untouched';
  const there = sums.get();
  if (!there) return 'in progress';
  const runs = belts.flatMap((solution) => there.alignmentOf(drive, solution.id, { solution })?.runs ?? []);
  if (drive.belts.some((belt) => there.grooveCounts(drive, belt).some(({ off }) => off !== 0)))
    return 'needs attention';
  const known = runs.filter(({ read }) => read || counted);
  if (known.some(({ verdict }) => verdict !== 'good')) return 'needs attention';
  return runs.length > 0 && runs.every(({ read }) => read) ? 'settled' : 'in progress';
}
