import { fixed } from '../quantity';
import { median } from '../numeric';
import type { CardStep } from './step';
import type { JobRun } from './run';
import type { StepCode } from './step';

/** Minutes of work in a step. Defaults; waiting for an engine to cool is none. */
const MINUTES: Record<StepCode, number> = {
  missing: 0,
  picture: 1,
  key: 2,
  cool: 0,
  covers: 8,
  'lay-out': 3,
  chalk: 1,
  'slacken-bolts': 4,
  release: 2,
  slacken: 2,
  'part-halves': 10,
  'no-adjuster': 15,
  'cut-off': 3,
  lift: 2,
  'let-back': 1,
  print: 1,
  look: 5,
  'change-part': 40,
  move: 25,
  clean: 8,
  cure: 20,
  lay: 4,
  'let-down': 4,
  bleed: 5,
  set: 6,
  'close-halves': 12,
  'work-on': 15,
  bolt: 2,
  bolts: 4,
  grooves: 2,
  pointer: 1,
  'hand-turn': 3,
  'read-tension': 3,
  'tools-out': 1,
  'covers-on': 8,
  battery: 1,
  touch: 1,
  run: 2,
  noise: 3,
  charge: 2,
  load: 3,
  // As long as the step says.
  'run-in': 0,
  stop: 0,
  'set-again': 6,
  number: 1,
  listen: 0,
  'next-look': 1,
  spare: 1,
  own: 5,
};

/** How well the defaults hold by themselves, as a share. A default. */
const DEFAULT_SPREAD = 0.35;
/** The least doubt that stays, however alike the shop's jobs were. */
const LEAST_SPREAD = 0.1;
/** From so many clocked jobs on the shop's own pace counts. */
const LEAST_JOBS = 3;
/** Of a normal distribution the standard deviation is so many median deviations. */
const SIGMA_OF_MAD = 1.4826;

/** Minutes of work in some steps, by defaults. */
export const plannedMinutes = (steps: readonly Pick<CardStep, 'code' | 'minutes'>[]): number =>
  steps.reduce((sum, { code, minutes = 0 }) => sum + MINUTES[code] + minutes, 0);

/** A signed job whose clock ran: the minutes of its done steps by defaults, and what it took. */
export interface ClockedJob {
  planned: number;
  worked: number;
}

/** How a shop's own pace compares with the defaults: their minutes times `factor`, ± a share of it. */
export interface LabourPace {
  factor: number;
  plusMinus: number;
  /** Jobs it is learnt from; 0 where it is the default. */
  jobs: number;
}

/** The median of what signed jobs took over what the defaults say; the defaults themselves where there are too few. */
export function labourPace(jobs: readonly ClockedJob[]): LabourPace {
  const ratios = jobs.flatMap(({ planned, worked }) => (planned > 0 && worked > 0 ? [worked / planned] : []));
  if (ratios.length < LEAST_JOBS) return { factor: 1, plusMinus: DEFAULT_SPREAD, jobs: 0 };
  const factor = median(ratios)!;
  const spread = (SIGMA_OF_MAD * median(ratios.map((ratio) => Math.abs(ratio - factor)))!) / factor;
  return { factor, plusMinus: Math.max(LEAST_SPREAD, spread), jobs: ratios.length };
}

/** A part on the bill: how many, and what one costs; null where the shop's list has no price. */
export interface PricedPart {
  name: string;
  count: number;
  price: number | null;
}

/** What a job is estimated to take and to cost. */
export interface JobEstimate {
  /** Of work, and one standard deviation. */
  minutes: number;
  plusMinus: number;
  /** Jobs that the pace is learnt from; 0 where the minutes are defaults. */
  jobs: number;
  /** What an hour costs; null where the shop did not say. */
  hourRate: number | null;
  parts: PricedPart[];
}

export function estimateOf(
  steps: readonly Pick<CardStep, 'code' | 'minutes'>[],
  { pace, hourRate, parts }: { pace: LabourPace; hourRate: number | null; parts: readonly PricedPart[] },
): JobEstimate {
  const minutes = Math.round(plannedMinutes(steps) * pace.factor);
  return { minutes, plusMinus: Math.round(minutes * pace.plusMinus), jobs: pace.jobs, hourRate, parts: [...parts] };
}

/** What an estimate adds up to; `open` counts what has no price, and is in no sum. */
export function totalOf({ minutes, hourRate, parts }: Pick<JobEstimate, 'minutes' | 'hourRate' | 'parts'>) {
  const labour = hourRate === null ? null : (minutes / 60) * hourRate;
  const priced = parts.reduce((sum, { count, price }) => sum + count * (price ?? 0), 0);
  const open = parts.filter(({ price }) => price === null).length + (labour === null ? 1 : 0);
  return { labour, parts: priced, total: (labour ?? 0) + priced, open };
}

const money = (value: number) => fixed(value, 2);
/** A sum, with how much of it has no price. */
function sumWords(total: number, open: number): string {
  if (open === 0) return money(total);
  if (total === 0) return 'no prices yet';
  return `${money(total)}, without ${open === 1 ? 'what has' : `${open} things that have`} no price`;
}
/** `45 min`, `1 h 20 min`. */
export function durationWords(minutes: number): string {
  const [hours, left] = [Math.floor(minutes / 60), Math.round(minutes) % 60];
  if (hours === 0) return `${left} min`;
  return left === 0 ? `${hours} h` : `${hours} h ${left} min`;
}

/** An estimate a line each, as it is printed. */
export function estimateLines(estimate: JobEstimate): string[] {
  const { minutes, plusMinus, jobs, hourRate, parts } = estimate;
  const { labour, total, open } = totalOf(estimate);
  const pace = jobs === 0 ? 'a default' : `from ${jobs} signed jobs`;
  return [
    `Labour: ${durationWords(minutes)} ± ${durationWords(plusMinus)} (${pace})${labour === null ? ', no price of an hour' : `, ${money(labour)} at ${money(hourRate!)} an hour`}`,
    ...parts.map(
      ({ name, count, price }) =>
        `${count} × ${name}: ${price === null ? 'no price in the list' : money(count * price)}`,
    ),
    `Estimate: ${sumWords(total, open)}`,
  ];
}

/** What it took in the end, beside the estimate: time by its clock, and parts used at the prices of the estimate. */
export function tookLines(
  { workedMs, parts }: Pick<JobRun, 'workedMs' | 'parts'>,
  { hourRate, parts: priced }: Pick<JobEstimate, 'hourRate' | 'parts'>,
): string[] {
  const minutes = Math.round(workedMs / 60_000);
  if (minutes === 0 && parts.length === 0) return [];
  const used = parts.map(({ name, count }): PricedPart => ({
    name,
    count,
    price: priced.find((part) => part.name === name)?.price ?? null,
  }));
  const { labour, total, open } = totalOf({ minutes, hourRate: minutes === 0 ? null : hourRate, parts: used });
  return [
    `Took: ${minutes === 0 ? 'clock not used' : durationWords(minutes)}${labour === null ? '' : `, ${money(labour)}`}`,
    ...used.map(
      ({ name, count, price }) => `${count} × ${name} used${price === null ? '' : `: ${money(count * price)}`}`,
    ),
    `Total: ${sumWords(total, open)}`,
  ];
}
