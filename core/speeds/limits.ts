import type { Section } from '../section';

/** What a belt of a section bears, by general design practice. Defaults, not a belt's specification. */
export interface BeltLimits {
  metresPerSecond: number;
  flexPerSecond: number;
  /** Smallest circle of the cord with the drive side on the pulley, mm. */
  leastDriveMm: number;
  /** The same with the back on the pulley. */
  leastBackMm: number;
}

/**
 * By kind: fastest running and most bends per second. General textbook figures for raw-edge V, ribbed and toothed
 * belts; defaults.
 */
const BY_KIND: Record<Section['kind'], Pick<BeltLimits, 'metresPerSecond' | 'flexPerSecond'>> = {
  ribbed: { metresPerSecond: 60, flexPerSecond: 200 },
  vee: { metresPerSecond: 42, flexPerSecond: 100 },
  toothed: { metresPerSecond: 60, flexPerSecond: 200 },
};

/** Smallest circles for ribs, mm (ISO 9981, ISO 9982). */
const LEAST_RIBBED_MM: Record<string, number> = { PJ: 20, PK: 45, PL: 75, PM: 180 };

/**
 * Smallest bends. Ribs: by section, 45 mm for PK. V: five times the belt's height, half as much again over the back.
 * Teeth: ten of them. Defaults.
 */
export function limitsFor(section: Section): BeltLimits {
  const leastDriveMm = {
    ribbed: LEAST_RIBBED_MM[section.name] ?? 45,
    vee: 5 * section.thickness,
    toothed: (10 * section.pitch) / Math.PI,
  }[section.kind];
  return {
    ...BY_KIND[section.kind],
    leastDriveMm,
    leastBackMm: leastDriveMm * (section.kind === 'ribbed' ? 1.2 : 1.5),
  };
}
