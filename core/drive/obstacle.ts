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
  id: is.named('id', is.id()),
  label: is.named('name', is.text(80)),
  x: is.named('right of the crank', is.needed(is.length()), 'mm'),
  y: is.named('above the crank', is.needed(is.length()), 'mm'),
  to: is.named('other end', is.place()),
  diameter: is.named('diameter', is.needed(is.size()), 'mm'),
  plane: is.named('plane', is.length(), 'mm'),
});
