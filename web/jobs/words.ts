/** The words of the step in hand. */
export const JOB = {
  inHand: 'Step in hand',
  allDone: 'All steps are done. Sign off below.',
  done: 'Done, next step',
  next: 'Next step',
  back: 'Back',
  untick: 'Not done',
  isDone: 'done',
  aloud: 'Read aloud',
  quiet: 'Stop reading',
  handsFree: 'Hands-free',
  staysOn: 'Screen stays on',
  close: 'Close',
  showDone: 'Show done steps',
  hideDone: 'Hide done steps',
} as const;
