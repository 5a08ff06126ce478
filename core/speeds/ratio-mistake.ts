import { type Drive, findPulley } from '../drive';
import { bodyRadiusMm, cordRadiusMm, sectionFor } from '../section';
import { chainTo, type Link } from './chain';

/** What somebody worked out by hand: a ratio, or so many percent. */
export interface ClaimedRatio {
  value: number;
  percent: boolean;
  /** Half of the last digit written, as a share of the value: it cannot be known better. */
  rounding: number;
}

/** The ways somebody may have come to a ratio, the likeliest first. */
const SLIPS = [
  'right',
  'share',
  'upside-down',
  'upside-down-percent',
  'rims',
  'rims-upside-down',
  'other-sheave',
  'one-stage',
  'radius',
  'other-shaft',
] as const;
export type RatioMistake = (typeof SLIPS)[number];

/** One way somebody may have come to a ratio. */
export interface RatioReading {
  slip: RatioMistake;
  /** What that way of working gives, as it would have been written. */
  value: number;
  /** How far the claim is from it, as a share. */
  off: number;
  pulley?: string;
  station?: string;
}

/**
 * Reads `2.94`, `2,94`, `2.94:1`, `2.94 to 1`, `1:2.94`, `25 %`; null for what is no ratio. `1:2.94` is read as the
 * crank's turns to the accessory's.
 */
export function readRatio(text: string): ClaimedRatio | null {
  const tidy = text.trim().replace(/,/g, '.').replace(/\s+/g, '');
  const match = /^([+-]?\d+(?:\.\d+)?)(?:([:/])(\d+(?:\.\d+)?)|(%))?$/.exec(
    tidy.replace(/(?<=\d)(?:to|in)(?=\d)/i, ':'),
  );
  if (!match) return null;
  const [, first = '', sign, second, percent] = match;
  const [a, b] = [Number(first), second === undefined ? 1 : Number(second)];
  const divided = sign === ':' && a === 1 && b !== 1 ? b : a / b;
  const value = sign === undefined ? a : divided;
  if (!Number.isFinite(value) || value === 0 || (value < 0 && percent === undefined)) return null;
  const ulp = (digits: string) => 0.5 / 10 ** (digits.split('.')[1]?.length ?? 0) / Math.abs(Number(digits));
  const rounding = sign === undefined ? ulp(first) : Math.max(a === 1 ? 0 : ulp(first), b === 1 ? 0 : ulp(second!));
  return { value, percent: percent !== undefined, rounding };
}

/** However little was written, this much is put down to rounding; however much, no more than that. */
const CLOSE = { least: 0.004, most: 0.02 };

/**
 * Says how somebody came to a ratio: rightly, or by which slip. Best first; empty where no way of working known to
 * Emery gives it. Percentages are read as gains over the crank's speed. Null where the crank does not drive that shaft.
 */
export function explainRatio(
  drive: Drive,
  station: string,
  claim: ClaimedRatio,
): { truth: number; readings: RatioReading[] } | null {
  const chain = chainTo(drive, station);
  if (!chain || chain.length === 0) return null;
  const truth = ratioOf(chain);
  const rims = ratioOf(chain.map((link) => ({ ...link, ...rimRadii(drive, link) })));
  const tries: Omit<RatioReading, 'off'>[] = [];
  const put = (slip: RatioMistake, ratio: number, more: Partial<RatioReading> = {}) =>
    tries.push({ slip, value: claim.percent ? 100 * (ratio - 1) : ratio, ...more });
  put('right', truth);
  if (claim.percent) {
    tries.push({ slip: 'share', value: 100 * truth });
    tries.push(
      { slip: 'upside-down-percent', value: 100 / truth },
      { slip: 'upside-down-percent', value: 100 * (1 - 1 / truth) },
    );
  }
  put('upside-down', 1 / truth);
  if (Math.abs(rims / truth - 1) > 2e-3) {
    put('rims', rims);
    put('rims-upside-down', 1 / rims);
    if (claim.percent) tries.push({ slip: 'rims', value: 100 * rims }, { slip: 'rims-upside-down', value: 100 / rims });
  }
  chain.forEach((link, at) => {
    for (const end of ['driver', 'driven'] as const) {
      for (const { id, radius } of othersOnShaft(drive, link, end)) {
        const changed = chain.map((link, k) =>
          k === at ? { ...link, [end === 'driver' ? 'driverRadius' : 'drivenRadius']: radius } : link,
        );
        put('other-sheave', ratioOf(changed), { pulley: id });
      }
    }
  });
  put('radius', 2 * truth);
  put('radius', truth / 2);
  if (chain.length > 1) for (const link of chain) put('one-stage', ratioOf([link]), { station: link.to });
  for (const { id } of drive.stations) {
    const other = id === station ? null : chainTo(drive, id);
    if (other && other.length > 0) put('other-shaft', ratioOf(other), { station: id });
  }
  const close = Math.min(CLOSE.most, Math.max(CLOSE.least, 1.2 * claim.rounding));
  const seen = new Set<string>();
  const readings = tries
    .map((attempt) => ({ ...attempt, off: Math.abs(claim.value / attempt.value - 1) }))
    .filter(({ off }) => off <= close)
    // The likeliest slip first; of one kind the nearest.
    .sort((a, b) => SLIPS.indexOf(a.slip) - SLIPS.indexOf(b.slip) || a.off - b.off)
    .filter(
      ({ slip, pulley, station: at }) => !seen.has(`${slip} ${pulley} ${at}`) && seen.add(`${slip} ${pulley} ${at}`),
    );
  return { truth, readings };
}

/** Turns of the last shaft for each of the first. */
export function ratioOf(chain: readonly Pick<Link, 'driverRadius' | 'drivenRadius'>[]): number {
  return chain.reduce((ratio, { driverRadius, drivenRadius }) => (ratio * driverRadius) / drivenRadius, 1);
}

function rimRadii(drive: Drive, { belt, driver, driven }: Link): Pick<Link, 'driverRadius' | 'drivenRadius'> {
  const source = drive.belts.find(({ id }) => id === belt)!;
  const section = sectionFor(source.section, source.sectionOverrides);
  const rim = (id: string) => bodyRadiusMm(findPulley(drive, id)!, section);
  return { driverRadius: rim(driver), drivenRadius: rim(driven) };
}

/** The other sheaves of a shaft, had the belt run on them. */
function othersOnShaft(drive: Drive, link: Link, end: 'driver' | 'driven'): { id: string; radius: number }[] {
  const shaft = drive.stations.find(({ id }) => id === (end === 'driver' ? link.from : link.to))!;
  const source = drive.belts.find(({ id }) => id === link.belt)!;
  const section = sectionFor(source.section, source.sectionOverrides)!;
  const own = end === 'driver' ? link.driver : link.driven;
  const side = end === 'driver' ? link.driverSide : link.drivenSide;
  return shaft.pulleys
    .filter(({ id }) => id !== own)
    .map((pulley) => ({ id: pulley.id, radius: cordRadiusMm(pulley, side, section) }))
    .filter(({ radius }) => radius > 0);
}
