/** The work written out: the order of the belts, the steps, what to bring. */
export { bringList, type AskFor, type BringBelt, type BringList } from './bring';
export { cardOf, inGivenOrder, type CardStep, type JobCard } from './card';
export { jobCommand } from './command';
export { addStep, leaveOut, moveStep, rewordStep } from './edit';
export { JOB_FINDING_CODES, type JobFinding, type JobFindingCode } from './finding';
export { beltOrder, type BeltOrder } from './order';
export {
  runOf,
  type BeltEvent,
  type BeltFitted,
  type JobEvent,
  type JobRun,
  type NoteEvent,
  type PartEvent,
  type PhotoEvent,
} from './run';
export { signedOff, type SignedOff } from './sign-off';
export { inTighteningOrder, STEP_CODES, stepsOf, type StepCode, type StepTold } from './steps';
export {
  beltName,
  BOLT_REUSE_WORDS,
  BOLT_USE_WORDS,
  boltWords,
  jobMessage,
  jobWords,
  PHASE_WORDS,
  routeWords,
  stepWords,
} from './words';
