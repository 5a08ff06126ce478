import { TRACK_WORTH_A_WORD } from '../align';
import {
  type Belt,
  type Check,
  checkRules,
  type Drive,
  findPulley,
  type InspectFinding,
  type ShopLimit,
  stationOf,
} from '../drive';
import { WOBBLES_MM } from '../planes';
import { sectionFor } from '../section';

/** What a belt is made of where nobody says: nearly all are now. A default. */
export const DEFAULT_MATERIAL = 'epdm';

/** A figure's limits: at `replace` a part is done, at `watch` it is looked at sooner. */
export interface Limits {
  /** Whether a low figure is the worn one. */
  lowIsWorn: boolean;
  watch: number;
  /** Null for a figure that alone condemns nothing. */
  replace: number | null;
  /** What a new part has; null where that is nothing to be measured. */
  fresh: number | null;
  /** Whose they are: Emery's, the shop's for every drive, the shop's for this one, the manual's. */
  from: LimitFrom;
}
export type LimitFrom = 'default' | 'shop-wide' | 'shop' | 'manual';

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

/** Whether a low figure is the worn one. */
export const lowIsWorn = (check: LimitedCheck): boolean => check === 'rib-depth' || DEFAULTS[check]!.lowIsWorn;

/** Which belts or pulleys a limit of the shop is for. */
const scopeOf = ({ check, section, material, kind }: ShopLimit) => [check, section, material, kind].join('\n');

/** The limits of a shop with another among them, in place of one of the same check for the same belts or pulleys. */
export const withShopLimit = (limits: readonly ShopLimit[], limit: ShopLimit): ShopLimit[] => [
  ...limits.filter((other) => scopeOf(other) !== scopeOf(limit)),
  limit,
];

/** What a limit is asked for: a belt, with what it is made of where that was found, or a pulley. */
export interface LimitedPart {
  belt?: Belt | undefined;
  material?: string | undefined;
  pulley?: string | undefined;
}

/**
 * What a check's figure is held against: the manual's limit, else the shop's own for this drive, else what the shop
 * holds for every drive, the one that names most of the part first, else a default; null without any.
 */
export function limitsOf(drive: Drive, check: Check, part: LimitedPart = {}): Limits | null {
  const start = defaultLimits(drive, check, part);
  const own = drive.inspect?.limits?.filter((limit) => limit.check === check);
  const given = own?.find(({ from }) => from === 'manual') ?? own?.[0];
  if (given) return between(check, start, given, given.from);
  const wide = (drive.inspect?.shop ?? [])
    .filter((limit) => limit.check === check && isFor(drive, limit, part))
    .sort((a, b) => names(b) - names(a))[0];
  return wide ? between(check, start, wide, 'shop-wide') : start && { ...start, from: 'default' };
}

/** How much of a part a limit names. */
const names = ({ section, material, kind }: ShopLimit) =>
  [section, material, kind].filter((name) => name !== undefined).length;

function isFor(drive: Drive, { section, material, kind }: ShopLimit, part: LimitedPart): boolean {
  if (section !== undefined && part.belt?.section !== section) return false;
  if (material !== undefined && (part.material ?? DEFAULT_MATERIAL) !== material) return false;
  return kind === undefined || (part.pulley !== undefined && findPulley(drive, part.pulley)?.kind === kind);
}

/** Whoever gives one limit moves the other with it. */
function between(
  check: Check,
  start: Omit<Limits, 'from'> | null,
  given: { replace: number; watch?: number; new?: number },
  from: LimitFrom,
): Limits {
  const lowIsWorn = start?.lowIsWorn ?? check === 'rib-depth';
  const fresh = given.new ?? start?.fresh ?? null;
  const middle =
    fresh === null ? (start?.watch ?? given.replace) : given.replace + WATCH_SHARE * (fresh - given.replace);
  return { lowIsWorn, fresh, watch: given.watch ?? middle, replace: given.replace, from };
}

function defaultLimits(drive: Drive, check: Check, { belt, pulley }: LimitedPart): Omit<Limits, 'from'> | null {
  if (check === 'cracks' && belt && sectionFor(belt.section)?.kind === 'toothed') return TOOTH_CRACKS;
  if (check === 'rock' && pulley !== undefined && stationOf(drive, pulley)?.role === 'water-pump') return PUMP_ROCKS;
  if (check !== 'rib-depth') return DEFAULTS[check] ?? null;
  const ribs = belt && sectionFor(belt.section)?.ribDepth;
  if (!ribs) return null;
  const { fresh, limit } = ribs;
  return { lowIsWorn: true, watch: limit + WATCH_SHARE * (fresh - limit), replace: limit, fresh };
}

/** A crack at a tooth is there or not: counting to none and to one is surer than counting many. */
export const TOOTH_SIGMA = 0.2;
/** One crack at the root of a tooth is the beginning of its end. A default. */
const TOOTH_CRACKS: Omit<Limits, 'from'> = { lowIsWorn: false, watch: 0.5, replace: 1, fresh: 0 };
/** A pump's seal leaks long before its bearing sounds. A default. */
const PUMP_ROCKS: Omit<Limits, 'from'> = { lowIsWorn: false, watch: 0.1, replace: 0.3, fresh: 0 };

/** A groove so much deeper than a new one's is none, as a part of it; and what else no belt or bearing can show, mm. */
const DEEPER = 1.2;
const IMPOSSIBLE: { readonly [C in Check]?: readonly [number, number] } = {
  ride: [-3, 15],
  rock: [0, 6],
  'run-out': [0, 10],
};

/** Of a figure that can hardly be what it says, what it can be, in its own unit; null for one that can. */
export function oddFigure(check: Check, value: number, limits: Limits | null): { from: number; to: number } | null {
  if (check === 'rib-depth') {
    const to = limits?.fresh ? DEEPER * limits.fresh : null;
    return to !== null && value > to ? { from: 0, to } : null;
  }
  const range = IMPOSSIBLE[check];
  return range && (value < range[0] || value > range[1]) ? { from: range[0], to: range[1] } : null;
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
