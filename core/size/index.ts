/** Which belt to bring home: path length against the adjuster's travel, and how each length would sit. */
export { armAngles, armThrough, newAdjuster, travelOf, type Travel } from './adjuster';
export { lengthCurve, pathLength, shareFor, travelFromSlack, type LengthCurve } from './curve';
export { puttingOn, type LastOn, type PuttingOn } from './putting-on';
export { armTension, stiffnessN, stretchTension } from './tension';
export {
  commonLengths,
  commonStep,
  DEFAULT_RESERVE_SHARE,
  sizeBelt,
  WORN_WIDTH_MM,
  type Candidate,
  type SizeFinding,
  type SizeOptions,
  type Sizing,
  type Verdict,
  type Window,
} from './size';
export { DEFAULT_DOUBT, doubtOf, type Doubt, type DoubtOptions } from './doubt';
export { answerFor, type SizeAnswer } from './answer';
export {
  combinedLength,
  measuredLength,
  TOOL_DEFAULTS,
  toolRadius,
  type CombinedLength,
  type MeasuredLength,
  type Measurement,
} from './measured';
export { LAYS, liesEitherWay, STATES, TOOLS, type AdjusterState, type Lay, type Tool } from './measuring-tools';
export { readStockRow, stockCell, STOCK_COLUMNS, type StockBelt, type StockRowRead } from './stock';
export { beltsInFront, sharingAdjuster, sizeTogether, type Together, type TogetherAnswer } from './together';
