import { useMemo } from 'react';
import { useBench } from '../../state/bench';
import { useTension } from './TensionProvider';
import { type Drive, type Station } from '@emery/core/drive';
import { runDrive, type Running, statesThatMatter, tensionOf, type DriveTension } from '@emery/core/loads';

/** Each drive is worked out once, whoever asks for it. */
const known = new WeakMap<Drive, DriveTension>();
function tensionFor(drive: Drive): DriveTension {
  const found = known.get(drive) ?? tensionOf(drive);
  known.set(drive, found);
  return found;
}

/** The drive at rest and running in the state that is looked at, and the belt in hand. Null where it cannot lie. */
export function useTensionSums() {
  const { drive, belt } = useBench('drive', 'belt');
  const { rpm, looked, marks, wetToo } = useTension();
  const { choice, wet } = looked;
  const tension = tensionFor(drive);
  const running = useMemo((): Running => ({ ...choice, rpm, wet }), [choice, rpm, wet]);
  const run = useMemo(() => runDrive(tension, running), [tension, running]);
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
