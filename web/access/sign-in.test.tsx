import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { whoIsThere } from '../jobs/who';
import AccessNotices from './AccessNotices';
import { clockOff, newVersion, signedOut } from './here';
import { SignIn } from './SignIn';

const ME = { role: 'bench', name: 'Tam', machine: false, job: null, owned: true };

/** A server that answers each address once as it is told, then lets in. */
function serve(answers: Record<string, { status: number; body: object }[]> = {}) {
  const sent: { path: string; body: unknown }[] = [];
  globalThis.fetch = jest.fn((address: string, { body }: RequestInit = {}) => {
    const path = address.replace('/api', '');
    if (body !== undefined) sent.push({ path, body: JSON.parse(body as string) as unknown });
    const { status, body: said } = answers[path]?.shift() ?? {
      ...{ status: 200, body: path === '/access/redeem' ? { me: ME, place: '/drives/d1/tension' } : ME },
    };
    return Promise.resolve({
      ok: status < 400,
      status,
      headers: new Headers(),
      text: async () => JSON.stringify(said),
    });
  }) as never;
  return sent;
}
const field = (name: RegExp | string) => screen.getByLabelText<HTMLInputElement>(name, { selector: 'input' });
const button = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name });
const refusal = (detail: string, errors?: object[]) => ({ status: 403, body: { title: 'x', detail, errors } });

test('by name and passphrase: refused in words, with what was typed still there, then in', async () => {
  const sent = serve({ '/access/sign-in': [refusal('Name and passphrase do not belong together.')] });
  const onIn = jest.fn();
  render(<SignIn onIn={onIn} />);
  expect(button('Sign in').disabled).toBe(true);
  await userEvent.type(field('Name'), ' Tam ');
  expect(button('Sign in').disabled).toBe(true);
  await userEvent.type(field('Passphrase'), 'wrong{Enter}');
  expect((await screen.findByRole('alert')).textContent).toBe('Name and passphrase do not belong together.');
  expect([field('Name').value, field('Passphrase').value]).toEqual([' Tam ', 'wrong']);
  expect(field('Passphrase').type).toBe('password');
  await userEvent.clear(field('Passphrase'));
  await userEvent.type(field('Passphrase'), 'four wet belts{Enter}');
  await waitFor(() => expect(onIn).toHaveBeenCalledWith(ME, null));
  expect(sent.map(({ body }) => body)).toEqual([
    { name: 'Tam', passphrase: 'wrong' },
    { name: 'Tam', passphrase: 'four wet belts' },
  ]);
  expect(screen.queryByRole('alert')).toBeNull();
});

test('by six digits, however they are spaced; fewer are not sent', async () => {
  const sent = serve({ '/access/redeem': [refusal('This code is not good, or no longer.')] });
  const onIn = jest.fn();
  render(<SignIn onIn={onIn} digitsFirst />);
  expect(document.querySelector('input')).toBe(field(/Six digits/));
  await userEvent.type(field(/Six digits/), '042 91');
  expect(button('Use the digits').disabled).toBe(true);
  await userEvent.type(field(/Six digits/), '7{Enter}');
  expect((await screen.findByRole('alert')).textContent).toBe('This code is not good, or no longer.');
  await userEvent.click(button('Use the digits'));
  await waitFor(() => expect(onIn).toHaveBeenCalledWith(ME, '/drives/d1/tension'));
  expect(sent.map(({ body }) => body)).toEqual([{ digits: '042917' }, { digits: '042917' }]);
});

test('the first owner: each field says what is wrong with it', async () => {
  const errors = [{ path: 'passphrase', message: 'must be 10 characters or more' }];
  const sent = serve({ '/access/first': [refusal('x', errors)] });
  const onIn = jest.fn();
  render(<SignIn onIn={onIn} ownerCode="code" />);
  await userEvent.type(field('Name'), 'Ines');
  await userEvent.type(field(/^Passphrase/), 'short');
  await userEvent.click(button('Become the owner'));
  const alert = await screen.findByRole('alert');
  expect(alert.textContent).toBe('Passphrase, 10 characters or more: must be 10 characters or more');
  expect(field(/^Passphrase/).getAttribute('aria-invalid')).toBe('true');
  expect(field('Name').getAttribute('aria-invalid')).toBe('false');
  await userEvent.click(button('Become the owner'));
  await waitFor(() => expect(onIn).toHaveBeenCalledWith(ME, null));
  expect(sent[1]!.body).toEqual({ name: 'Ines', passphrase: 'short', code: 'code' });
});

describe('over a page', () => {
  function show() {
    const client = new QueryClient();
    render(
      <QueryClientProvider client={client}>
        <MemoryRouter initialEntries={['/belts']}>
          <AccessNotices />
          <Routes>
            <Route path="/drives/:id/:stage" element={<p>The drive</p>} />
            <Route path="*" element={<input aria-label="Written" defaultValue="half a remark" />} />
          </Routes>
        </MemoryRouter>
      </QueryClientProvider>,
    );
    return client;
  }
  afterEach(() =>
    act(() => {
      signedOut.set(null);
      clockOff.set(0);
      newVersion.set(false);
    }),
  );

  test('who was signed out signs in again over what was written, and everything is asked for anew', async () => {
    serve();
    signedOut.set({ why: 'idle', words: 'Nobody had used it for three days.' });
    const client = show();
    const again = jest.spyOn(client, 'invalidateQueries');
    const dialog = screen.getByLabelText('Sign in', { selector: 'dialog' });
    expect(dialog.textContent).toContain(
      'Nobody had used it for three days. What was typed is still here, beneath this.',
    );
    expect(field('Written').value).toBe('half a remark');
    await userEvent.type(field('Name'), 'Tam');
    await userEvent.type(field('Passphrase'), 'four wet belts{Enter}');
    await waitFor(() => expect(signedOut.get()).toBeNull());
    expect(again).toHaveBeenCalledWith();
    expect(screen.queryByLabelText('Passphrase')).toBeNull();
    expect(field('Written').value).toBe('half a remark');
    // Technician is filled in.
    expect(whoIsThere()).toBe('Tam');
  });

  test('by digits it goes to the page that they were shown at', async () => {
    serve();
    signedOut.set({ why: 'none', words: 'This device is not signed in.' });
    show();
    expect(screen.queryByText(/still here/)).toBeNull();
    await userEvent.type(field(/Six digits/), '042917{Enter}');
    await screen.findByText('The drive');
  });

  test('a clock that is off and a new version are told until they are put away, and again when they change', async () => {
    clockOff.set(12);
    show();
    const notice = () => screen.queryByRole('status', { name: 'About this device' });
    expect(notice()!.textContent).toContain('12 minutes ahead');
    await userEvent.click(button('Hide'));
    expect(notice()).toBeNull();
    act(() => newVersion.set(true));
    await waitFor(() => expect(notice()?.textContent).toContain('Emery was updated.'));
    button('Reload');
  });
});
