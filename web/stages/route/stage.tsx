import { edit, type BenchStores } from '../../state/bench';
import { UnrolledBelt } from '../../views/unrolled/UnrolledBelt';
import { freeDrag } from '../dragging';
import type { Stage, StageState } from '../stage';
import { useWrapFigure } from '../wrap-figure';
import { RouteLedger } from './RouteLedger';
import { type Drive, flipStop, removeStop } from '@emery/core/drive';
import { CURED_BY_MEASURING, type DriveSolution } from '@emery/core/path';

/** Route: which way the belt runs, and how long that makes it. */
export const route: Stage = {
  id: 'route',
  name: 'Route',
  state,
  // The stage that the bench opens with is not fetched apart.
  Ledger: RouteLedger,
  Chart: UnrolledBelt,
  pulleyFigure: useWrapFigure,
  drag: freeDrag,
  nudges: true,
  keys: [
    { key: 'f', shown: 'F', does: 'flip the belt at the selected pulley', run: atStop(flipStop) },
    { key: 'Delete', shown: 'Delete', does: 'take the selected pulley off the belt', run: atStop(removeStop) },
  ],
};

/** Does something with the stop of the belt in hand at the pulley in hand. */
function atStop(change: (drive: Drive, belt: string, index: number) => Drive) {
  return ({ selection, get }: BenchStores): boolean => {
    const [selected, { belt, dispatch }] = [selection.get(), get()];
    const index =
      selected?.kind === 'pulley'
        ? (belt?.contacts.findIndex(({ station }) => station === selected.station) ?? -1)
        : -1;
    if (index < 0) return false;
    dispatch(edit((drive) => change(drive, belt!.id, index)));
    return true;
  };
}

function state(drive: Drive, { findings, belts }: DriveSolution): StageState {
  if (drive.belts.every((belt) => belt.route.length === 0)) return 'untouched';
  if (drive.belts.some((belt) => belt.route.length < 2)) return 'in progress';
  const own = [...findings, ...belts.flatMap((belt) => belt.findings)].filter(
    ({ code }) => !CURED_BY_MEASURING.has(code),
  );
  const stops = own.some(({ severity }) => severity === 'fault') || belts.some(({ closed }) => !closed);
  return stops ? 'needs attention' : 'settled';
}
