/** Which belt to bring home: path length against the adjuster's travel, and how each length would sit. */
export { DEFAULT_UNCERTAINTY, MISTAKES, TRIED_DEFAULTS } from './defaults';
export {
  beltFractionOf,
  chancesOf,
  responseOf,
  triedFits,
  uncertaintyOf,
  type Uncertainty,
  type UncertaintyOptions,
} from './uncertainty';
export {
  answerFor,
  answerFrom,
  askForBelt,
  markedMisfitOf,
  secondTo,
  type SizeAnswer,
  type StretchCurve,
} from './answer';
export { drawnLayout, type DrawnLayout, knownLayout, type KnownLayout, withEvidence } from './known-layout';
export { type FitEdges, type Layout, type LayoutEvidence, layoutOf } from './layout';
export { LIKELY, type ShownTried } from './shown-tried';
export { type ServiceForecast } from './forecast';
export { GROWTH_DEFAULTS, type GrowthDefaults } from './growth';
export { learnedGrowth, MOST_SITTINGS, type Sitting, sittingsOf } from './sittings';
export { triedPlaces, triedReadingOf, type TriedPlace } from './tried-places';
export {
  layoutSentence,
  PLACE_WORDS,
  serviceSentence,
  TRIED_LABELS,
  TRIED_READING_WORDS,
  TRIED_WORDS,
  triedSentence,
} from './tried-words';
export { triedLengthMm, triedReading } from './tried';
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
