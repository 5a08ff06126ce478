import * as is from './fields';
import type { Point } from './fields';

/**
 * Something a belt must keep clear of that is no pulley: a bolt, a hub arm, a bracket. Round, or from `x`, `y` to `to`
 * with round ends; without `plane` it stands in every plane. Lengths in mm.
 */
export interface Obstacle {
  readonly id: string;
  readonly label?: string;
  readonly x: number;
  readonly y: number;
  readonly to?: Point;
  /** Across a bolt, or the width of an arm. */
  readonly diameter: number;
  readonly plane?: number;
}

export const obstacle = is.item<Obstacle>({
  id: is.id(),
  label: is.text(80),
  x: is.needed(is.length()),
  y: is.needed(is.length()),
  to: is.place(),
  diameter: is.needed(is.size()),
  plane: is.length(),
});
