import { type Drive, itemsOf, PHASES } from '../drive';
import type { LengthUnit } from '../quantity';
import { markedMisfitOf } from '../size';
import type { JobFinding } from './finding';
import { type BeltOrder, beltOrder } from './order';
import { lacksTorque } from './bolts';
import type { CardStep, StepTold } from './step';
import { type JobPlan, planOf } from './steps';
import { stepWords } from './step-words';

export interface JobCard {
  order: BeltOrder;
  steps: CardStep[];
  /** Steps that a hand left out, so that they can be brought back. */
  leftOut: CardStep[];
  findings: JobFinding[];
}

/** The card of a drive, for all belts or for one: the steps it decides, with what a hand changed of them. */
export function cardOf(drive: Drive, beltId?: string, unit: LengthUnit = 'mm'): JobCard {
  const order = beltOrder(drive, beltId);
  const { words = [], leftOut = [], order: placed = [] } = drive.job ?? {};
  const own = itemsOf(drive, 'job.own').map((step): StepTold => ({ ...step, code: 'own' }));
  const reworded = new Map(words.map(({ step, text }) => [step, text]));
  const plan = planOf(drive, order);
  const steps = [...plan.steps, ...own].map((step): CardStep => {
    const { id, phase, code, belt, belts, station, pulley, part, minutes } = step;
    const words = stepWords(drive, step, unit);
    const other = reworded.get(id);
    return {
      id,
      phase,
      code,
      text: other ?? words.text,
      // A caution stays, whatever the words.
      caution: words.caution,
      ...(belt !== undefined && { belt }),
      ...(belts !== undefined && belts.length > 1 && { belts }),
      ...(station !== undefined && { station }),
      ...(pulley !== undefined && { pulley }),
      ...(part !== undefined && { part }),
      ...(minutes !== undefined && { minutes }),
      ...(other !== undefined && { reworded: true }),
    };
  });
  const gone = new Set(leftOut);
  const shown = PHASES.flatMap((phase) =>
    inGivenOrder(
      steps.filter((step) => step.phase === phase && !gone.has(step.id)),
      placed,
    ),
  );
  return {
    order,
    steps: shown,
    leftOut: steps.filter(({ id }) => gone.has(id)),
    findings: findingsOf(drive, order, plan),
  };
}

/**
 * Puts the steps that a hand has placed in its order, in the places that they hold together; the others stay where they
 * are.
 */
export function inGivenOrder<T extends { id: string }>(steps: readonly T[], placed: readonly string[]): T[] {
  // Named twice, the first place counts.
  const at = new Map([...placed.entries()].reverse().map(([k, id]) => [id, k]));
  const moved = steps.filter(({ id }) => at.has(id)).sort((a, b) => at.get(a.id)! - at.get(b.id)!);
  let next = 0;
  return steps.map((step) => (at.has(step.id) ? moved[next++]! : step));
}

function findingsOf(drive: Drive, order: BeltOrder, { together }: JobPlan): JobFinding[] {
  const routed = drive.belts.filter(({ route }) => route.length > 1);
  if (routed.length === 0) return [{ code: 'no-belts', severity: 'fault' }];
  const apart = together.flatMap(({ set }) => set.apart);
  const open = itemsOf(drive, 'job.bolts').filter(lacksTorque).length;
  return [
    ...order.tangled.slice(0, 1).map((belt): JobFinding => ({ code: 'tangled', severity: 'watch', belt })),
    ...apart.map((belt): JobFinding => ({ code: 'set-apart', severity: 'watch', belt })),
    ...order.off.flatMap((belt): JobFinding[] => {
      const { route, length } = drive.belts.find(({ id }) => id === belt)!;
      if (route.length < 2) return [{ code: 'no-route', severity: 'note', belt }];
      if (!length) return [{ code: 'unknown-length', severity: 'note', belt }];
      const misfit = markedMisfitOf(drive, belt);
      const figures = misfit && { lengthMm: misfit.lengthMm, verdict: misfit.verdict };
      return figures ? [{ code: 'marked-misfit', severity: 'fault', belt, figures }] : [];
    }),
    ...(open > 0 ? [{ code: 'no-torque', severity: 'note', figures: { bolts: open } } satisfies JobFinding] : []),
  ];
}
