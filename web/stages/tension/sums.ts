import { useMemo } from 'react';
import { once } from '../../state/once';
import { useBench } from '../../state/bench';
import { useTension } from './TensionProvider';
import { type Drive, type Station } from '@emery/core/drive';
import { runDrive, type Running, statesThatMatter, tensionOf, type DriveTension } from '@emery/core/loads';
import type { LoadChoice } from '@emery/core/accessory';

const tensionFor = once((drive: Drive) => tensionOf(drive));
const runFor = once((tension: DriveTension, choice: LoadChoice, rpm: number, wet: boolean) => {
  const running: Running = { ...choice, rpm, wet };
  return { running, run: runDrive(tension, running) };
});

/** The drive at rest and running in the state that is looked at, and the belt in hand. Null where it cannot lie. */
export function useTensionSums() {
  const { drive, belt } = useBench('drive', 'belt');
  const { rpm, looked, marks, wetToo } = useTension();
  const { choice, wet } = looked;
  const tension = tensionFor(drive);
  const { running, run } = runFor(tension, choice, rpm, wet);
  const states = useMemo(() => statesThatMatter(marks, choice, wetToo), [marks, choice, wetToo]);
  const at = drive.belts.findIndex(({ id }) => id === belt?.id);
  const [standing, own] = [tension.staticBelts[at] ?? null, run.belts[at] ?? null];
  const source = drive.belts[at];
  return {
    drive,
    tension,
    running,
    run,
    states,
    at,
    source,
    /** The belt in hand at rest and running. */
    belt: standing && own && source ? { source, standing, run: own } : null,
  };
}

export function stationById(drive: Drive, id: string): Station {
  return drive.stations.find((station) => station.id === id)!;
}
