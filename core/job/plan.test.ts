import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { JOB_DRIVES } from '../test/job-drives';
import { cardOf } from './card';
import { jobSteps, planChanges } from './plan';
import type { CardStep, PlanChange } from './step';

const cards = Object.values(JOB_DRIVES).map(({ drive, belt }) => cardOf(drive, belt).steps);
const runOf = (plan: readonly PlanChange[], ticked: readonly string[]) => ({
  plan: plan.map((change, k) => ({ kind: 'plan' as const, id: `p${k}`, at: '', by: '', ...change })),
  done: new Map(ticked.map((id) => [id, { at: '', by: '' }])),
});

test('all offers taken, in order, make the plan as it is now, with every ticked step as it was ticked', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...cards),
      fc.constantFrom(...cards),
      fc.array(fc.nat(60), { maxLength: 20 }),
      (began, now, places) => {
        const ticked = [...new Set(places.flatMap((k) => began[k]?.id ?? []))];
        const run = runOf([], ticked);
        const steps = jobSteps(began, runOf(planChanges(began, now, run.done), ticked));
        const byId = new Map(steps.map((step) => [step.id, step]));
        expect(byId.size).toBe(steps.length);
        for (const id of ticked) expect(byId.get(id)).toEqual(began.find((step) => step.id === id));
        for (const step of now) if (!ticked.includes(step.id)) expect(byId.get(step.id)).toEqual(step);
        const known = new Set([...ticked, ...now.map(({ id }) => id)]);
        expect(steps.every(({ id }) => known.has(id))).toBe(true);
        // Nothing is left to offer but what is ticked and gone.
        expect(planChanges(steps, now, run.done)).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('a new step comes where the plan has it', () => {
  const [first, second, third] = cardOf(DEMO.pickup).steps as [CardStep, CardStep, CardStep];
  const [change] = planChanges([first, third], [first, second, third], new Map());
  expect(change).toEqual({ change: 'add', step: second, after: first.id });
  expect(jobSteps([first, third], runOf([change!], []))).toEqual([first, second, third]);
});

test('ticked meanwhile on another device: it stays, whoever takes over that it is gone', () => {
  const [first, second] = cardOf(DEMO.pickup).steps as [CardStep, CardStep];
  const gone: PlanChange = { change: 'remove', step: second };
  expect(jobSteps([first, second], runOf([gone], []))).toEqual([first]);
  expect(jobSteps([first, second], runOf([gone], [second.id]))).toEqual([first, second]);
  expect(jobSteps([first], runOf([{ change: 'reword', step: second }], []))).toEqual([first]);
});
