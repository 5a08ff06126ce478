import type { Role, SpeedBand, Station } from '../drive';

export type ShopBands = Partial<Record<Role, SpeedBand>>;

/**
 * Emery's generic bands by accessory, rev/min of its own shaft. Round figures to start from, shown as defaults; never a
 * unit's specification. What an accessory's maker says goes in its place.
 */
export const DEFAULT_BANDS: Readonly<Record<Role, SpeedBand>> = {
  crankshaft: band(null, null, null),
  alternator: band(1800, 14_000, 18_000),
  generator: band(1200, 6000, 8000),
  'water-pump': band(600, 6500, 8000),
  'power-steering': band(600, 6000, 8000),
  'ac-compressor': band(700, 7000, 9000),
  fan: band(500, 4000, 5000),
  'air-pump': band(800, 6000, 8000),
  supercharger: band(null, 14_000, 16_000),
  'vacuum-pump': band(700, 5000, 6000),
  idler: band(null, 12_000, 15_000),
  tensioner: band(null, 12_000, 15_000),
  jackshaft: band(null, 8000, 10_000),
  other: band(null, null, null),
};

function band(min: number | null, continuous: number | null, burst: number | null): SpeedBand {
  return { least: min, continuous, burst };
}

/** Whose figures a band has: of this very accessory, the shop's for its kind, or Emery's default. */
export type BandSource = 'vehicle' | 'shop' | 'default';

/** The band of a station: its own where the drive gives one, else the shop's for its role, else the default. */
export function bandOf(station: Station, shop: ShopBands = {}): { band: SpeedBand; source: BandSource } {
  if (station.speedBand) return { band: { ...band(null, null, null), ...station.speedBand }, source: 'vehicle' };
  const kept = shop[station.role];
  return kept ? { band: kept, source: 'shop' } : { band: DEFAULT_BANDS[station.role], source: 'default' };
}

/** Where a speed lies in a band: below the least, within, above the continuous limit, above the burst limit. */
export type BandPlace = 'too-slow' | 'right' | 'too-fast' | 'beyond';

export function placeIn({ least, continuous, burst }: SpeedBand, rpm: number): BandPlace {
  if (burst !== null && rpm > burst) return 'beyond';
  if (continuous !== null && rpm > continuous) return 'too-fast';
  return least !== null && rpm < least ? 'too-slow' : 'right';
}
