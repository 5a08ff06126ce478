import { type Belt, changePulley, type Drive, type Pulley, pulleysById, type Role } from '../drive';
import { cordRadiusMm, type Section, sectionFor, type Side, type Surface } from '../section';

/** A pulley that lies in the shop or can be had. */
export interface PulleyAtHand {
  id: string;
  label: string;
  /** The accessory it goes on; any where it is left out. */
  role?: Role | undefined;
  surface: Surface;
  /** mm, as callipers read. */
  diameter?: number | undefined;
  teeth?: number | undefined;
  grooves?: number | undefined;
  /** Pulleys of one name are put on together: an under- or overdrive set. */
  set?: string | undefined;
  /** How many there are of it; one where nothing is said. */
  count?: number | undefined;
}

/** A pulley changed for another: `pulley` of the drive gets the size of `at` from the list. */
export interface PulleyChange {
  pulley: string;
  to: PulleyAtHand;
}

/** True where no pulley at hand is put on more shafts than there are of it. */
export function enoughOf(changes: readonly PulleyChange[]): boolean {
  return changes.every(({ to }) => changes.filter((other) => other.to.id === to.id).length <= (to.count ?? 1));
}

/** The drive with a pulley of another size in the place of one; where it sits stays as it is. */
export function withPulley(drive: Drive, { pulley, to }: PulleyChange): Drive {
  return changePulley(drive, pulley, sizeOf(to));
}

/** What a pulley at hand brings with it; grooves that nobody counted are left as they are. */
function sizeOf({ surface, diameter, teeth, grooves }: PulleyAtHand): Partial<Pulley> {
  return surface === 'toothed'
    ? { surface, teeth, diameter: undefined }
    : { surface, diameter, teeth: undefined, ...(grooves !== undefined && { grooves }) };
}

/**
 * Whether a pulley at hand would go in a seat, for the belt that runs there: its face, its grooves, what it is made
 * for.
 */
export function goesOn(at: PulleyAtHand, { pulley, role, belt }: Seat): boolean {
  if (at.surface !== pulley.surface || (at.role !== undefined && at.role !== role)) return false;
  return belt.ribs === undefined || at.surface !== 'ribbed' || at.grooves === undefined || at.grooves >= belt.ribs;
}

/** A pulley as a belt meets it. */
export interface Seat {
  pulley: Pulley;
  role: Role;
  station: string;
  belt: Belt;
  section: Section;
  side: Side;
}

/** Every pulley that is on a belt, with the belt. */
export function seatsOf(drive: Drive): Map<string, Seat> {
  const pulleys = pulleysById(drive);
  return new Map(
    drive.belts.flatMap((belt) => {
      const section = sectionFor(belt.section, belt.sectionOverrides)!;
      return belt.route.map(({ pulley, side }) => {
        const placed = pulleys.get(pulley)!;
        return [
          pulley,
          { pulley: placed.pulley, role: placed.station.role, station: placed.station.id, belt, section, side },
        ] as const;
      });
    }),
  );
}

/** The cord radius a seat would have with another pulley on it, mm. */
export function radiusWith({ pulley, side, section }: Seat, at: PulleyAtHand): number {
  return cordRadiusMm({ ...pulley, ...sizeOf(at) }, side, section);
}
