/** @jest-environment jsdom */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter, Route, Routes } from 'react-router';
import { microphone } from '../sound/microphone';
import TakePage from './TakePage';
import type { Take, TakeKind, TakeState } from '@emery/core/api';
import { readWav, type Sound } from '@emery/core/sound';

/* A phone that scanned the bench's code: what it says it sent has been sent, and what did not go is not lost. */

jest.mock('../sound/microphone');

HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
  this.open = true;
};

interface Sent {
  method: string;
  path: string;
  body: unknown;
}
let sent: Sent[];
/** What is answered instead, once each. */
let refusals: { path: RegExp; status: number; detail: string }[];

function answerTo(method: string, path: string, body: unknown): { status: number; text: string } {
  const at = refusals.findIndex((refusal) => method !== 'GET' && refusal.path.test(path));
  if (method !== 'GET') sent.push({ method, path, body });
  const [refusal] = at < 0 ? [] : refusals.splice(at, 1);
  if (refusal) return { status: refusal.status, text: JSON.stringify({ title: 'No', detail: refusal.detail }) };
  return { status: 200, text: JSON.stringify(take) };
}

globalThis.fetch = jest.fn(async (path: string, { method = 'GET', body }: { method?: string; body?: string } = {}) => {
  const { status, text } = answerTo(method, path, body && JSON.parse(body));
  return { ok: status < 300, status, headers: new Headers(), text: () => Promise.resolve(text) };
}) as never;

class Request {
  upload: { onprogress?: (event: object) => void } = {};
  status = 0;
  responseText = '';
  onload: () => void = () => undefined;
  private asked = { method: '', path: '' };
  open = (method: string, path: string) => (this.asked = { method, path });
  setRequestHeader = () => undefined;
  send = (body: Blob) => {
    this.upload.onprogress?.({ loaded: body.size / 2, total: body.size });
    const { status, text } = answerTo(this.asked.method, this.asked.path, body);
    Object.assign(this, { status, responseText: text });
    setTimeout(() => this.onload());
  };
}
Object.assign(globalThis, { XMLHttpRequest: Request });

let take: Take;
function open(kind: TakeKind, state: TakeState = 'asked') {
  [sent, refusals] = [[], []];
  const about = { from: 'bench-device', to: null, by: 'Anna', label: 'Belt plucked at mid-span', unit: 'mm' };
  take = { id: 'take-1', ...about, kind, state, part: 0, result: null };
  render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      <MemoryRouter initialEntries={['/take/take-1']}>
        <Routes>
          <Route path="/take/:takeId" element={<TakePage />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}
const states = () => sent.filter(({ method }) => method === 'PATCH').map(({ body }) => (body as Take).state);
const press = async (name: string) => userEvent.click(await screen.findByRole('button', { name }));

test('put away, it says that nothing was sent, and the bench is told', async () => {
  open('reading');
  await press('Cancel');
  expect(screen.getByRole('status').textContent).toBe('Cancelled. Nothing was sent.');
  expect(states()).toEqual(['seen', 'none']);
});

test('a reading that the bench no longer waits for is told and stays written; one that arrives is told', async () => {
  open('reading');
  await userEvent.type(await screen.findByRole('textbox'), '493.5');
  refusals = [{ path: /take-1$/, status: 409, detail: 'This request was cancelled at the bench.' }];
  await press('Send to the bench');
  expect((await screen.findByRole('alert')).textContent).toBe('Not sent. This request was cancelled at the bench.');
  expect(screen.getByRole<HTMLInputElement>('textbox').value).toBe('493.5');
  await press('Send to the bench');
  expect((await screen.findByRole('status')).textContent).toMatch(/On the bench/);
  expect(sent.at(-1)!.body).toEqual({ state: 'done', part: 100, result: { text: '493.5' } });
});

test.each(['done', 'none'] as const)('one that is over is told, whatever came of it: %s', async (state) => {
  open('picture', state);
  expect((await screen.findByRole('status')).textContent).toBe('This request is over. Ask again from the bench.');
  expect(screen.queryByRole('dialog', { hidden: true })).toBeNull();
  expect(sent).toEqual([]);
});

test('a recording that did not arrive is kept and sent again, the same', async () => {
  const sound: Sound = { samples: Float64Array.from({ length: 800 }, (_, k) => Math.sin(k / 9)), rate: 8000 };
  const listen = (stop: AbortSignal) =>
    new Promise<Sound>((resolve) => stop.addEventListener('abort', () => resolve(sound)));
  jest.mocked(microphone).mockReturnValue({ name: 'Microphone', simulated: false, listen });
  open('sound');
  refusals = [{ path: /bytes$/, status: 503, detail: 'The database is away.' }];
  await press('Stop and send');
  expect((await screen.findByRole('alert')).textContent).toBe('The database is away.');
  await press('Send again');
  expect((await screen.findByRole('status')).textContent).toMatch(/On the bench/);
  const wavs = sent.filter(({ path }) => path.endsWith('bytes')).map(({ body }) => body as Blob);
  expect(wavs).toHaveLength(2);
  expect(wavs[1]!.type).toBe('audio/wav');
  const bytes = await new Promise<ArrayBuffer>((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as ArrayBuffer);
    reader.readAsArrayBuffer(wavs[1]!);
  });
  expect(readWav(new Uint8Array(bytes))).toMatchObject({ ok: true, sound: { rate: 8000 } });
});

test('without a microphone it says so and can be tried again', async () => {
  const refused = () => Promise.reject(new Error('Record with a phone'));
  jest.mocked(microphone).mockReturnValue({ name: 'Microphone', simulated: false, listen: refused });
  open('sound');
  expect((await screen.findByRole('alert')).textContent).toMatch(/^No microphone here/);
  await act(() => Promise.resolve());
  await press('Record');
  expect(jest.mocked(microphone).mock.calls.length).toBeGreaterThan(1);
  expect(states()).not.toContain('sending');
});
