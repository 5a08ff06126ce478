/** Which belt to bring home: path length against the adjuster's travel, and how each length would sit. */
export { DEFAULT_UNCERTAINTY, uncertaintyOf, type Uncertainty, type UncertaintyOptions } from './uncertainty';
export { answerFor, askForBelt, secondTo, type SizeAnswer } from './answer';
export {
  combinedLength,
  measuredLength,
  toldByBends,
  toldOffTheDrive,
  TOOL_DEFAULTS,
  toolRadius,
  type CombinedLength,
  liesEitherWay,
  type MeasuredLength,
  type ToldByTool,
} from './measured';
export { readStockRow, STOCK_COLUMNS, type StockBelt, type StockRowRead } from './stock';
export { sharingAdjuster, sizeTogether, type Together, type TogetherAnswer } from './together';
export { candidateSentence, layNote, releaseWords, RULE_WORDS, sizeMessage, sizeWords, VERDICT_WORDS } from './words';
export { sizeCommand } from './command';
