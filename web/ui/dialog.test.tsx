import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Button, Dropdown } from 'antd';
import { useRef, useState } from 'react';
import { Dialog } from './Dialog';

/** A page with a button that opens a dialog, as all of Emery's do: mounted open, and gone at once. */
function Page({ from = 'button', gone = false }: { from?: 'button' | 'menu'; gone?: boolean }) {
  const [open, setOpen] = useState(false);
  const [left, setLeft] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const opener =
    from === 'button' ? (
      <button onClick={() => setOpen(true)}>Open it</button>
    ) : (
      <Dropdown trigger={['click']} menu={{ items: [{ key: 'a', label: 'Open it' }], onClick: () => setOpen(true) }}>
        <Button>More</Button>
      </Dropdown>
    );
  return (
    <main>
      {!left && opener}
      <input aria-label="Other" />
      {open && (
        <Dialog title="Sheet" first={field} onClose={() => setOpen(false)}>
          <input ref={field} aria-label="Name" />
          <button
            onClick={() => {
              setOpen(false);
              setLeft(gone);
            }}
          >
            Done
          </button>
        </Dialog>
      )}
    </main>
  );
}

const focused = () => document.activeElement;
const settled = () => act(() => new Promise((resolve) => setTimeout(resolve, 30)));

test.each([
  ['its own cross', () => userEvent.click(screen.getByRole('button', { name: 'Close' }))],
  ['Escape', () => userEvent.keyboard('{Escape}')],
  ['what was done in it', () => userEvent.click(screen.getByRole('button', { name: 'Done' }))],
])('closed by %s, the focus is back at the button that opened it', async (_, close) => {
  render(<Page />);
  await userEvent.click(screen.getByRole('button', { name: 'Open it' }));
  await screen.findByRole('dialog', { name: 'Sheet' });
  await settled();
  await close();
  await settled();
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(focused()).toBe(screen.getByRole('button', { name: 'Open it' }));
});

test('opened from a list that fell down, the focus goes back to the button the list fell from', async () => {
  render(<Page from="menu" />);
  await userEvent.click(screen.getByRole('button', { name: 'More' }));
  await userEvent.click(await screen.findByText('Open it'));
  await screen.findByRole('dialog');
  await settled();
  await userEvent.click(screen.getByRole('button', { name: 'Done' }));
  await settled();
  expect(focused()).toBe(screen.getByRole('button', { name: 'More' }));
});

test('where the button is gone with what was done, the page itself has the focus: Tab goes on from there', async () => {
  render(<Page gone />);
  await userEvent.click(screen.getByRole('button', { name: 'Open it' }));
  await screen.findByRole('dialog');
  await userEvent.click(screen.getByRole('button', { name: 'Done' }));
  await settled();
  expect(focused()).toBe(screen.getByRole('main'));
  await userEvent.tab();
  expect(focused()).toBe(screen.getByLabelText('Other'));
});

test('it opens with its field in focus, and takes nothing from who has the focus meanwhile', async () => {
  render(<Page />);
  await userEvent.click(screen.getByRole('button', { name: 'Open it' }));
  await screen.findByRole('dialog');
  await settled();
  expect(focused()).toBe(screen.getByLabelText('Name'));
  screen.getByLabelText('Other').focus();
  act(() => screen.getByRole('button', { name: 'Done' }).click());
  await settled();
  expect(focused()).toBe(screen.getByLabelText('Other'));
});

test('opened by a key with nothing in focus, nothing is in focus after it: keys stay the page’s own', async () => {
  render(<Page />);
  screen.getByLabelText('Other').focus();
  screen.getByLabelText('Other').blur();
  act(() => screen.getByRole('button', { name: 'Open it' }).click());
  await screen.findByRole('dialog');
  await settled();
  act(() => screen.getByRole('button', { name: 'Done' }).click());
  await settled();
  expect(focused()).toBe(document.body);
});

test('one after which the next thing is done where it began has the focus back, whatever came in meanwhile', async () => {
  function Adding() {
    const [asking, setAsking] = useState(false);
    const [asked, setAsked] = useState(false);
    return (
      <>
        <button onClick={() => setAsking(true)}>Add</button>
        {asked && <input aria-label="Size" ref={(field) => field?.focus()} />}
        {asking && (
          <Dialog title="Which" stays onClose={() => setAsking(false)}>
            <button
              onClick={() => {
                setAsking(false);
                setAsked(true);
              }}
            >
              Crank
            </button>
          </Dialog>
        )}
      </>
    );
  }
  render(<Adding />);
  await userEvent.click(screen.getByRole('button', { name: 'Add' }));
  await screen.findByRole('dialog');
  await userEvent.click(screen.getByRole('button', { name: 'Crank' }));
  await settled();
  expect(focused()).toBe(screen.getByRole('button', { name: 'Add' }));
});
