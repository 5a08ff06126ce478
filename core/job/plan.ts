import type { CardStep, PlanChange } from './step';
import type { JobRun } from './run';

/**
 * The steps a job is done by: those it began with, and what was taken over of a plan that changed meanwhile. A step
 * that is ticked stays as it was ticked, whoever took what over.
 */
export function jobSteps(began: readonly CardStep[], { plan, done }: Pick<JobRun, 'plan' | 'done'>): CardStep[] {
  return plan.reduce<CardStep[]>(
    (steps, { change, step, after }) => {
      const at = steps.findIndex(({ id }) => id === step.id);
      switch (change) {
        case 'add':
          if (at >= 0) return steps;
          return steps.toSpliced(placeAfter(steps, after ?? null), 0, step);
        case 'remove':
          return at < 0 || done.has(step.id) ? steps : steps.toSpliced(at, 1);
        case 'reword':
          return at < 0 || done.has(step.id) ? steps : steps.with(at, step);
      }
    },
    [...began],
  );
}

/** Behind a step that is no longer there it goes to the end, where it is seen. */
function placeAfter(steps: readonly CardStep[], after: string | null): number {
  if (after === null) return 0;
  const at = steps.findIndex(({ id }) => id === after);
  return at < 0 ? steps.length : at + 1;
}

/** Whether two steps say and concern the same; a hand's own words are the words. */
const sameStep = (a: CardStep, b: CardStep): boolean =>
  (['text', 'caution', 'code', 'belt', 'station', 'pulley', 'minutes'] as const).every((key) => a[key] === b[key]) &&
  (a.belts ?? []).join() === (b.belts ?? []).join();

/** What is offered of a plan as it is now: each step that is new, gone or reworded, but for those that are ticked. */
export function planChanges(
  steps: readonly CardStep[],
  fresh: readonly CardStep[],
  done: Pick<ReadonlyMap<string, unknown>, 'has'>,
): PlanChange[] {
  const [had, has] = [steps, fresh].map((all) => new Map(all.map((step) => [step.id, step]))) as [
    Map<string, CardStep>,
    Map<string, CardStep>,
  ];
  return [
    ...fresh.flatMap((step, k): PlanChange[] => {
      const before = had.get(step.id);
      if (!before) return [{ change: 'add', step, after: fresh[k - 1]?.id ?? null }];
      return sameStep(before, step) || done.has(step.id) ? [] : [{ change: 'reword', step }];
    }),
    ...steps.flatMap((step): PlanChange[] =>
      has.has(step.id) || done.has(step.id) ? [] : [{ change: 'remove', step }],
    ),
  ];
}
