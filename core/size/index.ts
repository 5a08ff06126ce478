/** Which belt to bring home: path length against the adjuster's travel, and how each length would sit. */
export { DEFAULT_UNCERTAINTY } from './defaults';
export { uncertaintyOf, type Uncertainty, type UncertaintyOptions } from './uncertainty';
export { answerFor, askForBelt, markedMisfitOf, secondTo, type SizeAnswer, type StretchCurve } from './answer';
export { combinedLength, measuredLength, type CombinedLength, type MeasuredLength } from './measured';
export {
  liesEitherWay,
  middleOf,
  tellsLength,
  toldByBends,
  toldOffTheDrive,
  TOOL_DEFAULTS,
  toolRadius,
  toolRadiusDoubt,
  type RuleOfThumb,
  type ToldByTool,
} from './told';
export { readStockRow, STOCK_COLUMNS, type StockBelt, type StockRowRead } from './stock';
export { sharingAdjuster, sizeTogether, type Together, type TogetherAnswer } from './together';
export { RULE_WORDS } from './rule-words';
export { candidateSentence, layNote, releaseWords, sizeMessage, sizeWords, VERDICT_WORDS } from './words';
export { sizeCommand } from './command';
