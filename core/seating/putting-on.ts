import { armAngles, pathLength, travelFromSlack, travelOf } from '../adjuster';
import { type Belt, changePulley, type Drive, type Pulley, pulleysById, type Role, type Rotation } from '../drive';
import { solveBelt } from '../path';
import { bodyRadiusMm, facingDepthMm, type Section, sectionFor } from '../section';

/** What makes a rim the last choice to slip a belt over: the arm that a wrench holds, and the crank. */
const HARD_TO_REACH: { readonly [role in Role]?: number } = { tensioner: 2000, crankshaft: 1000 };

/**
 * The pulley a belt is easiest slipped over last, and the marked length it needs for that with its adjuster at the
 * slack end, mm.
 */
export interface LastOn {
  pulley: string;
  needsMm: number;
}

/** How a belt is put on and let off. */
export interface PuttingOn {
  /** Null where nothing slackens the belt, or it has no path at the slack end. */
  lastOn: LastOn | null;
  /** Of a sprung arm: the station, and which way a wrench turns the arm to let the belt off, seen from the front. */
  release: { station: string; turn: Rotation } | null;
}

/**
 * How a belt goes on, last of all over which pulley, and how its arm is let go: asked by Size, the card and the command
 * line alike. Null where the drive has no such belt.
 */
export function puttingOn(drive: Drive, beltId: string): PuttingOn | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const section = belt && sectionFor(belt.section, belt.sectionOverrides);
  if (!belt || !section) return null;
  const travel = travelFromSlack(drive, belt);
  return { lastOn: travel && easiestLast(travel.at(0), belt, section), release: releaseOf(drive, belt) };
}

function releaseOf(drive: Drive, belt: Belt): PuttingOn['release'] {
  const station = drive.stations.find(({ id }) => id === travelOf(drive, belt)?.station);
  if (station?.adjuster?.kind !== 'sprung-arm') return null;
  const { free, full } = armAngles(station.adjuster);
  return { station: station.id, turn: full > free ? 'ccw' : 'cw' };
}

/**
 * The pulley over whose rim the belt needs least length to be slipped on last: over a smooth face it slides on
 * sideways, between the halves of a split sheave it is laid, over ribs, a V rim or teeth it has to climb to lie on the
 * rim with its inner face, all the way round its wrap. `slackened` is the drive with the adjuster at its slack end.
 */
export function easiestLast(slackened: Drive, belt: Belt, section: Section): LastOn | null {
  const pulleys = pulleysById(slackened);
  const contacts = solveBelt(slackened, belt.id)!.contacts;
  const tries = belt.route.flatMap(({ pulley: id, side }, k): LastOn[] => {
    const { pulley, station } = pulleys.get(id)!;
    const slidesOn =
      side === 'back' ||
      pulley.surface === 'smooth' ||
      (station.adjuster?.kind === 'shims' && pulley.surface === 'vee');
    const lift = slidesOn
      ? 0
      : bodyRadiusMm(pulley, section) + facingDepthMm('drive', section) - contacts[k]!.cordRadius;
    const needsMm = pathLength(lift > 0 ? changePulley(slackened, id, larger(pulley, section, lift)) : slackened, belt);
    return needsMm === null ? [] : [{ pulley: id, needsMm }];
  });
  // Of those that need as little, one that stands still: not the arm that a wrench holds, and not the crank; then the
  // one with least wrap.
  const min = Math.min(...tries.map(({ needsMm }) => needsMm));
  const awkward = ({ pulley }: LastOn) => {
    const { role } = pulleys.get(pulley)!.station;
    const wrap = contacts.find((contact) => contact.pulley === pulley)!.wrapDeg ?? 0;
    return wrap + (HARD_TO_REACH[role] ?? 0);
  };
  return tries
    .filter(({ needsMm }) => needsMm < min + 1e-6)
    .reduce<LastOn | null>((best, next) => (best === null || awkward(next) < awkward(best) ? next : best), null);
}

/**
 * A pulley whose cord line lies `by` mm further out; teeth set theirs by their number, of which here there may be a
 * part.
 */
function larger(pulley: Pulley, section: Section, by: number): Partial<Pulley> {
  if (section.kind === 'toothed' && pulley.surface === 'toothed')
    return { teeth: (pulley.teeth ?? 0) + (2 * Math.PI * by) / section.pitch };
  return { diameter: (pulley.diameter ?? 0) + 2 * by };
}
