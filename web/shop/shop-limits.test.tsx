/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import ShopLimits from './ShopLimits';
import type { ShopLimit } from '@emery/core/drive';

/** A server that keeps what it is told, or refuses it in words. */
function serve(start: readonly ShopLimit[] | null, refusal?: string) {
  let shop = { id: 1, name: 'Yard', unit: 'mm', hourRate: null, limits: start };
  const sent: (readonly ShopLimit[] | null)[] = [];
  const seen: (readonly ShopLimit[] | null)[] = [];
  globalThis.fetch = jest.fn((_: string, init?: RequestInit) => {
    const patch = init?.method === 'PATCH';
    if (patch) {
      const body = JSON.parse(init.body as string) as Record<'limits' | 'limitsWere', readonly ShopLimit[] | null>;
      sent.push(body.limits);
      seen.push(body.limitsWere);
    }
    if (patch && refusal === undefined) shop = { ...shop, limits: sent.at(-1)! };
    const bad = patch && refusal !== undefined;
    const body = bad ? { status: 422, title: 'Not accepted', detail: refusal } : shop;
    return Promise.resolve({ ok: !bad, status: bad ? 422 : 200, text: () => Promise.resolve(JSON.stringify(body)) });
  }) as never;
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <ShopLimits onClose={() => undefined} />
    </QueryClientProvider>,
  );
  return { sent, seen };
}
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const add = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save for every drive' });

test('a limit needs its figure, is kept with what it names, and is taken out again', async () => {
  const { sent, seen } = serve(null);
  await screen.findByText('None yet: Emery’s defaults apply.');
  expect(add().disabled).toBe(true);
  await userEvent.type(field('Worn out at or under, mm'), 'two{Enter}');
  expect(field('Worn out at or under, mm').value).toBe('two');
  screen.getByText(/^Worn out at or under: enter a number from 0 to 1000, in mm/);
  expect(add().disabled).toBe(true);
  await userEvent.clear(field('Worn out at or under, mm'));
  await userEvent.type(field('Worn out at or under, mm'), '2.2{Enter}');
  await userEvent.type(field('When new, mm'), '3{Enter}');
  await userEvent.click(add());
  await waitFor(() => expect(sent).toEqual([[{ check: 'rib-depth', replace: 2.2, new: 3 }]]));
  await screen.findByText(/every drive: worn out at or under 2\.2 mm, new 3 mm/);
  // The form is empty again, and says what it needs.
  expect(field('Worn out at or under, mm').value).toBe('');
  await userEvent.click(screen.getByRole('button', { name: 'Remove the limit of Rib depth, every drive' }));
  await waitFor(() => expect(sent).toHaveLength(2));
  expect(sent[1]).toBeNull();
  expect(seen).toEqual([null, sent[0]]);
});

test('one of the same check and name is replaced, not put beside the other', async () => {
  const { sent, seen } = serve([
    { check: 'rib-depth', replace: 2.1 },
    { check: 'rock', kind: 'one-way', replace: 0.2 },
  ]);
  await screen.findByText(/one-way: worn out from 0\.2 mm/);
  await userEvent.type(field('Worn out at or under, mm'), '2.4{Enter}');
  await userEvent.click(add());
  await waitFor(() =>
    expect(sent).toEqual([
      [
        { check: 'rock', kind: 'one-way', replace: 0.2 },
        { check: 'rib-depth', replace: 2.4 },
      ],
    ]),
  );
  expect(seen[0]).toHaveLength(2);
});

test('what the server refuses is told, and the list is as it was', async () => {
  serve([{ check: 'rock', replace: 0.4 }], 'limits[0].replace must be a number');
  await screen.findByText(/every drive: worn out from 0\.4 mm/);
  await userEvent.click(screen.getByRole('button', { name: /^Remove/ }));
  expect((await screen.findByRole('alert')).textContent).toMatch(/Not saved/);
  await screen.findByText(/every drive: worn out from 0\.4 mm/);
  // What was typed for another stays, to be tried again.
  await userEvent.type(field('Worn out at or under, mm'), '2.4{Enter}');
  await userEvent.click(add());
  await screen.findByRole('alert');
  await waitFor(() => expect(screen.queryByText(/2\.4 mm/)).toBeNull());
  expect(field('Worn out at or under, mm').value).toBe('2.4');
});

test('a depth that is watched is watched at or under it', async () => {
  serve([{ check: 'rib-depth', replace: 2.1, watch: 2.5 }]);
  await screen.findByText(/worn out at or under 2\.1 mm, watch at or under 2\.5 mm/);
});
