import { TRACK_WORTH_A_WORD } from '../align';
import { type Belt, type Check, checkRules, type Drive, type InspectFinding } from '../drive';
import { WOBBLES_MM } from '../planes';
import { sectionFor } from '../section';

/** A figure's limits: at `replace` a part is done, at `watch` it is looked at sooner. */
export interface Limits {
  /** Whether a low figure is the worn one. */
  lowIsWorn: boolean;
  watch: number;
  /** Null for a figure that alone condemns nothing. */
  replace: number | null;
  /** What a new part has; null where that is nothing to be measured. */
  fresh: number | null;
  /** Whose they are. */
  from: 'default' | 'shop' | 'manual';
}

/** Of what is left between new and worn out, a belt is watched over the last part. A default. */
const WATCH_SHARE = 1 / 3;

/** Defaults; none is a vehicle's specification. The depth of ribs comes from the section. */
const DEFAULTS: { readonly [C in Check]?: Omit<Limits, 'from'> } = {
  cracks: { lowIsWorn: false, watch: 0.5, replace: 3, fresh: 0 },
  // The V's bottom meets the groove's at about 2 mm.
  ride: { lowIsWorn: false, watch: 1, replace: 2, fresh: 0 },
  slot: { lowIsWorn: true, watch: 8, replace: 2, fresh: null },
  // Growth over the new length, percent.
  length: { lowIsWorn: false, watch: 0.5, replace: 1, fresh: 0 },
  rock: { lowIsWorn: false, watch: 0.25, replace: 0.5, fresh: 0 },
  'run-out': { lowIsWorn: false, watch: 0.3, replace: WOBBLES_MM, fresh: 0 },
  // A track off the middle tells of something else: it alone is no reason to change the roller.
  track: { lowIsWorn: false, watch: TRACK_WORTH_A_WORD, replace: null, fresh: 0 },
};

/** One standard deviation of a figure where none was given, in its own unit. Defaults. */
const SIGMA: { readonly [C in Check]?: number } = {
  'rib-depth': 0.1,
  cracks: 0.5,
  ride: 0.3,
  slot: 0.5,
  length: 4,
  rock: 0.05,
  'run-out': 0.05,
  track: 0.5,
  pointer: 1,
};

export const sigmaOfFinding = ({ check, plusMinus }: Pick<InspectFinding, 'check' | 'plusMinus'>): number =>
  plusMinus ?? SIGMA[check] ?? 0;

/** The checks that a limit can be given for. */
export const LIMITED = ['rib-depth', 'cracks', 'ride', 'slot', 'length', 'rock', 'run-out'] as const satisfies Check[];
export type LimitedCheck = (typeof LIMITED)[number];

/** What a check's figure is held against: the manual's or the shop's own limit, else a default; null without any. */
export function limitsOf(drive: Drive, check: Check, belt?: Belt): Limits | null {
  const start = defaultLimits(check, belt);
  const own = drive.inspect?.limits?.filter((one) => one.check === check);
  const given = own?.find(({ from }) => from === 'manual') ?? own?.[0];
  if (!given) return start && { ...start, from: 'default' };
  const lowIsWorn = start?.lowIsWorn ?? check === 'rib-depth';
  const fresh = given.new ?? start?.fresh ?? null;
  // Whoever gives one limit moves the other with it.
  const between =
    fresh === null ? (start?.watch ?? given.replace) : given.replace + WATCH_SHARE * (fresh - given.replace);
  const watch = given.watch ?? between;
  return { lowIsWorn, fresh, watch, replace: given.replace, from: given.from };
}

function defaultLimits(check: Check, belt: Belt | undefined): Omit<Limits, 'from'> | null {
  if (check !== 'rib-depth') return DEFAULTS[check] ?? null;
  const ribs = belt && sectionFor(belt.section)?.ribDepth;
  if (!ribs) return null;
  const { fresh, limit } = ribs;
  return { lowIsWorn: true, watch: limit + WATCH_SHARE * (fresh - limit), replace: limit, fresh };
}

/** How much of what there is between new and done is worn, as a fraction: 0 new, 1 done; null without either. */
export function wornShare(value: number, { fresh, replace }: Limits): number | null {
  return fresh === null || replace === null || fresh === replace ? null : (fresh - value) / (fresh - replace);
}

/** How bad a figure is by its limits. One whose doubt reaches the worse limit is watched. */
export function graded(value: number, sigma: number, { lowIsWorn, watch, replace }: Limits): Grade {
  const over = (limit: number, by = 0) => (lowIsWorn ? value - by <= limit : value + by >= limit);
  if (replace !== null && over(replace)) return 'replace';
  return over(watch) || (replace !== null && over(replace, 2 * sigma)) ? 'watch' : 'sound';
}

/** What one finding says of its part. */
export type Grade = 'sound' | 'watch' | 'replace' | 'nothing';

export const unitOf = (check: Check): 'mm' | 'degrees' | 'cracks' | 'percent' | null =>
  check === 'length' ? 'percent' : (checkRules(check).figure?.unit ?? null);
