import { type Belt, type ChangedWhy, type Drive, itemsOf, kmPer, momentOf, type OdometerUnit } from '../drive';
import { sectionFor } from '../section';

/** A belt from when it went on until it came off; still on where `to` is null. */
export interface BeltLife {
  belt: string;
  section: string;
  ribs: number | null;
  /** Of the one that is on. */
  lengthMm: number | null;
  number: string | null;
  /** When, ms since 1970, and at what reading; null where nobody wrote it down. */
  from: { at: number | null; odometer: number | null };
  to: { at: number | null; odometer: number | null } | null;
  why: ChangedWhy | null;
  /** Null where the drive does not say: then the vehicle's. */
  unit: OdometerUnit | null;
}

/** Every belt that a drive is known to have had, each place's in the order of time, the one that is on last. */
export function livesOf(drive: Drive): BeltLife[] {
  return drive.belts.flatMap((belt) => livesOfBelt(drive, belt));
}

function livesOfBelt(drive: Drive, belt: Belt): BeltLife[] {
  const { id, section, ribs = null, length = null, care } = belt;
  const unit = drive.inspect?.odometerUnit ?? null;
  const common = { belt: id, section, ribs, unit };
  const changes = itemsOf(drive, 'inspect.changed').filter(({ on, target }) => on === 'belt' && target === id);
  const past = changes.map(({ at, odometer, why, careBefore }, k): BeltLife => {
    const before = changes[k - 1];
    return {
      ...common,
      lengthMm: null,
      number: careBefore?.number ?? null,
      from: {
        at: momentOf(careBefore?.fittedAt ?? before?.at),
        odometer: careBefore?.fittedOdometer ?? before?.odometer ?? null,
      },
      to: { at: momentOf(at), odometer: odometer ?? null },
      why: why ?? 'worn',
    };
  });
  const on: BeltLife = {
    ...common,
    lengthMm: length,
    number: care?.number ?? null,
    from: { at: momentOf(care?.fittedAt), odometer: care?.fittedOdometer ?? null },
    to: null,
    why: null,
  };
  return [...past, on];
}

/** What kind a belt is of, as its lives are held together: `6-rib PK`, `AV10`. */
export const kindOfBelt = (section: string, ribs: number | null): string =>
  sectionFor(section)?.kind === 'ribbed' && ribs !== null ? `${ribs}-rib ${section}` : section;

/** How far a belt ran, km: to where it came off, or to where the vehicle's odometer stands. Null where nobody knows. */
export function ranKm(
  { from, to, unit }: Pick<BeltLife, 'from' | 'to' | 'unit'>,
  vehicle: { odometer: number | null; unit: OdometerUnit },
): number | null {
  const counts = unit ?? vehicle.unit;
  const now = counts === vehicle.unit ? vehicle.odometer : null;
  const end = to ? to.odometer : now;
  if (from.odometer === null || end === null || end < from.odometer) return null;
  return (end - from.odometer) * kmPer(counts);
}
