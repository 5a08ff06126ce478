import { DEFAULT_MARKS } from '../accessory';
import {
  type BandPlace,
  type BandSource,
  bandOf,
  placeIn,
  type ShopBands,
  type SizeWanted,
  sizesFor,
  speedsOf,
} from '../speeds';
import type { TwoPulleys } from './two-pulleys';

/** An engine speed, and what the two pulleys make of it. */
export interface PulleySpeed {
  at: 'asked' | keyof typeof DEFAULT_MARKS;
  engineRpm: number;
  rpm: number;
  place: BandPlace;
  beltMetresPerSecond: number;
}

export interface PulleySpeeds {
  rows: PulleySpeed[];
  source: BandSource;
  /** The fastest of the engine speeds. */
  fastest: PulleySpeed;
  /** Where it turns faster than it is to for hours: the limit, rev/min, and the sizes that would bring it there. */
  tooFast: { limit: number; by: number; instead: SizeWanted[] } | null;
}

/**
 * What the other pulley turns at an engine speed that was asked for and at the default idle, cruise and redline,
 * against its band: the shop's for such an accessory, else the default.
 */
export function pulleySpeeds(
  { drive, station, ratio, solution }: TwoPulleys,
  askedRpm: number | null,
  shop: ShopBands = {},
): PulleySpeeds {
  const { band, source } = bandOf(
    drive.stations.find(({ id }) => id === station)!,
    shop,
  );
  const pace = speedsOf(drive, solution).belts[0]!.metresPerSecond ?? 0;
  const row = (at: PulleySpeed['at'], engineRpm: number): PulleySpeed => ({
    at,
    engineRpm,
    rpm: ratio * engineRpm,
    place: placeIn(band, ratio * engineRpm),
    beltMetresPerSecond: pace * engineRpm,
  });
  const rows = [
    ...(askedRpm === null ? [] : [row('asked', askedRpm)]),
    ...(['idle', 'cruise', 'redline'] as const).map((mark) => row(mark, DEFAULT_MARKS[mark])),
  ];
  const fastest = rows.reduce((found, next) => (next.engineRpm > found.engineRpm ? next : found));
  const limit = band.continuous;
  return {
    rows,
    source,
    fastest,
    tooFast:
      limit !== null && fastest.rpm > limit
        ? { limit, by: fastest.rpm - limit, instead: sizesFor(drive, station, limit, fastest.engineRpm) }
        : null,
  };
}
