import { bundleOf } from './bundles';

jest.mock('vite', () => ({ build: () => undefined }));

const ASKERS = ['main', 'counter', 'counter-later', 'shop', 'bench', 'stage-route', 'stage-size', 'stage-job', 'jobs'];
const subsets = Array.from({ length: 2 ** ASKERS.length - 1 }, (_, k) => k + 1);
const setOf = (bits: number) => new Set(ASKERS.filter((_, at) => bits & (1 << at)));

test('no two files need each other, whatever imports what', () => {
  // What is imported has all askers of what imports it: an edge from each set to each that holds it.
  const needs = new Map<string, Set<string>>();
  for (const small of subsets)
    for (const large of subsets)
      if ((small & large) === small) {
        const [from, to] = [bundleOf(setOf(small)), bundleOf(setOf(large))];
        if (from !== to) needs.set(from, (needs.get(from) ?? new Set()).add(to));
      }
  expect(needs.size).toBeGreaterThan(10);
  const done = new Set<string>();
  const visit = (name: string, above: readonly string[]): void => {
    expect(above).not.toContain(name);
    if (done.has(name)) return;
    for (const next of needs.get(name) ?? []) visit(next, [...above, name]);
    done.add(name);
  };
  for (const name of needs.keys()) visit(name, []);
});

test('a page that is waited for fetches nothing that only another asks for', () => {
  for (const page of ['counter', 'shop', 'bench']) {
    const fetched = new Map(
      subsets.map(setOf).flatMap((askers) => (askers.has(page) ? [[bundleOf(askers), askers] as const] : [])),
    );
    for (const bits of subsets) {
      const askers = setOf(bits);
      if (!askers.has(page) && !askers.has('main')) expect([...fetched.keys()]).not.toContain(bundleOf(askers));
    }
  }
});
