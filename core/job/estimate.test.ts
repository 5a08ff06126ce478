import { normals } from '../numeric';
import { JOB_DRIVES } from '../test/job-drives';
import { cardOf } from './card';
import { durationWords, estimateLines, estimateOf, labourPace, plannedMinutes, tookLines, totalOf } from './estimate';

const { steps } = cardOf(JOB_DRIVES['slot-with-all-bolts']!.drive);
const none = labourPace([]);

test('the minutes of a card are those of its steps, the run-in as long as it says', () => {
  const sum = steps.reduce((all, step) => all + plannedMinutes([step]), 0);
  expect(plannedMinutes(steps)).toBe(sum);
  expect(plannedMinutes([{ code: 'run-in', minutes: 10 }])).toBe(10);
  expect(plannedMinutes([{ code: 'cool' }])).toBe(0);
  expect(estimateOf(steps, { pace: none, hourRate: null, parts: [] })).toMatchObject({ minutes: sum, jobs: 0 });
});

test('the pace is learnt from three clocked jobs on, and one that ran over night does not move it', () => {
  const jobs = [
    { planned: 100, worked: 80 },
    { planned: 50, worked: 40 },
  ];
  expect(labourPace(jobs)).toEqual(none);
  const learnt = labourPace([
    ...jobs,
    { planned: 60, worked: 48 },
    { planned: 100, worked: 900 },
    { planned: 70, worked: 0 },
  ]);
  expect(learnt.factor).toBeCloseTo(0.8, 9);
  expect(learnt).toMatchObject({ jobs: 4, plusMinus: 0.1 });
});

test('the ± holds what it says of jobs drawn about a pace: near two in three within it', () => {
  const normal = normals(28);
  let within = 0;
  let all = 0;
  for (let shop = 0; shop < 200; shop += 1) {
    const pace = 0.5 + shop / 150;
    const jobs = Array.from({ length: 40 }, () => ({
      planned: 100,
      worked: Math.max(1, 100 * pace * (1 + 0.25 * normal())),
    }));
    const { factor, plusMinus } = labourPace(jobs.slice(0, 20));
    for (const { worked } of jobs.slice(20)) {
      all += 1;
      if (Math.abs(worked - 100 * factor) <= 100 * factor * plusMinus) within += 1;
    }
  }
  // 0.68 of a normal spread; a little less, for both are read off twenty jobs.
  expect(within / all).toBeGreaterThan(0.6);
  expect(within / all).toBeLessThan(0.72);
});

test('the bill adds up, and says what has no price', () => {
  const estimate = {
    ...{ minutes: 90, plusMinus: 30, jobs: 5, hourRate: 80 },
    parts: [
      { name: '6PK1734', count: 2, price: 30.5 },
      { name: 'Alternator', count: 1, price: null },
    ],
  };
  expect(totalOf(estimate)).toEqual({ labour: 120, parts: 61, total: 181, open: 1 });
  expect(estimateLines(estimate)).toEqual([
    'Labour: 1 h 30 min ± 30 min (from 5 signed jobs), 120.00 at 80.00 an hour',
    '2 × 6PK1734: 61.00',
    '1 × Alternator: no price in the list',
    'Estimate: 181.00, without what has no price',
  ]);
  expect(tookLines({ workedMs: 75 * 60_000, parts: [{ name: '6PK1734', count: 1 }] }, estimate)).toEqual([
    'Took: 1 h 15 min, 100.00',
    '1 × 6PK1734 used: 30.50',
    'Total: 130.50',
  ]);
  expect(tookLines({ workedMs: 0, parts: [] }, estimate)).toEqual([]);
  expect(tookLines({ workedMs: 0, parts: [{ name: 'Bolt', count: 2 }] }, estimate)).toEqual([
    'Took: clock not used',
    '2 × Bolt used',
    'Total: no prices yet',
  ]);
  expect([0, 59, 60, 125].map(durationWords)).toEqual(['0 min', '59 min', '1 h', '2 h 5 min']);
});
