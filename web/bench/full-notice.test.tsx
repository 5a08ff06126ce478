/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FullNotice } from './FullNotice';
import { createDriveStore } from '../state/drive-history';
import { TypedPlace, useTyped } from '../ui/typed-text';
import { type Drive, newDrive } from '@emery/core/drive';

const own = (k: number, text = 'Wipe it') => ({ id: `o${k}`, phase: 'after' as const, text });
const fullOfOwnSteps = (count: number): Drive => ({
  ...newDrive('full'),
  job: { own: Array.from({ length: count }, (_, k) => own(k)) },
});
const addTo = (text: string) => (drive: Drive) => ({
  ...drive,
  job: { own: [...(drive.job?.own ?? []), own(900, text)] },
});

/** A form as the stages have them: it gives on what was typed, and forgets it. */
function Form({ onAdd }: { onAdd: (text: string) => void }) {
  const [text, setText] = useTyped('step', '');
  return (
    <>
      <input aria-label="Step" value={text} onChange={(event) => setText(event.target.value)} />
      <button
        onClick={() => {
          onAdd(text);
          setText('');
        }}
      >
        Add step
      </button>
      <FullNotice />
    </>
  );
}

const show = (count: number) => {
  const store = createDriveStore(fullOfOwnSteps(count));
  render(
    <TypedPlace at="here">
      <Form onAdd={(text) => store.dispatch({ type: 'edit', change: addTo(text) })} />
    </TypedPlace>,
  );
  return store;
};

test('beside the button that was pressed it says why nothing was changed, and what was typed stays', async () => {
  const store = show(100);
  const user = userEvent.setup();
  const button = screen.getByRole('button', { name: 'Add step' });
  button.getBoundingClientRect = () =>
    ({ left: 40, right: 120, top: 200, bottom: 240, width: 80, height: 40 }) as DOMRect;
  await user.type(screen.getByLabelText('Step'), 'Wipe the pulley');
  await user.click(button);
  expect(screen.getByRole('alert').textContent).toMatch(/^Step: a drive holds 100 at most\. Nothing was changed/);
  const { left, top } = screen.getByRole('alert').parentElement!.style;
  expect([left, top]).toEqual(['40px', '248px']);
  expect(screen.getByLabelText<HTMLInputElement>('Step').value).toBe('Wipe the pulley');
  expect(store.get().present.job!.own).toHaveLength(100);
  await user.click(screen.getByRole('button', { name: 'OK' }));
  expect(screen.queryByRole('alert')).toBeNull();
  // With room it goes through, and what was typed is forgotten as ever.
  store.dispatch({ type: 'edit', change: (drive) => ({ ...drive, job: { own: drive.job!.own!.slice(1) } }) });
  fireEvent.click(button);
  expect(store.get().present.job!.own!.at(-1)!.text).toBe('Wipe the pulley');
  expect(screen.getByLabelText<HTMLInputElement>('Step').value).toBe('');
});

test('with room there is nothing to be told', async () => {
  const store = show(3);
  await userEvent.setup().type(screen.getByLabelText('Step'), 'x');
  fireEvent.click(screen.getByRole('button', { name: 'Add step' }));
  expect([screen.queryByRole('alert'), store.get().present.job!.own!.length]).toEqual([null, 4]);
});
