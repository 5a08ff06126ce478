import { type Bolt, type BoltUse, type Drive, itemsOf } from '../drive';

/**
 * What is tightened, in this order unless the manual gives another: what holds the adjuster where it was set, then what
 * it turns on. Its screw is not in it: that is turned to set the belt, before its lock bolt holds it.
 */
const TIGHTENED: readonly BoltUse[] = ['lock', 'jam', 'pivot', 'mount', 'cover', 'adjust'];
export const inTighteningOrder = (bolts: readonly Bolt[]): Bolt[] =>
  [...bolts].sort(
    (a, b) => (a.order ?? Infinity) - (b.order ?? Infinity) || TIGHTENED.indexOf(a.use) - TIGHTENED.indexOf(b.use) || 0,
  );

/** The bolts with these uses, in the order of the uses; of one station where it is named. */
export function boltsFor(drive: Drive, uses: readonly BoltUse[], station?: string): Bolt[] {
  const all = itemsOf(drive, 'job.bolts').filter((bolt) => station === undefined || bolt.station === station);
  return uses.flatMap((use) => all.filter((bolt) => bolt.use === use));
}

/** What is slackened before an adjuster is turned, and tightened once it is set. */
const HOLDS_ADJUSTER: readonly BoltUse[] = ['pivot', 'lock', 'jam'];
export const slackenedAt = (drive: Drive, station: string): Bolt[] => boltsFor(drive, HOLDS_ADJUSTER, station);
export const tightenedAt = (drive: Drive, station: string): Bolt[] => inTighteningOrder(slackenedAt(drive, station));

/** A bolt whose torque nobody has looked up. An adjuster's screw needs none. */
export const lacksTorque = ({ use, torqueNm, angleDeg }: Bolt): boolean =>
  use !== 'adjust' && torqueNm === undefined && angleDeg === undefined;
