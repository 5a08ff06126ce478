import { widthOf } from '../adjuster';
import type { Belt, Pulley } from '../drive';
import { type Section, sectionFor, type Side } from '../section';

/** kg of a metre of a PK rib. A default, scaled by the rib's width times the belt's thickness for other ribs. */
const KG_PER_METRE_PK = 0.0185;
const PK_AREA = 3.56 * 4.6;
/** kg of a metre of AV10 and AV13. Defaults; others on the line through both, by width times thickness. */
const KG_PER_METRE_V = { area: [80, 130], kg: [0.075, 0.125] } as const;
/** kg of a mm³ of a toothed belt, its teeth counted as half of their height. A default. */
const TOOTHED_DENSITY = 1.2e-6;
/** Shear modulus of the belt as a whole, N/mm². A default. */
const SHEAR_N_PER_MM2 = 3;

/** Grip as it counts round a pulley: friction over the sine of half the groove angle. Defaults, dry. */
export const GRIP = { ribbed: 1.0, vee: 0.9, back: 0.35 } as const;
/** What is left of it wet. A default. */
export const WET_FRACTION = 0.5;

export function sectionOf(belt: Belt): Section {
  return sectionFor(belt.section, belt.sectionOverrides)!;
}

/** kg of a metre of the belt, and whether somebody weighed it. */
export function massOf(belt: Belt): { kgPerMetre: number; weighed: boolean } {
  if (belt.kgPerMetre !== undefined) return { kgPerMetre: belt.kgPerMetre, weighed: true };
  return { kgPerMetre: defaultMass(belt), weighed: false };
}

function defaultMass(belt: Belt): number {
  const section = sectionOf(belt);
  const { width, thickness, driveOffset, tipDepth } = section;
  if (section.kind === 'ribbed') return ((KG_PER_METRE_PK * width * thickness) / PK_AREA) * (belt.ribs ?? 1);
  if (section.kind === 'vee') {
    const [[small, large], [light, heavy]] = [KG_PER_METRE_V.area, KG_PER_METRE_V.kg];
    return Math.max(0.01, light + ((width * thickness - small) * (heavy - light)) / (large - small));
  }
  const teeth = Math.max(0, driveOffset - tipDepth);
  return TOOTHED_DENSITY * widthOf(belt) * (thickness - teeth / 2) * 1000;
}

/** What of the grip there is between a belt and a pulley; null where teeth hold it. */
export function gripOf({ kind }: Section, pulley: Pulley, side: Side, wet: boolean): number | null {
  const left = wet ? WET_FRACTION : 1;
  if (side === 'back' || pulley.surface === 'smooth') return GRIP.back * left;
  if (kind === 'toothed') return pulley.surface === 'toothed' ? null : GRIP.back * left;
  return GRIP[kind] * left;
}

/**
 * G·J of the belt, N·mm²: its shear modulus times the torsion constant of a rectangle as wide as the belt and as thick
 * as it is on the average (Saint-Venant's series, first terms).
 */
export function twistStiffness(belt: Belt): number {
  const { thickness, groove } = sectionOf(belt);
  const [b, t] = [widthOf(belt), thickness - (groove ? groove.depth / 2 : 0)].sort((x, y) => y - x) as [number, number];
  return (SHEAR_N_PER_MM2 * b * t ** 3 * (1 - 0.63 * (t / b) * (1 - (t / b) ** 4 / 12))) / 3;
}
