/** The counter: one question, answered with no drive drawn. */
export {
  BENDS,
  BEND_RANGES,
  bendOf,
  stringLength,
  type Bend,
  type Riding,
  type LengthTold,
  type StringAnswer,
  type StringAsk,
} from './string';
export { HELD, lengthsToAsk, STATE_OF_HELD, type Held, type LengthsKnown, type LengthsToAsk } from './lengths';
export { twoPulleys, type PulleySize, type TwoPulleys, type TwoPulleysAsk } from './two-pulleys';
export { pulleySpeeds, type PulleySpeed, type PulleySpeeds } from './pulley-speeds';
export { spanTension, type SpanAnswer, type SpanAsk, type SpanSettingReads } from './span';
export { lengthsOnFixed } from './fixed-lengths';
export { DRIVABLE, settingFor, settingRange, type Drivable } from './what-it-drives';
export { aroundToDiameter, onRules, parsePitch, shimToDiameter, turnsToMm } from './small-change';
export { keptDrive, keptMarking, type KeptBelt } from './keep';
export type { CounterFinding, CounterFindingCode } from './finding';
export { pulleysFindings, stringFindings } from './findings';
export { BEND_WORDS, counterWords, HELD_WORDS } from './words';
export { stringCommand, twoPulleysCommand } from './command';
