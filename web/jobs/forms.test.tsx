/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { App } from 'antd';
import { MemoryRouter } from 'react-router';
import { Estimate } from './Estimate';
import { Fitted } from './Fitted';
import { ShopOdometer } from './JobExtras';
import { SignOff } from './SignOff';
import type { JobInHand } from './use-job';
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
    ...{ job, error: null, run: runOf(all), queue: { waiting: [], problem: null, refused: null } },
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
      new RegExp(`^5PK1600\\. This is not the belt that the card asked for, ${bring.belts[0]!.markings[0]!.text}`),
    );
    const field = screen.getByLabelText('Marking on it');
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
    expect(screen.queryByLabelText('Marking on it')).toBeNull();
    screen.getByLabelText('Number on it');
  });
});

test('the shop’s odometer is taken over with one tap', async () => {
  const { inHand, said } = hand();
  show(<ShopOdometer job={job} hand={inHand} />);
  await userEvent.click(screen.getByRole('button', { name: '152,000 km, as the shop has it' }));
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
  screen.getByText(/This is not the belt that the card asked for/);
  screen.getByRole('button', { name: /as the shop has it/ });
  expect(screen.getByRole('button', { name: 'Sign it off' })).toHaveProperty('disabled', true);
});

test('the estimate: labour by default, and the price of an hour that is no price stays as it was written', async () => {
  const estimate = estimateOf(steps, { pace: labourPace([]), hourRate: null, parts: [] });
  show(<Estimate estimate={estimate} open />);
  screen.getByText(/^Labour: .* \(a default\), no price of an hour$/);
  screen.getByText('Estimate: no prices yet');
  const field = screen.getByLabelText(/^Price of an hour/);
  await userEvent.type(field, 'dear{Enter}');
  expect(field).toHaveProperty('value', 'dear');
  expect(screen.getByRole('alert').textContent).toMatch(/^Price of an hour/);
});
