import type { Belt, Drive } from '../drive';
import { type LongerThanDrawn } from '../adjuster';
import { sizeBelt, type Sizing } from '../seating';
import { sectionFor } from '../section';
import { fitSurvey } from '../survey';
import { DEFAULT_UNCERTAINTY } from './defaults';
import { GROWTH_DEFAULTS, type GrowthDefaults } from './growth';
import { type FitEdges, type Layout, layoutOf } from './layout';
import { combinedLength, type CombinedLength, lengthWitnesses } from './measured';
import { serviceReadings } from './service';
import { triedEvidence, type TriedEvidence } from './tried';
import { beltFractionOf, covarianceOf, edgesOf, responseOf } from './uncertainty';

/** All that is known of a belt's layout, and what it rests on. */
export interface KnownLayout {
  drive: Drive;
  belt: Belt;
  /** As drawn, with nothing that was measured. */
  drawn: Sizing;
  edges: FitEdges | null;
  measured: CombinedLength;
  tried: TriedEvidence[];
  layout: Layout;
  /** How much longer the path is than drawn; null where nothing was measured or tried on. */
  longer: LongerThanDrawn | null;
  growth: GrowthDefaults;
}

export interface KnowOptions {
  draws?: number;
  /** How belts of this kind grow in this shop; Emery's defaults where nobody says. */
  growth?: GrowthDefaults;
}

/** What the drawing alone says of a belt: the same whatever was measured of its length, or tried on. */
export interface DrawnLayout {
  drive: Drive;
  belt: Belt;
  drawn: Sizing;
  covariance: number[][];
  edges: FitEdges | null;
}

/** Null where the drive has no such belt. */
export function drawnLayout(drive: Drive, beltId: string): DrawnLayout | null {
  const belt = drive.belts.find(({ id }) => id === beltId);
  const drawn = sizeBelt(drive, beltId, { lengths: [] });
  if (!drawn || !belt) return null;
  const surveyed = (drive.survey?.readings?.length ?? 0) + (drive.survey?.photos?.length ?? 0) > 0;
  const fit = surveyed ? fitSurvey(drive, drive.survey?.readings ?? []) : null;
  const covariance = covarianceOf(responseOf(drive, belt, drawn, fit));
  return { drive, belt, drawn, covariance, edges: edgesOf(belt, drawn) };
}

/** What all evidence says of a belt's layout. Null where the drive has no such belt. */
export function knownLayout(drive: Drive, beltId: string, options: KnowOptions = {}): KnownLayout | null {
  const drawn = drawnLayout(drive, beltId);
  return drawn && withEvidence(drawn, drawn.belt, options);
}

/** The same with what was measured of the length and tried on of `belt`, which is otherwise the drawing's. */
export function withEvidence(
  { drive, drawn, covariance, edges }: DrawnLayout,
  belt: Belt,
  { draws, growth: given }: KnowOptions = {},
): KnownLayout {
  const { curve } = drawn;
  const growth = given ?? GROWTH_DEFAULTS[sectionFor(belt.section, belt.sectionOverrides)!.kind];
  const middle = covariance.length >> 1;
  const sigma = Math.sqrt(covariance[middle]?.[middle] ?? DEFAULT_UNCERTAINTY.placeMm ** 2);
  const measured = combinedLength(drive, belt, curve, sigma);
  const tried = triedEvidence(drive, belt, curve, beltFractionOf(belt));
  const layout = layoutOf(
    {
      ...{ covariance, end: curve?.end ?? 1, edges, tried, growth },
      witnesses: lengthWitnesses(drive, belt, curve),
      widen: measured.widen,
      service: serviceReadings(drive, belt, curve),
    },
    { ...(draws !== undefined && { draws }) },
  );
  const known = measured.measured.length + tried.length > 0;
  const longer = known ? (fraction: number) => layout.offsetAt(fraction).mm : null;
  return { ...{ drive, belt, drawn, edges, measured, tried, layout, longer, growth } };
}
