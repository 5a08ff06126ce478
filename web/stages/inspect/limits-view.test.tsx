/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BenchContext, createBench } from '../../state/bench';
import { createDriveStore } from '../../state/drive-history';
import LimitsView from './LimitsView';
import { DEMO } from '../../../core/test/demo';
import type { ShopLimit } from '@emery/core/drive';
import { putFinding, putLimit } from '@emery/core/inspect';

/** What the settings hold by now; this drive was opened when they held nothing. */
const HELD: readonly ShopLimit[] = [
  { check: 'rock', replace: 0.4 },
  { check: 'rib-depth', section: 'PK', replace: 2.1 },
];

async function show(refused: boolean) {
  const shop = { id: 1, name: 'Yard', unit: 'mm', hourRate: null, limits: HELD };
  const sent: unknown[] = [];
  globalThis.fetch = jest.fn((_: string, init?: RequestInit) => {
    const patch = init?.method === 'PATCH';
    if (patch) sent.push(JSON.parse(init.body as string));
    const bad = patch && refused;
    const body = bad ? { status: 409, title: 'Changed meanwhile', detail: 'Changed somewhere else.' } : shop;
    return Promise.resolve({ ok: !bad, status: bad ? 409 : 200, text: () => Promise.resolve(JSON.stringify(body)) });
  }) as never;
  const looked = putFinding(
    DEMO.rescue,
    { on: 'belt', target: 'main' },
    { check: 'rib-depth', value: 2.5 },
    { at: '2026-11-01T09:00:00Z' },
  );
  const bench = createBench(createDriveStore(putLimit(looked, 'rib-depth', { from: 'shop', replace: 2.3 })), 'mm');
  bench.connect();
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <BenchContext.Provider value={bench}>
        <LimitsView />
      </BenchContext.Provider>
    </QueryClientProvider>,
  );
  await waitFor(() => expect(client.getQueryData(['shop'])).toBeDefined());
  const depth = within(screen.getByRole('group', { name: 'Rib depth' }));
  await userEvent.click(depth.getByRole('combobox', { name: 'Source' }));
  await userEvent.click(await screen.findByTitle('The shop’s limit, for every drive'));
  await waitFor(() => expect(sent).toHaveLength(1));
  return { bench, depth, sent };
}

test('a limit that is kept for every drive goes among those that the settings hold now', async () => {
  const { bench, sent } = await show(false);
  const limits = [HELD[0], { check: 'rib-depth', section: 'PK', replace: 2.3 }];
  expect(sent).toEqual([{ limits, limitsWere: HELD }]);
  await waitFor(() => expect(bench.get().drive.inspect?.shop).toEqual(limits));
  expect(bench.get().drive.inspect?.limits ?? []).toEqual([]);
});

test('where it is not kept, this is said, and the drive keeps its own', async () => {
  const { bench, depth } = await show(true);
  expect((await depth.findByRole('alert')).textContent).toBe('Not saved for every drive: Changed somewhere else.');
  expect(bench.get().drive.inspect?.limits).toEqual([{ check: 'rib-depth', from: 'shop', replace: 2.3 }]);
  expect(bench.get().drive.inspect?.shop).toBeUndefined();
});
