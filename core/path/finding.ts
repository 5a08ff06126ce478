import type { Drive, Pulley, RouteStop } from '../drive';
import type { AtPulley, Figures, FindingOf } from '../finding';

type OnSpan = { span: { from: string; to: string } };

/** What the path of a belt has to tell, by code. Figures: mm, degrees, percent; or words of the drive file. */
interface PathCodes {
  'no-route': object;
  'one-pulley': AtPulley;
  'pulley-twice': AtPulley;
  'no-size': AtPulley<{ diameterMm: number }>;
  'absurd-size': AtPulley<{ mostMm: number }>;
  'doubtful-size': AtPulley<{ diameterMm: number }>;
  'same-centre': { other: string } & AtPulley;
  'circles-overlap': { other: string } & AtPulley<{ overlapMm: number }>;
  'no-room': OnSpan & Figures<{ distanceMm: number; neededMm: number }>;
  'not-closed': Figures<{ turns: number; cure: ClosingCure }>;
  /** A span and a second one from `pulley` to `other`; or the belt twice on `pulley`. */
  'crosses-itself': AtPulley;
  'span-through-pulley': OnSpan & AtPulley<{ depthMm: number }>;
  /** Along a span, or where the belt lies on `other`. */
  'span-rubs': AtPulley<{ clearanceMm: number }>;
  'strands-rub': AtPulley<{ clearanceMm: number; rubMm: number }>;
  'low-wrap': AtPulley<{ wrapDeg: number; leastDeg: number }>;
  'wrong-surface': AtPulley<{ side: RouteStop['side']; surface: Pulley['surface']; wanted: Pulley['surface'] }>;
  'wrong-way-round': AtPulley<{ turns: Drive['crankRotation']; requires: Drive['crankRotation'] }>;
  fights: AtPulley<{ way: Drive['crankRotation'] }>;
  'ratios-fight': AtPulley<{ percent: number }>;
  'rib-count': AtPulley<{ ribs: number; grooves: number }>;
  'grooves-unknown': AtPulley;
  'planes-apart': OnSpan & Figures<{ offsetMm: number; angleDeg: number }>;
  'no-crank': object;
  'second-crank': AtPulley;
  'not-driven': object;
  /** Along a span, or where the belt lies on `pulley`. */
  'hits-obstacle': { obstacle: string } & Figures<{ depthMm: number }>;
  'near-obstacle': { obstacle: string } & Figures<{ clearanceMm: number }>;
}

/** What would close a belt that does not: its order reversed, another side at a pulley, a pulley off; or nothing. */
export type ClosingCure = 'reverse' | 'flip' | 'remove' | 'none';

/** What the path of a belt has to tell. */
export type PathFinding = FindingOf<PathCodes>;
export type PathFindingCode = PathFinding['code'];

/** Findings that a reading put right would cure, or a reading not taken yet. */
export const CURED_BY_MEASURING: ReadonlySet<PathFindingCode> = new Set([
  'no-size',
  'absurd-size',
  'doubtful-size',
  'same-centre',
  'circles-overlap',
  'grooves-unknown',
  'no-crank',
  'second-crank',
  'planes-apart',
  'rib-count',
]);
