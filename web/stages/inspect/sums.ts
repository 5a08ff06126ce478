import { useMemo } from 'react';
import { once } from '../../state/once';
import { useBench, useSelected } from '../../state/bench';
import { useTyped } from '../../ui/typed-text';
import { useInspect } from './InspectProvider';
import { type Drive, itemsOf, stationOf } from '@emery/core/drive';
import { inspectDrive, type InspectItem, type Look, partKey } from '@emery/core/inspect';

const itemsFor = once((drive: Drive, odometer: number | undefined) => inspectDrive(drive, odometer));

/** Every part with its verdict, as the odometer stands in this look. */
export function useInspection(): { drive: Drive; items: InspectItem[] } {
  const { drive } = useBench('drive');
  const odometer = useOdometer().now;
  return useMemo(() => ({ drive, items: itemsFor(drive, odometer ?? undefined) }), [drive, odometer]);
}

/** Where the odometer stands in this look: as it was written, else as this look's own findings have it. */
export function useOdometer(): { now: number | null; last: number | null; write: (reading: number | null) => void } {
  const { drive } = useBench('drive');
  const { began } = useInspect();
  const [typed, write] = useTyped<number | null>('inspect odometer', null);
  const day = began.slice(0, 10);
  const readings = itemsOf(drive, 'inspect.findings').filter(({ odometer, past }) => odometer !== undefined && !past);
  const today = readings.find(({ at }) => at?.slice(0, 10) === day);
  const last = readings.reduce<number | null>(
    (max, { odometer, at }) => (at?.slice(0, 10) === day ? max : Math.max(max ?? 0, odometer!)),
    null,
  );
  return { now: typed ?? today?.odometer ?? null, last, write };
}

/** The look that what is found now belongs to. */
export function useLook(): () => Look {
  const { now } = useOdometer();
  return () => ({ at: new Date().toISOString(), ...(now !== null && { odometer: now }) });
}

const isOn = (drive: Drive, { on, target }: InspectItem, station: string) =>
  on !== 'belt' && stationOf(drive, target)?.id === station;

/** The part the walk stands at; undefined where there is none. */
export function usePartInHand(): InspectItem | undefined {
  const { items } = useInspection();
  const { at } = useInspect();
  const selected = useSelected();
  const here = items.find((item) => partKey(item) === at) ?? items[0];
  const { drive } = useBench('drive');
  // A pulley that is tapped on the drawing is gone to.
  if (selected?.kind !== 'pulley' || (here && isOn(drive, here, selected.station))) return here;
  return items.find((item) => isOn(drive, item, selected.station)) ?? here;
}
