/**
 * A belt section. All lengths in mm, angles in degrees. Every number is a default that a belt's `sectionOverrides` may
 * replace; none is a vehicle's specification.
 */
export interface Section {
  name: string;
  kind: 'ribbed' | 'vee' | 'toothed';
  /** The length printed on such a belt. */
  basis: 'effective' | 'outside' | 'pitch';
  /** Where the numbers come from, for the reader. */
  source: string;
  /**
   * From the cord to the surface that a drive-side pulley's diameter is read on (ribbed) or to the tooth face
   * (toothed).
   */
  driveOffset: number;
  /** From the cord to the back of the belt. For a V-belt this is the cord's depth below its top. */
  backOffset: number;
  /** From the cord to the marked length's line, positive outward. */
  markedOffset: number;
  /** From the belt's back to its inner face; used to draw the belt and to see what it rubs on. */
  thickness: number;
  /** Top width of a V-belt; width of one rib; 0 for a toothed belt, whose width is not part of its section. */
  width: number;
  grooveAngle: number;
  /** Tooth pitch; 0 where there are no teeth. */
  pitch: number;
  /** From the pitch circle of a toothed pulley in to the tips of its teeth; 0 where there are none. */
  tipDepth: number;
  /** Of a ribbed belt, one groove of its pulley: how wide it is open at the rim, and how deep. Defaults. */
  groove: { open: number; depth: number } | null;
  /** Of a ribbed belt, how deep the grooves between its ribs are when it is new, and when it is worn out. Defaults. */
  ribDepth: { fresh: number; limit: number } | null;
  /** The angle of a run to its pulleys up to which it is good, and up to which it is to be watched, degrees. */
  runAngle: { good: number; watch: number };
}

/** How deep a PK pulley's grooves are, mm. A default. */
const PK_GROOVE = 2.4;

/** The same for every section until makers' figures say otherwise. */
const RUN_ANGLE = { good: 0.5, watch: 1 };

export type SectionOverrides = Partial<Record<(typeof OVERRIDABLE)[number], number>>;

/** The constants that `sectionOverrides` may name. `cordDepth` sets the three offsets of a V-belt at once. */
export const OVERRIDABLE = [
  'cordDepth',
  'driveOffset',
  'backOffset',
  'markedOffset',
  'thickness',
  'width',
  'grooveAngle',
  'pitch',
] as const;

/**
 * `effective` is from the effective line, on which a pulley's diameter is read and the belt is marked, out to the cord.
 */
function ribbed(
  name: string,
  width: number,
  effective: number,
  backOffset: number,
  thickness: number,
  depth: number,
  source: string,
): Section {
  // PK's own figures; the others' in proportion to the depth of their pulleys' grooves.
  const scale = depth / PK_GROOVE;
  return {
    name,
    kind: 'ribbed',
    basis: 'effective',
    source,
    driveOffset: effective,
    backOffset,
    markedOffset: -effective,
    thickness,
    width,
    grooveAngle: 40,
    pitch: 0,
    tipDepth: 0,
    groove: { open: 0.8 * width, depth },
    ribDepth: { fresh: Number((2.9 * scale).toFixed(2)), limit: Number((2 * scale).toFixed(2)) },
    runAngle: RUN_ANGLE,
  };
}

function vee(name: string, width: number, cordDepth: number, thickness: number, source: string): Section {
  return {
    name,
    kind: 'vee',
    basis: 'outside',
    source,
    ...veeOffsets(cordDepth),
    thickness,
    width,
    grooveAngle: 36,
    pitch: 0,
    tipDepth: 0,
    groove: null,
    ribDepth: null,
    runAngle: RUN_ANGLE,
  };
}

/** The belt's top is level with the rim, so the cord lies its own depth below the rim and below the outside length. */
function veeOffsets(cordDepth: number): Pick<Section, 'driveOffset' | 'backOffset' | 'markedOffset'> {
  return { driveOffset: -cordDepth, backOffset: cordDepth, markedOffset: cordDepth };
}

/** Cord depth for a V width without a value of its own: on the line through AV10 and AV13. */
function scaledDepth(width: number): number {
  return Number((2.07 + ((width - 10) * (2.86 - 2.07)) / 3).toFixed(2));
}

function inchVee(name: string, width: number, thickness: number): Section {
  return vee(name, width, scaledDepth(width), thickness, 'SAE J636 width; cord depth scaled between AV10 and AV13');
}

/** `differential` is from the pitch line to the tips of the pulley's teeth, its outside diameter. */
function toothed(
  name: string,
  pitch: number,
  thickness: number,
  toothHeight: number,
  differential: number,
  source = 'ISO 5294, ISO 5296',
): Section {
  return {
    name,
    kind: 'toothed',
    basis: 'pitch',
    source,
    driveOffset: toothHeight + differential,
    backOffset: Number((thickness - toothHeight - differential).toFixed(3)),
    markedOffset: 0,
    thickness,
    width: 0,
    grooveAngle: 40,
    pitch,
    tipDepth: differential,
    groove: null,
    ribDepth: null,
    runAngle: RUN_ANGLE,
  };
}

const CURVILINEAR = 'ISO 13050; thickness a default';
const NARROW = 'ISO 4184 width, and datum line for the cord; thickness a default';
const CLASSICAL = 'ISO 4184 width; cord depth and thickness defaults';

export const SECTIONS: readonly Section[] = [
  ribbed('PK', 3.56, 2.0, 1.3, 4.6, PK_GROOVE, 'ISO 9981, SAE J1459'),
  vee('AV10', 10, 2.07, 8, 'ISO 2790; cord depth a default'),
  vee('AV13', 13, 2.86, 10, 'ISO 2790; cord depth a default'),
  vee('AV15', 15, scaledDepth(15), 11, 'ISO 2790 width; cord depth scaled between AV10 and AV13'),
  vee('AV17', 17, scaledDepth(17), 12, 'ISO 2790 width; cord depth scaled between AV10 and AV13'),
  inchVee('SAE 0.380', 9.7, 8),
  inchVee('SAE 0.440', 11.2, 8.7),
  inchVee('SAE 0.500', 12.7, 9.9),
  inchVee('SAE 11/16', 17.5, 11.5),
  inchVee('SAE 3/4', 19, 12.7),
  vee('A', 13, 2.75, 8, CLASSICAL),
  vee('B', 17, 3.5, 11, CLASSICAL),
  vee('C', 22, 4.8, 14, CLASSICAL),
  vee('SPZ', 9.7, 2, 8, NARROW),
  vee('SPA', 12.7, 2.8, 10, NARROW),
  vee('SPB', 16.3, 3.5, 13, NARROW),
  vee('SPC', 22, 4.8, 18, NARROW),
  ribbed('PJ', 2.34, 1.2, 1.1, 3.8, 2.0, 'ISO 9982; thickness and cord depth defaults'),
  ribbed('PL', 4.7, 3.0, 1.8, 8.5, 4.8, 'ISO 9982; thickness and cord depth defaults'),
  ribbed('PM', 9.4, 4.0, 2.6, 14.5, 9.8, 'ISO 9982; thickness and cord depth defaults'),
  toothed('L', 9.525, 3.6, 1.91, 0.381),
  toothed('H', 12.7, 4.3, 2.29, 0.686),
  toothed('XL', 5.08, 2.3, 1.27, 0.254),
  toothed('H8M', 8, 6, 3.38, 0.686, CURVILINEAR),
  toothed('H14M', 14, 10, 6.02, 1.397, CURVILINEAR),
];

export const SECTION_NAMES: readonly string[] = SECTIONS.map((section) => section.name);

/** The section of that name with the overrides laid over it, or null for a name Emery does not know. */
export function sectionFor(name: string, overrides?: SectionOverrides): Section | null {
  const section = SECTIONS.find((candidate) => candidate.name === name);
  if (!section) return null;
  if (!overrides) return section;
  const { cordDepth, ...rest } = overrides;
  const given = Object.entries(rest).filter(([key, value]) => key in section && typeof value === 'number');
  return {
    ...section,
    ...(section.kind === 'vee' && cordDepth !== undefined && veeOffsets(cordDepth)),
    ...Object.fromEntries(given),
  };
}

/** What a belt's drive side is called in a list, by its kind. */
export const DRIVE_SIDE_WORDS: Record<Section['kind'], string> = { ribbed: 'ribs', vee: 'V', toothed: 'teeth' };
