import * as is from './fields';

/** What was found of a belt, a pulley or an arm; which checks there are, and what they mean, is the inspection's. */
export interface InspectFinding {
  readonly id: string;
  readonly on: 'belt' | 'pulley' | 'arm';
  /** A belt or a pulley. */
  readonly target: string;
  readonly check: string;
  readonly value?: number;
  readonly outcome?: string;
  readonly plusMinus?: number;
  readonly at?: string;
  readonly odometer?: number;
}

export interface Inspect {
  readonly findings?: readonly InspectFinding[];
}

const finding = is.item<InspectFinding>({
  id: is.id(),
  on: is.needed(is.oneOf(['belt', 'pulley', 'arm'] as const)),
  target: is.id(),
  check: is.needed(is.text(40)),
  value: is.finite(),
  outcome: is.text(40),
  plusMinus: is.finite().min(0, 'must be 0 or more'),
  at: is.text(40),
  odometer: is.finite('a reading of the odometer', 1e7).min(0, 'must be 0 or more'),
});

export const inspect = is.record<Inspect>({ findings: is.optionalList(finding, 400) });
