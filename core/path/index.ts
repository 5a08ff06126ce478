/**
 * The belt path on its cord line: contacts, wraps, spans, lengths, rotation, speed ratio, and what is wrong with it.
 */
export { solveDrive, solveBelt } from './solve';
export type { BeltSolution, ContactSolution, DriveSolution, SpanSolution } from './solution';
export type { Finding, FindingCode, Severity } from './finding';
export { LEAST_WRAP_DEG } from './wrap-limits';
export type { Point } from './tangent';
export { beltOutline, beltBounds, spanMidpoints, type Bounds } from './outline';
export { beltClearances, type BeltClearances, type Clearance } from './clearance';
export { bestPlaceFor } from './insertion';
export { sketchOf, type DriveSketch, type SketchBelt } from './sketch';
