import { fireEvent, render, screen } from '@testing-library/react';
import { useEscape, useKeys } from './use-key';

function Page({ act, close, open = true }: { act: (key: string) => boolean; close: () => void; open?: boolean }) {
  useKeys((event) => act(event.key));
  useEscape(close, open);
  return (
    <>
      <input aria-label="Text" />
      <input type="radio" aria-label="Choice" />
      <div className="ant-modal">
        <button>In a dialog</button>
      </div>
    </>
  );
}

function show(open = true) {
  const [act, close] = [jest.fn((key: string) => key === 'x'), jest.fn()];
  const { rerender } = render(<Page act={act} close={close} open={open} />);
  const press = (key: string, at: Element = document.body, more = {}) => fireEvent.keyDown(at, { key, ...more });
  return { act, close, press, change: (now: boolean) => rerender(<Page act={act} close={close} open={now} />) };
}

test('Escape closes what is open and goes no further; with it closed, the page hears it', () => {
  const { act, close, press, change } = show();
  expect(press('Escape')).toBe(false);
  expect(close).toHaveBeenCalledTimes(1);
  expect(act).not.toHaveBeenCalled();
  change(false);
  expect(press('Escape')).toBe(true);
  expect(close).toHaveBeenCalledTimes(1);
  expect(act.mock.calls).toEqual([['Escape']]);
});

test('no key hijacks what is being written or chosen, nor one that the browser has its own use for', () => {
  const { act, close, press } = show();
  press('x', screen.getByLabelText('Text'));
  press('Escape', screen.getByLabelText('Text'));
  press('Escape', screen.getByText('In a dialog'));
  press(' ', screen.getByLabelText('Choice'));
  expect([act.mock.calls, close.mock.calls]).toEqual([[], []]);
  press('Escape', document.body, { ctrlKey: true });
  expect(close).not.toHaveBeenCalled();
  // A choice that was tapped keeps the focus, and letters are the page's.
  press('x', screen.getByLabelText('Choice'));
  expect(act.mock.calls.at(-1)).toEqual(['x']);
});

test('what was acted on is done with; what was not is left to others', () => {
  const { press } = show(false);
  expect(press('x')).toBe(false);
  expect(press('y')).toBe(true);
  const prevented = new KeyboardEvent('keydown', { key: 'x', bubbles: true, cancelable: true });
  prevented.preventDefault();
  document.body.dispatchEvent(prevented);
});
