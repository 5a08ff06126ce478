import type { Belt } from '../drive';
import { beltWidthMm, sectionFor } from '../section';

/** Width of a toothed belt where the belt does not say, mm. A default. */
export const DEFAULT_TOOTHED_WIDTH_MM = 25.4;
/** Tension a rib, a V-belt of 10 mm, or a mm of toothed width is set to where nothing is known, N. Defaults. */
const DEFAULT_SET = { rib: 110, vee: 300, toothedMm: 8 } as const;
/** A new belt is set this much higher than one that has run in. A default. */
export const NEW_BELT_FACTOR = 1.3;
/** Below this fraction of its setting a belt that has run in is set again. A default. */
export const SET_AGAIN_FRACTION = 0.8;

/** Width of the belt across, mm: of a toothed one `sectionOverrides.width`, else a default. */
export function widthOf(belt: Belt): number {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  const width = beltWidthMm(belt, section);
  return section.kind === 'toothed' && !(width > 0) ? DEFAULT_TOOTHED_WIDTH_MM : width;
}

/** What a belt that has run in is set to where nothing else is known, N. A default. */
export function defaultSetting(belt: Belt): number {
  const section = sectionFor(belt.section, belt.sectionOverrides)!;
  if (section.kind === 'ribbed') return DEFAULT_SET.rib * (section.width / 3.56) * (belt.ribs ?? 1);
  if (section.kind === 'vee') return DEFAULT_SET.vee * (section.width / 10);
  return DEFAULT_SET.toothedMm * widthOf(belt);
}
