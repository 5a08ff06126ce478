import type { SectionOverrides } from '../section/sections';
import type { SurveyPhoto } from '../photo/photo';
import type { Measurement } from '../size/measured';
import type { SpeedBand } from '../speed/bands';
import type { ElectricalLoad, OutputPoint } from '../speed/output';
import type { SpeedCheck } from '../speed/tachometer';
import type { EngineUse } from '../speed/use';
import type { DiameterReading } from '../survey/diameters';
import type { SurveyReading } from '../survey/readings';

export type Rotation = 'cw' | 'ccw';
export type Side = 'drive' | 'back';

export const ROLES = [
  'crankshaft',
  'alternator',
  'water-pump',
  'power-steering',
  'ac-compressor',
  'fan',
  'air-pump',
  'supercharger',
  'vacuum-pump',
  'generator',
  'idler',
  'tensioner',
  'jackshaft',
  'other',
] as const;
export type Role = (typeof ROLES)[number];

export const SURFACES = ['ribbed', 'vee', 'smooth', 'toothed'] as const;
export type Surface = (typeof SURFACES)[number];

/** One pulley on a shaft. Lengths in mm; `diameter` is what callipers read. */
export interface Pulley {
  readonly id: string;
  readonly surface: Surface;
  readonly diameter?: number;
  readonly grooves?: number;
  readonly grooveAngle?: number;
  readonly ride?: number;
  readonly teeth?: number;
  /** Axial position, positive away from the engine; 0 when not given. */
  readonly plane?: number;
  readonly [unknown: string]: unknown;
}

/** Where an adjuster's `kind` is one of `drive-file.md`'s; its other fields are checked when the file is read. */
export interface Adjuster {
  readonly kind: string;
  readonly [field: string]: unknown;
}

/** One shaft with its pulleys. x right, y up, seen from the front. */
export interface Station {
  readonly id: string;
  readonly role: Role;
  readonly label?: string;
  readonly x: number;
  readonly y: number;
  readonly requires?: Rotation;
  readonly adjuster?: Adjuster;
  /** Not bought yet, or to be left out: a route may go without it. */
  readonly optional?: boolean;
  /** Where an optional one may be placed, mm. */
  readonly region?: { readonly x: number; readonly y: number; readonly radius: number };
  /** What this very accessory may turn; the shop's or the default band for its role where it is left out. */
  readonly speedBand?: Partial<SpeedBand>;
  /** Of an alternator or generator: points of its maker's curve. */
  readonly output?: readonly OutputPoint[];
  /** Of a pump or fan: what it must turn at an engine speed, rev/min. */
  readonly need?: { readonly rpm: number; readonly engineRpm: number };
  /** Its power at a speed of its own. */
  readonly power?: { readonly rpm: number; readonly kw: number };
  readonly pulleys: readonly Pulley[];
  readonly [unknown: string]: unknown;
}

export interface RouteStop {
  readonly pulley: string;
  readonly side: Side;
  readonly [unknown: string]: unknown;
}

/**
 * Something a belt must keep clear of that is no pulley: a bolt, a hub arm, a bracket. Round, or from `x`, `y` to `to`
 * with round ends; without `plane` it stands in every plane.
 */
export interface Obstacle {
  readonly id: string;
  readonly label?: string;
  readonly x: number;
  readonly y: number;
  readonly to?: { readonly x: number; readonly y: number };
  /** Across a bolt, or the width of an arm, mm. */
  readonly diameter: number;
  readonly plane?: number;
  readonly [unknown: string]: unknown;
}

export interface Belt {
  readonly id: string;
  readonly section: string;
  readonly ribs?: number;
  /** Marked length in mm in the section's own basis; null while it is not known. */
  readonly length?: number | null;
  readonly sectionOverrides?: SectionOverrides;
  /** Kept of the length for seating and stretch, as a share; Emery's default where it is not given. */
  readonly reserve?: number;
  /** What was measured of the length itself: a string, an old belt. */
  readonly measurements?: readonly Measurement[];
  readonly route: readonly RouteStop[];
  readonly [unknown: string]: unknown;
}

/** What was measured of a drive: tapes between pulleys, diameters, pictures. */
export interface Survey {
  readonly readings?: readonly SurveyReading[];
  readonly diameters?: readonly DiameterReading[];
  readonly photos?: readonly SurveyPhoto[];
  readonly [unknown: string]: unknown;
}

/** An Emery drive file, version 1. Unknown fields ride along untouched. */
export interface Drive {
  readonly format: 'emery-drive';
  readonly version: 1;
  readonly name?: string;
  readonly crankRotation: Rotation;
  readonly speeds?: { readonly idle?: number; readonly cruise?: number; readonly redline?: number };
  readonly stations: readonly Station[];
  readonly obstacles?: readonly Obstacle[];
  readonly survey?: Survey;
  /** How the vehicle is used. */
  readonly use?: EngineUse;
  readonly loads?: readonly ElectricalLoad[];
  readonly speedChecks?: readonly SpeedCheck[];
  readonly belts: readonly Belt[];
  readonly [unknown: string]: unknown;
}
