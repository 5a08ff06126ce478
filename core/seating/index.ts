/** How a belt of a given length would sit on a drive, and how it is put on. */
export { beltsInFront, frontsOf, type InFront } from './in-front';
export { centresAreFixed } from './fixed-centres';
export { fixedWindow, isStretchFit, lengthAtStretch, type FixedWindow } from './fixed-window';
export { lengthsAbout } from './lengths';
export { markedMisfit, type MarkedMisfit } from './marked';
export { easiestLast, puttingOn, type LastOn, type PuttingOn } from './putting-on';
export {
  sizeBelt,
  type Candidate,
  type Contradicting,
  type SizeFinding,
  type SizeOptions,
  type Window,
  type Sizing,
  DEFAULT_RESERVE_FRACTION,
  type Verdict,
  WORN_WIDTH_MM,
} from './size-belt';
