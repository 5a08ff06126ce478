/** The words of the step that is being done. */
export const JOB = {
  inHand: 'Current step',
  allDone: 'All steps are done. Sign off below.',
  done: 'Done, next step',
  next: 'Next step',
  back: 'Back',
  untick: 'Not done',
  isDone: ' · ✓ done',
  caution: '▲ Caution',
  step: (number: number, count: number) => `Step ${number} of ${count}`,
  spoken: (number: number, text: string, caution: string) =>
    `Step ${number}. ${text}${caution === '' ? '' : ` Caution. ${caution}`}`,
  aloud: 'Read aloud',
  quiet: 'Stop reading',
  handsFree: 'Hands-free',
  staysOn: 'Screen stays on',
  close: 'Close',
  showDone: 'Show done steps',
  hideDone: 'Hide done steps',
} as const;
