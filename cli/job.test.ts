import { emery } from './test/emery';

interface Printed {
  off: string[];
  on: string[];
  steps: { id: string; phase: string; text: string; caution: string | null }[];
}
const job = (...args: string[]) => {
  const { status, stdout } = emery('job', ...args);
  expect(status).toBe(0);
  return JSON.parse(stdout) as Printed;
};

test('job prints the order of the belts and the steps, each with its phase, its text and its caution', () => {
  const { off, on, steps } = job('demo/2-hill-farm-pickup.emery.json');
  expect([off, on]).toEqual([
    ['outer', 'inner'],
    ['inner', 'outer'],
  ]);
  for (const step of steps) expect(Object.keys(step)).toEqual(['id', 'phase', 'text', 'caution']);
  const phases = ['before', 'off', 'set', 'on', 'check', 'after'];
  expect([...new Set(steps.map(({ phase }) => phase))]).toEqual(phases);
  expect(steps.find(({ id }) => id === 'before key')!.caution).toMatch(/^Key out and battery off/);
  expect(steps.filter(({ caution }) => caution === null).length).toBeGreaterThan(5);
});

test('--belt: that belt with those that must come off before it, and no other', () => {
  expect(job('demo/2-hill-farm-pickup.emery.json', '--belt', 'inner').off).toEqual(['outer', 'inner']);
  const { off, on, steps } = job('demo/2-hill-farm-pickup.emery.json', '--belt', 'outer');
  expect([off, on]).toEqual([['outer'], ['outer']]);
  // The inner belt stays on: it comes slack with the outer one, and is only set, looked at and read.
  expect(steps.filter(({ id }) => id.endsWith(' inner')).map(({ id }) => id)).toEqual([
    'check grooves inner',
    'check read-tension inner',
    'after read-tension inner',
  ]);
});

test('a belt that is not there is named, with those that are', () => {
  const { status, stderr, stdout } = emery('job', 'demo/2-hill-farm-pickup.emery.json', '--belt', 'third');
  expect([status, stdout]).toEqual([2, '']);
  expect(stderr).toMatch(/--belt: there is no belt "third"; this drive has inner, outer/);
});
