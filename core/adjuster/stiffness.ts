import type { Belt } from '../drive';
import { sectionFor } from '../section';
import { DEFAULT_TOOTHED_WIDTH_MM, widthOf } from './belt-setting';

/** N of a mm of a toothed belt's width: 200 kN of one an inch wide. A default. */
const TOOTHED_PER_MM = 200_000 / DEFAULT_TOOTHED_WIDTH_MM;

/**
 * Stiffness of a belt's cords, EA in N. Defaults: by rib of PK, by section or by width of teeth, scaled with the width
 * for others.
 */
export function stiffnessN(belt: Belt): number {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  if (section.kind === 'ribbed') return 14_000 * (section.width / 3.56) * (belt.ribs ?? 1);
  // On the line through AV10 and AV13; below 8 mm in proportion, for the line would come to nothing at 4.
  if (section.kind === 'vee') return section.width < 8 ? 5000 * section.width : 10_000 * (section.width - 4);
  return TOOTHED_PER_MM * widthOf(belt);
}

/**
 * Tension of a belt stretched round a path longer than itself, N; 0 where it hangs loose. Lengths are cord lengths, mm.
 */
export function stretchTension(belt: Belt, pathMm: number, beltMm: number): number {
  return Math.max(0, (stiffnessN(belt) * (pathMm - beltMm)) / beltMm);
}
