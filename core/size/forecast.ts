import { figureAt } from '../numeric';
import { grownAfter, type GrowthDefaults } from './growth';
import type { KnownLayout } from './known-layout';
import { keptBelt } from './service';

/** How a belt that was kept goes on from here. */
export interface ServiceForecast {
  tried: string;
  /** Readings of the adjuster after it went on. */
  readings: number;
  /** What it seats by, and grows by for every 10,000 km, as fractions of its length; by all that is known. */
  growth: GrowthDefaults;
  /** Belts of its section by which this shop knows how they grow; none where that is Emery's default. */
  sittings: number;
  /**
   * Distance from its fitting at which the adjuster reaches the long mark, or the end of its travel, km: as likely
   * before as after, and the bounds between which two of three lie. Null where it is not reached in `MOST_KM`.
   */
  reachesKm: { likely: number | null; from: number | null; to: number | null };
}

/** Nothing is forecast beyond this, km. */
export const MOST_KM = 500_000;

/** Null where no belt was kept, or no window is known. */
export function serviceForecast({
  drive,
  belt,
  tried,
  layout,
  edges,
  drawn,
  growth: by,
}: KnownLayout): ServiceForecast | null {
  const kept = keptBelt(drive, belt);
  const k = tried.findIndex((evidence) => evidence.tried.id === kept?.id);
  const belonging = tried[k];
  if (!kept || !belonging || !edges || !layout.growthPlaces || !drawn.curve) return null;
  const { seat, rate } = layout.growthPlaces;
  const { lengthMm } = belonging;
  const [end, own] = [layout.sumAt(edges.to.fraction), layout.ownPlace(k)];
  const distances = layout.draws.map((row, d) => {
    const room =
      edges.to.mm +
      end.reduce((sum, [place, weight]) => sum + weight * figureAt(row, place), 0) -
      lengthMm -
      figureAt(row, own);
    return {
      km: reached(room, (lengthMm * figureAt(row, seat)) / 1000, (lengthMm * figureAt(row, rate)) / 1000),
      count: figureAt(layout.counts, d),
    };
  });
  distances.sort((a, b) => a.km - b.km);
  const grown = (place: number) => {
    const { mm, sigma } = layout.figure(place);
    return { fraction: mm / 1000, plusMinus: sigma / 1000 };
  };
  return {
    tried: kept.id,
    readings: layout.growthPlaces.readings,
    sittings: by.sittings ?? 0,
    growth: { seat: grown(seat), rate: grown(rate) },
    reachesKm: { likely: quantile(distances, 0.5), from: quantile(distances, 1 / 6), to: quantile(distances, 5 / 6) },
  };
}

/** The distance at which seating and growth have used up the room, km; infinite where they never do. */
function reached(roomMm: number, seatMm: number, rateMm: number): number {
  if (roomMm <= 0) return 0;
  if (rateMm <= 0 && seatMm < roomMm) return Infinity;
  const at = (km: number) => {
    const { seated, grown } = grownAfter(km);
    return seatMm * seated + rateMm * grown;
  };
  let [low, high] = [0, MOST_KM];
  if (at(high) < roomMm) return Infinity;
  for (let round = 0; round < 40; round += 1) {
    const middle = (low + high) / 2;
    if (at(middle) < roomMm) low = middle;
    else high = middle;
  }
  return high;
}

function quantile(sorted: readonly { km: number; count: number }[], share: number): number | null {
  let sum = 0;
  for (const { km, count } of sorted) {
    sum += count;
    if (sum >= share) return Number.isFinite(km) ? km : null;
  }
  return null;
}
