/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { App } from 'antd';
import { MemoryRouter } from 'react-router';
import { Estimate } from './Estimate';
import { Fitted } from './Fitted';
import { JobExtras, ShopOdometer } from './JobExtras';
import { SignOff } from './SignOff';
import type { JobInHand } from './use-job';
import { Waiting } from './Waiting';
import type { JobOpened } from '@emery/core/api';
import { bringList, cardOf, estimateOf, type JobEvent, labourPace, runOf } from '@emery/core/job';
import { DEMO } from '../../core/test/demo';

const { order, steps } = cardOf(DEMO.rescue);
const bring = bringList(DEMO.rescue, order);
const job: JobOpened = {
  ...{
    id: 'j',
    vehicleId: 'v',
    driveId: 'd',
    name: 'Front drive',
    startedAt: '2026-11-29T08:00:00Z',
    startedBy: 'Ann',
  },
  ...{ signedAt: null, signedBy: null, vehicleName: 'Truck', plate: '', odometerUnit: 'km', vehicleOdometer: 152_000 },
  ...{ events: [], seq: 0 },
  sheet: { drive: DEMO.rescue, unit: 'mm', belt: null, off: order.off, on: order.on, steps, bring },
};

/** A job in hand, with what happened at it; what is said now is kept to be looked at. */
function hand(events: readonly object[] = []) {
  const said: object[] = [];
  const all = events.map((event, k) => ({ id: `e${k}`, at: '2026-11-29T09:00:00Z', by: 'Ann', ...event }) as JobEvent);
  const inHand: JobInHand = {
    ...{ job, error: null, run: runOf(all), queue: { waiting: [], problem: null, refused: null, kept: true } },
    happens: (what) => said.push(what),
    forgetRefused: () => undefined,
  };
  return { inHand, said };
}

function show(part: React.ReactNode) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <App>{part}</App>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}
const newOne = { kind: 'belt', belt: 'main', fitted: 'new' };

describe('what went on', () => {
  test('a new belt is asked for its marking, and another than was asked for is told at once', async () => {
    const { inHand, said } = hand([{ ...newOne, marking: '5PK1600' }]);
    show(<Fitted job={job} hand={inHand} />);
    expect(screen.getByRole('alert').textContent).toMatch(
      new RegExp(`^5PK1600\\. The card asks for ${bring.belts[0]!.markings[0]!.text}, not this belt`),
    );
    const field = screen.getByLabelText('Marking');
    await userEvent.clear(field);
    await userEvent.type(field, `${bring.belts[0]!.markings[0]!.text}{Enter}`);
    expect(said).toEqual([{ kind: 'belt', belt: 'main', marking: bring.belts[0]!.markings[0]!.text }]);
  });
  test('the belt that was asked for goes on without a word, in any scheme; the same again is asked for none', () => {
    show(<Fitted job={job} hand={hand([{ ...newOne, marking: bring.belts[0]!.markings.at(-1)!.text }]).inHand} />);
    expect(screen.queryByRole('alert')).toBeNull();
  });
  test('the same again has no marking to be read', () => {
    show(<Fitted job={job} hand={hand([{ ...newOne, fitted: 'same' }]).inHand} />);
    expect(screen.queryByLabelText('Marking')).toBeNull();
    screen.getByLabelText('Serial number');
  });
});

test('the shop’s odometer is taken over with one tap', async () => {
  const { inHand, said } = hand();
  show(<ShopOdometer job={job} hand={inHand} />);
  await userEvent.click(screen.getByRole('button', { name: '152,000 km, from the shop' }));
  expect(said).toEqual([{ kind: 'odometer', odometer: 152_000 }]);
});

test('sign-off says what is open, which belt is not the one, and needs a name', () => {
  show(
    <SignOff
      job={job}
      hand={
        hand([
          { ...newOne, marking: '5PK1600' },
          { kind: 'tick', step: steps[0]!.id, done: true },
        ]).inHand
      }
    />,
  );
  screen.getByText(`${steps.length - 1} steps are not ticked.`);
  screen.getByText(/^The belt: 5PK1600/);
  screen.getByText(/The card asks for .*, not this belt/);
  screen.getByRole('button', { name: /from the shop/ });
  expect(screen.getByRole('button', { name: 'Sign off' })).toHaveProperty('disabled', true);
});

test('the estimate: labour by default, and the price of an hour that is no price stays as it was written', async () => {
  const estimate = estimateOf(steps, { pace: labourPace([]), hourRate: null, parts: [] });
  show(<Estimate estimate={estimate} open />);
  screen.getByText(/^Labour: .* \(a default\), no price of an hour$/);
  screen.getByText('Estimate: no prices yet');
  const field = screen.getByLabelText(/^Labour rate per hour/);
  await userEvent.type(field, 'dear{Enter}');
  expect(field).toHaveProperty('value', 'dear');
  expect(screen.getByRole('alert').textContent).toMatch(/^Labour rate per hour/);
});

/** What the server says, as `fetch` gives it. */
const answer = (body: object) =>
  Promise.resolve({ ok: true, status: 200, text: () => Promise.resolve(JSON.stringify(body)) });

describe('what is not with the server', () => {
  const waiting = [{ id: 'w', at: '2026-11-29T09:00:00Z', by: 'Ann', kind: 'note', text: 'Stiff' }] as JobEvent[];
  test('waits, and says whether the page may be closed', () => {
    const { inHand } = hand();
    const queue = { ...inHand.queue, waiting, problem: 'The Emery server does not answer.' };
    show(<Waiting job={job} hand={{ ...inHand, queue }} />);
    expect(screen.getByRole('status').textContent).toMatch(/1 entry waits.*You can close this page/);
  });
  test('where nothing can be stored it says so, though the server answers', () => {
    const { inHand } = hand();
    show(<Waiting job={job} hand={{ ...inHand, queue: { ...inHand.queue, waiting, kept: false } }} />);
    expect(screen.getByRole('status').textContent).toMatch(/This browser cannot store them.*Keep this page open/);
  });
  test('what was refused stands there whole, is copied as it is, and is let go only by hand', async () => {
    const { inHand } = hand();
    const long = 'The bracket is cracked at the lower bolt. '.repeat(20).trim();
    const events = [
      { ...waiting[0]!, text: long },
      { id: 'o', at: '2026-11-29T09:01:00Z', by: '', kind: 'odometer', odometer: 152_400 },
      { id: 'b', at: '2026-11-29T09:02:00Z', by: 'Ann', kind: 'belt', belt: 'main', fitted: 'new', number: 'N 7' },
    ] as JobEvent[];
    const gone: unknown[] = [];
    const refused = { why: 'This job was signed off by Bob.', events };
    const shown = { ...inHand, queue: { ...inHand.queue, refused }, forgetRefused: (ids: unknown) => gone.push(ids) };
    const user = userEvent.setup();
    show(<Waiting job={job} hand={shown} />);
    const alert = screen.getByRole('alert');
    expect(alert.textContent).toContain('3 entries were not saved. This job was signed off by Bob.');
    const lines = [...alert.querySelectorAll('li')].map(({ textContent }) => textContent);
    expect(lines[0]).toMatch(/^Ann, 29 Nov.*: Remark: The bracket/);
    expect(lines[0]).toContain(long);
    expect(lines[1]).toMatch(/^29 Nov.*: Odometer 152,400$/);
    expect(lines[2]).toMatch(/: The belt: new belt fitted, number N 7$/);
    await user.click(screen.getByRole('button', { name: 'Copy' }));
    expect(await navigator.clipboard.readText()).toBe(lines.join('\n'));
    expect(gone).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Discard' }));
    expect(gone).toEqual([['w', 'o', 'b']]);
  });
  test('of a job that is gone they are told all the same, and only copied or discarded', () => {
    const { inHand } = hand();
    const events = [
      ...[waiting[0]!, { id: 'o', at: '2026-11-29T09:01:00Z', by: '', kind: 'tick', step: 'x', done: true }],
      { id: 'b', at: '2026-11-29T09:02:00Z', by: 'Ann', kind: 'belt', belt: 'main', fitted: 'same' },
    ] as JobEvent[];
    const refused = { why: 'This job is not in the shop. It may have been deleted.', events };
    show(<Waiting job={null} hand={{ ...inHand, job: null, queue: { ...inHand.queue, refused } }} />);
    expect(screen.getByRole('alert').textContent).toMatch(
      /3 entries were not saved\..*Remark: Stiff.*Ticked: a step.*Belt main: same belt refitted/,
    );
    expect(screen.getAllByRole('button').map(({ textContent }) => textContent)).toEqual(['Copy', 'Discard']);
  });
  test('put to a new job it is there before it is let go here', async () => {
    const { inHand } = hand();
    const gone: unknown[] = [];
    const asked: { url: string; body: { id: string; events?: { text: string }[] } }[] = [];
    global.fetch = jest.fn((url: string, { body }: { body: string }) => {
      asked.push({ url, body: JSON.parse(body) as never });
      return answer({ id: 'n', late: [] });
    }) as never;
    const refused = { why: 'Signed off.', events: waiting };
    const shown = { ...inHand, queue: { ...inHand.queue, refused }, forgetRefused: (ids: unknown) => gone.push(ids) };
    show(<Waiting job={job} hand={shown} />);
    await userEvent.setup().click(screen.getByRole('button', { name: 'Add to a new job' }));
    await waitFor(() => expect(gone).toEqual([['w']]));
    expect(asked[0]).toMatchObject({ url: '/api/jobs', body: { driveId: 'd' } });
    await waitFor(() =>
      expect(asked[1]).toMatchObject({ url: '/api/jobs/n/events', body: { events: [{ text: 'Stiff' }] } }),
    );
  });
});

describe('parts from the shelf', () => {
  test('two rows of one code are two belts: the one that is chosen is taken, and taken back', async () => {
    const belts = [7, 8].map((id) => ({
      ...{ id, code: 'TF 9', section: 'PK', ribs: 6, lengthMm: 1000 + id, price: null, shelf: 3 },
    }));
    global.fetch = jest.fn(() => answer({ belts, total: 2 })) as never;
    const { inHand, said } = hand([{ kind: 'part', name: 'TF 9', count: 2, stock: 7 }]);
    show(<JobExtras job={job} hand={inHand} />);
    const user = userEvent.setup();
    await user.type(screen.getByRole('combobox', { name: 'Part used' }), 'TF 9');
    await user.click(await screen.findByText(/1008 mm/));
    expect(said.at(-1)).toEqual({ kind: 'part', name: 'TF 9', count: 1, stock: 8 });
    // Typed out, it is neither: one of them is to be chosen.
    await user.type(screen.getByRole('combobox', { name: 'Part used' }), 'TF 9');
    await screen.findByText(/2 belts on the list have this code/);
    await user.click(screen.getByRole('button', { name: /Return: TF 9/ }));
    expect(said.at(-1)).toEqual({ kind: 'part', name: 'TF 9', count: -2, stock: 7 });
  });
});
