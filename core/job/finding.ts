import type { Figures, FindingOf } from '../finding';
import type { MarkedMisfit } from '../seating';

type AtBelt = { belt: string };

/** What stands in the way of a job, by code. */
interface JobCodes {
  'no-belts': object;
  'no-route': AtBelt;
  tangled: AtBelt;
  'set-apart': AtBelt;
  'no-torque': Figures<{ bolts: number }>;
  'unknown-length': AtBelt;
  'marked-misfit': AtBelt & Figures<{ lengthMm: number; verdict: MarkedMisfit['verdict'] }>;
}

export type JobFinding = FindingOf<JobCodes>;
export type JobFindingCode = JobFinding['code'];
