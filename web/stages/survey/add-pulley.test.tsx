/** @jest-environment jsdom */
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { BenchContext, createBench } from '../../state/bench';
import { createDriveStore } from '../../state/drive-history';
import { AddPulley } from './AddPulley';
import { newDrive, ROLES } from '@emery/core/drive';

const added = jest.fn();

function show() {
  added.mockClear();
  const bench = createBench(createDriveStore(newDrive('sheet')), 'mm');
  bench.connect();
  render(
    <BenchContext.Provider value={bench}>
      <AddPulley onAdded={added} />
    </BenchContext.Provider>,
  );
  return bench;
}
const open = async () => {
  await userEvent.click(screen.getByRole('button', { name: /Add pulley/ }));
  const sheet = await screen.findByRole('dialog', { name: 'Which pulley?' });
  // The first role is in hand at once, for the keyboard.
  await waitFor(() => expect(document.activeElement!.textContent).toBe('Crank'));
  return sheet;
};
const gone = () => waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());

test('the sheet has every role once, by its own name, and adds the one that is taken', async () => {
  const bench = show();
  const roles = within(await open())
    .getAllByRole('button')
    .filter(({ textContent }) => textContent !== '');
  expect(roles).toHaveLength(ROLES.length);
  expect(new Set(roles.map(({ textContent }) => textContent)).size).toBe(ROLES.length);
  await userEvent.click(screen.getByRole('button', { name: 'Steering pump' }));
  await gone();
  const [pump] = bench.get().drive.stations;
  expect(pump!.role).toBe('power-steering');
  expect(added.mock.calls).toEqual([[pump!.id, pump!.pulleys[0]!.id]]);
});

test('by keyboard; left with Escape it adds nothing', async () => {
  const bench = show();
  await open();
  await userEvent.keyboard('{Enter}');
  await gone();
  await open();
  await userEvent.tab();
  expect(document.activeElement!.textContent).toBe('Alternator');
  await userEvent.keyboard('{Escape}');
  await gone();
  expect(bench.get().drive.stations.map(({ role, x, y }) => [role, x, y])).toEqual([['crankshaft', 0, 0]]);
});

test('pulleys that are added one after another stand clear of one another, the crank at the datum', async () => {
  const bench = show();
  for (const name of ['Alternator', 'Crank', 'Idler', 'Tensioner', 'Fan', 'Something else']) {
    fireEvent.click(screen.getByText('Add pulley'));
    fireEvent.click(await screen.findByText(name));
    await waitFor(() => expect(screen.queryByText(name)).toBeNull());
  }
  const { stations } = bench.get().drive;
  expect(stations.map(({ role }) => role)).toEqual(['alternator', 'crankshaft', 'idler', 'tensioner', 'fan', 'other']);
  for (const [k, a] of stations.entries())
    for (const b of stations.slice(k + 1)) {
      const clear = (a.pulleys[0]!.diameter! + b.pulleys[0]!.diameter!) / 2;
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(clear);
    }
});
