/**
 * The belt path on its cord line: contacts, wraps, spans, lengths, rotation, speed ratio, and what is wrong with it.
 */
export { pathOf, solveBelt, solveDrive, type BeltPath } from './solve';
export type { BeltSolution, ContactSolution, DriveSolution, SpanSolution } from './solution';
export { CURED_BY_MEASURING, type PathFinding, type PathFindingCode } from './finding';
export { LEAST_WRAP_DEG, leastWrapDeg } from './wrap-limits';
export type { Point } from './tangent';
export { beltOutline, beltBounds, spanMidpoints, type Bounds } from './outline';
export { beltClearances, clearanceToPulley, type BeltClearances, type Clearance } from './clearance';
export { bestPlaceFor } from './insertion';
export { sketchOf, type DriveSketch, type SketchBelt } from './sketch';
export { findingMessage, findingWords } from './words';
export { followShafts, turnOn, type Shaft } from './shafts';
export { bodiesInPlane, clearOf } from './bodies';
export {
  boxesApart,
  directedTangent,
  distance,
  distanceToSegment,
  nearestOfSegments,
  segmentsCross,
  wrapBetween,
  type Tangent,
} from './tangent';
export { loopRound, type LoopCircle } from './loop';
export { solveCommand } from './command';
