/** Whose noise it is, what causes it, and the next test worth doing. */
export { diagnoseCommand, listenCommand, type SoundAtDrive } from './command';
export { SPEED_DOUBT } from './engine';
export { diagnose, type CauseChance, type CauseGroup, type Diagnosis, type NextTest } from './diagnose';
export { figuresOf, type DriveFigure } from './figures';
export type { NoiseFinding, NoiseFindingCode } from './finding';
export { listenFindings, noiseFindings } from './findings';
export { answerTest, changeNoise, cureDone, heardAsClue, keepClip, listenedAgain, takeBack } from './edit';
export { askKey, testsOf, type Answer, type Ask } from './asks';
export { hearNoise, listen, speedFromOf, whoseNoise, type Heard, type Listening } from './listen';
export type { MatchKind, RateMatch } from './matches';
export { DEFAULT_CYLINDERS, ratesOf, type Rate } from './rates';
export {
  answerWords,
  CAUSE_WORDS,
  chanceFigure,
  gainWords,
  KIND_WORDS,
  lessonWords,
  LISTEN_AGAIN_WORDS,
  matchWords,
  noiseMessage,
  noiseWords,
  outcomesOf,
  partLabel,
  RATE_WORDS,
  reasonWords,
  SPEED_FROM_WORDS,
  STAGE_WORDS,
  TEST_WORDS,
} from './words';
export { heardHz, lessonsOf, simulatedBay, soundOfLesson, type Lesson } from './make-noise';
export { practiceRound, type PracticeRound } from './practice';
