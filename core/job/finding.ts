import type { Finding } from '../finding';

/** What stands in the way of a job. */
export const JOB_FINDING_CODES = [
  'no-belts',
  'no-route',
  'tangled',
  'set-apart',
  'no-torque',
  'unknown-length',
  'marked-misfit',
] as const;
export type JobFindingCode = (typeof JOB_FINDING_CODES)[number];
export type JobFinding = Finding<JobFindingCode>;
