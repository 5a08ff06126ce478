/** The work written out: the order of the belts, the steps, what to bring; and a job that is done by it. */
export { bringList, type BringBelt, type BringList } from './bring';
export { cardOf, type JobCard } from './card';
export { type CardStep, type PlanChange, STEP_CODES } from './step';
export { heldBy, isSetByHand, stepsBy, type HeldBy } from './held';
export {
  durationWords,
  estimateLines,
  estimateOf,
  labourPace,
  plannedMinutes,
  tookLines,
  type JobEstimate,
  type LabourPace,
} from './estimate';
export { fittedWords } from './fitted';
export { jobCommand } from './command';
export { addStep, leaveOut, moveStep, rewordStep } from './edit';
export type { JobFinding } from './finding';
export { beltOrder } from './order';
export { jobSteps, planChanges } from './plan';
export { runOf, type BeltFitted, type JobEvent, type JobRun } from './run';
export { signedOff } from './sign-off';
export { inTighteningOrder, lacksTorque } from './bolts';
export {
  beltName,
  BOLT_REUSE_WORDS,
  BOLT_USE_WORDS,
  boltWords,
  eventWords,
  jobMessage,
  jobWords,
  lateFacts,
  PHASE_WORDS,
  runFacts,
} from './words';
