import type { DragRule } from './stage';
import { moveStation } from '@emery/core/drive';
import { tenth } from '@emery/core/numeric';

/** A shaft goes where it is dragged, to a tenth of a mm. */
export const freeDrag: DragRule = (_drive, _belt, station) => (to) => ({
  change: (drive) => moveStation(drive, station, tenth(to.x), tenth(to.y)),
});

/** Nothing moves. */
export const noDrag: DragRule = () => null;
