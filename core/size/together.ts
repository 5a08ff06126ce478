import { fractionFor, lengthCurve, pathLength, travelOf } from '../adjuster';
import type { Belt, Drive } from '../drive';
import { DEFAULT_RESERVE_FRACTION } from '../seating';

/** Two lengths for two belts that one adjuster tightens. */
export interface Together {
  /** Marked lengths of the first and the second belt, mm. */
  lengths: [number, number];
  /** Share of the travel at which the first is taut. */
  fraction: number;
  /**
   * How much the second is longer than its path there: above 0 it hangs loose, below it takes all the pull. New, and
   * after both have stretched; mm.
   */
  looseNew: number;
  looseWorn: number;
}

export interface TogetherAnswer {
  /** The other belt on the same adjuster. */
  other: string;
  pairs: Together[];
  /**
   * Both run over the same shafts with paths as good as equal: twin sheaves, for which belts are sold in matched sets.
   */
  matched: boolean;
}

/** Paths of twin sheaves differ by less, mm. */
const MATCHED = 1;

/** The other belts whose adjuster is the same shaft. */
export function sharingAdjuster(drive: Drive, belt: Belt): Belt[] {
  const station = travelOf(drive, belt)?.station;
  return station === undefined
    ? []
    : drive.belts.filter((other) => other.id !== belt.id && travelOf(drive, other)?.station === station);
}

/**
 * Lengths for two belts on one adjuster, chosen together so that both come right at one position: the best few of all
 * pairs, by how loose or tight the second is while the first is taut, new and after both have stretched by the reserve
 * (the longer one stretches more). Null where the belts do not fraction an adjuster.
 */
export function sizeTogether(
  drive: Drive,
  firstId: string,
  secondId: string,
  lengths: { first: readonly number[]; second: readonly number[] },
  stretch?: number,
  top = 5,
): TogetherAnswer | null {
  const first = drive.belts.find(({ id }) => id === firstId);
  const second = drive.belts.find(({ id }) => id === secondId);
  const curve = first && lengthCurve(drive, first);
  const other = second && lengthCurve(drive, second);
  if (!first || !second || !curve || !other || curve.travel.station !== other.travel.station) return null;
  const grows = stretch ?? first.reserve ?? DEFAULT_RESERVE_FRACTION;
  const needed = (length: number) => {
    const fraction = fractionFor(curve, first, length);
    const path = fraction === null ? null : pathLength(curve.travel.at(fraction), second);
    return fraction === null || path === null ? null : { fraction, path };
  };
  const pairs = lengths.first.flatMap((a) => {
    const fresh = needed(a);
    const worn = needed(a * (1 + grows));
    if (!fresh || !worn) return [];
    return lengths.second.map((b): Together => ({
      lengths: [a, b],
      fraction: fresh.fraction,
      looseNew: b - fresh.path,
      looseWorn: b * (1 + grows) - worn.path,
    }));
  });
  const worst = ({ looseNew, looseWorn }: Together) => Math.max(Math.abs(looseNew), Math.abs(looseWorn));
  pairs.sort((p, q) => worst(p) - worst(q) || p.fraction - q.fraction);
  const stations = (belt: Belt) =>
    belt.route
      .map(({ pulley }) => drive.stations.find(({ pulleys }) => pulleys.some(({ id }) => id === pulley))?.id)
      .join();
  const matched =
    stations(first) === stations(second) &&
    curve.lengths.every((length, k) => length !== null && Math.abs(length - (other.lengths[k] ?? Infinity)) < MATCHED);
  return { other: secondId, pairs: pairs.slice(0, top), matched };
}
