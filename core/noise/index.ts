/** Whose noise it is, what causes it, and the next test worth doing. */
export { diagnoseCommand, listenCommand, type SoundAtDrive } from './command';
export { diagnose, type CauseChance, type Diagnosis, type NextTest, type Reason } from './diagnose';
export { evidenceOf, type EvidenceTold, type Weighed } from './evidence';
export { figuresOf, type DriveFigure } from './figures';
export { NOISE_FINDING_CODES, type NoiseFinding, type NoiseFindingCode } from './finding';
export { listenFindings, noiseFindings } from './findings';
export { answerTest, changeNoise, cureDone, keepClip, listenedAgain, takeBack } from './edit';
export { askKey, testsOf, type Answer, type Ask } from './asks';
export { hearNoise, listen, SHORTEST_S, whoseNoise, type Heard, type Listening } from './listen';
export { matchesOf, type RateMatch } from './matches';
export { DEFAULT_CYLINDERS, ratesOf, type Rate, type RateKind } from './rates';
export {
  answerWords,
  CAUSE_WORDS,
  chanceFigure,
  KIND_WORDS,
  LISTEN_AGAIN_WORDS,
  noiseMessage,
  noiseWords,
  outcomesOf,
  partLabel,
  RATE_WORDS,
  reasonWords,
  STAGE_WORDS,
  TEST_WORDS,
} from './words';
export { lessonsOf, makeNoise, simulatedBay, soundOfLesson, type Lesson, type NoiseToMake } from './make-noise';
