import type { Rotation } from '../drive';
import type { Side } from '../section';
import type { PathFinding } from './finding';
import type { Point } from './tangent';

/** One pulley as the belt meets it. Numbers are null where the route gives none; they are never NaN. */
export interface ContactSolution {
  pulley: string;
  station: string;
  side: Side;
  wrapDeg: number | null;
  rotation: Rotation;
  /** Pulley speed over crank speed, positive; null for a belt the crank does not drive. */
  speedRatio: number | null;
  cordRadius: number;
  /** Cord length on the pulley, mm. */
  arcLength: number | null;
  centre: Point;
  /** +1 where the belt bends counter-clockwise, −1 clockwise. */
  turn: 1 | -1;
  arrive: Point | null;
  leave: Point | null;
}

/** The free belt between two neighbours. `length` is null where no straight line touches both as it must. */
export interface SpanSolution {
  from: string;
  to: string;
  length: number | null;
  start: Point;
  end: Point;
}

export interface BeltSolution {
  id: string;
  /** False when no belt can follow the route; the lengths are then null and a fault says where. */
  closed: boolean;
  length: { basis: 'effective' | 'outside' | 'pitch'; mm: number | null };
  cordLength: number | null;
  /** mm of cord that pass in one turn of the crank; null for a belt the crank does not drive. */
  cordPerTurn: number | null;
  contacts: ContactSolution[];
  spans: SpanSolution[];
  findings: PathFinding[];
  /** +1 where the drive side of the belt lies to the left of its travel. */
  sense: 1 | -1;
}

export interface DriveSolution {
  belts: BeltSolution[];
  /** Findings that belong to no belt. */
  findings: PathFinding[];
}
