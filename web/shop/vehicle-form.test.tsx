/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { NEW_VEHICLE, VehicleForm } from './VehicleForm';

const truck = { ...NEW_VEHICLE, name: 'Truck', odometer: 152_000 };

function show(start = truck) {
  const saved: unknown[] = [];
  const onSave = (save: { fields: unknown }) => {
    saved.push(save.fields);
    return Promise.resolve();
  };
  render(<VehicleForm title="Change" start={start} revision={1} onSave={onSave} onClose={() => undefined} />);
  return saved;
}
const field = () => screen.getByLabelText<HTMLInputElement>('Odometer');
/** Saved as by Enter; what is checked is checked before it goes on. */
const save = () =>
  act(async () => {
    fireEvent.submit(field().form!);
    // By turns of the loop, not by time: on a busy machine 50 ms are over before the checks have had their turns.
    for (let turn = 0; turn < 40; turn += 1) await new Promise((resolve) => setTimeout(resolve, 0));
  });
const write = (reading: string) => {
  fireEvent.change(field(), { target: { value: reading } });
  return save();
};

test('an odometer typed ten times too high is asked about, stays as it was written, and is taken when it is meant', async () => {
  const saved = show();
  await write('1520500');
  expect(saved).toEqual([]);
  expect(screen.getByText(/^Odometer: 1,520,500 km is far above the last reading, 152,000/).getAttribute('role')).toBe(
    'alert',
  );
  expect(field().value).toBe('1520500');
  await save();
  expect(saved).toMatchObject([{ odometer: 1_520_500 }]);
});

test('one that is below the last is asked about anew whatever was meant before; a likely one is not', async () => {
  const saved = show();
  await write('1520500');
  await write('90000');
  screen.getByText(/^Odometer: 90,000 km is below the last reading/);
  expect(saved).toEqual([]);
  await write('152900');
  expect(saved).toMatchObject([{ odometer: 152_900 }]);
});

test('the first reading of a vehicle has nothing to be odd against', async () => {
  const saved = show({ ...truck, odometer: null as never });
  await write('1520500');
  expect(saved).toHaveLength(1);
});
