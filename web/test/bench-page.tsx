import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render } from '@testing-library/react';
import { randomLcg } from 'd3-random';
import { MemoryRouter, Route, Routes, useLocation, useNavigate } from 'react-router';
import { useEffect, type ReactNode } from 'react';
import BenchPage from '../bench/BenchPage';
import { openDriveOf } from '../state/open-drives';
import Dress from '../theme/Dress';
import { DRIVE_ID, fakeServer, type FakeServer, type Opened } from './fake-server';
import { controlsOf, namer, seen } from './seen';
import type { Drive } from '@emery/core/drive';

/** The day of every test of a page. */
export const TODAY = '2026-11-20T09:00:00.000Z';
/** Everything is as large as this, as nothing is laid out here. */
const SIZE = { width: 800, height: 300 };
class Sized {
  constructor(private readonly tell: ResizeObserverCallback) {}
  observe = () => void setTimeout(() => this.tell([{ contentRect: SIZE } as ResizeObserverEntry], this as never), 0);
  unobserve = () => undefined;
  disconnect = () => undefined;
}

for (const side of ['width', 'height'] as const)
  Object.defineProperty(SVGElement.prototype, side, {
    configurable: true,
    get: () => ({ baseVal: { value: SIZE[side] } }),
  });
/** Nothing is heard here; what is played ends at once. */
class Silent {
  destination = {};
  currentTime = 0;
  state = 'running';
  resume = () => Promise.resolve();
  close = () => Promise.resolve();
  createBuffer = () => ({ copyToChannel: () => undefined, getChannelData: () => new Float32Array(1) });
  createBufferSource = () => ({
    connect: () => undefined,
    start: () => undefined,
    stop: () => undefined,
    addEventListener: () => undefined,
  });
}
Object.assign(globalThis, { AudioContext: Silent });
Object.assign(URL, { createObjectURL: () => 'blob:made', revokeObjectURL: () => undefined });
window.print = () => undefined;
HTMLCanvasElement.prototype.getContext = () => null;
Object.assign(Element.prototype, { scrollIntoView: () => undefined, setPointerCapture: () => undefined });
window.matchMedia ??= ((media: string) => ({
  matches: false,
  media,
  addListener: () => undefined,
  removeListener: () => undefined,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
})) as never;

/** Time that everything needs to come to rest: what is gathered, tried again, faded in. */
export async function settle(rounds = 4): Promise<void> {
  // What a timer changes is drawn when `act` ends, and may wait for another timer.
  for (let round = 0; round < rounds; round += 1)
    await act(async () => {
      await jest.advanceTimersByTimeAsync(250);
    });
}

/** A page as a person has it before them, with a server that takes what is sent. */
export interface OnPage {
  server: FakeServer;
  /** All that is drawn. */
  page: Element;
  /** The drive it is about; the same empty one where it is about none. */
  drive: () => Drive;
  /** The address it stands at. */
  place: () => string;
  go: (to: string) => Promise<void>;
  press: (name: string | RegExp) => Promise<void>;
  write: (field: string | RegExp, text: string) => Promise<void>;
  undoAll: () => Promise<void>;
}

/** A drive on the bench. */
export interface OnBench extends OnPage {
  part: (part: keyof typeof PARTS) => Element;
  /** What is seen of a part. */
  seen: (part: keyof typeof PARTS) => string[];
}

const PARTS = { ledger: 'aside.ledger', chart: '.bench-parts > .unrolled', front: '.bench-parts > .front-view' };

/** Where the page stands, and the way to another. */
let way: { place: string; go: (to: string) => void } = { place: '', go: () => undefined };
function Way() {
  const { pathname, search } = useLocation();
  const navigate = useNavigate();
  useEffect(() => {
    way = { place: `${pathname}${search}`, go: (to) => void navigate(to) };
  });
  return null;
}

const NO_DRIVE = { name: 'none' } as Drive;

/** Opens a page at an address; `routes` are those that it may show. */
export async function onPage(address: string, routes: ReactNode, opened: Partial<Opened> = {}): Promise<OnPage> {
  jest.useFakeTimers({ now: new Date(TODAY) });
  cleanup();
  // What is made up by chance is the same each time.
  const draw = randomLcg(0.7);
  jest.spyOn(Math, 'random').mockImplementation(draw);
  globalThis.ResizeObserver = Sized as never;
  const server = fakeServer({ id: DRIVE_ID, document: NO_DRIVE, unit: 'mm', ...opened });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  const { container } = render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[address]}>
        <Way />
        <Routes>
          {routes}
          <Route path="*" element={<p>Another page</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await settle(8);
  const find = (name: string | RegExp) => {
    const nameOf = namer();
    const all = [container, ...document.querySelectorAll('.ant-modal')].flatMap(controlsOf);
    const found = all.find((element) =>
      typeof name === 'string' ? nameOf(element) === name : name.test(nameOf(element)),
    );
    if (!found) throw new Error(`no ${String(name)} among ${all.map(nameOf).join(' | ').slice(0, 3000)}`);
    return found;
  };
  return {
    server,
    page: container,
    drive: () => NO_DRIVE,
    place: () => way.place,
    go: async (to) => {
      act(() => way.go(to));
      await settle(6);
    },
    press: async (name) => {
      fireEvent.click(find(name));
      await settle();
    },
    write: async (name, text) => {
      const field = find(name);
      fireEvent.focus(field);
      fireEvent.change(field, { target: { value: text } });
      fireEvent.keyDown(field, { key: 'Enter' });
      await settle();
    },
    undoAll: () => Promise.resolve(),
  };
}

export async function onBench(document: Drive, stage: string, unit: 'mm' | 'in' = 'mm'): Promise<OnBench> {
  const bench = await onPage(
    `/drives/${DRIVE_ID}/${stage}`,
    <Route element={<Dress />}>
      <Route path="/drives/:driveId/:stage?" element={<BenchPage />} />
    </Route>,
    { document, unit },
  );
  const part = (name: keyof typeof PARTS) => {
    const found = bench.page.querySelector(PARTS[name]);
    if (!found) throw new Error(`there is no ${name}: ${bench.page.textContent?.slice(0, 200)}`);
    return found;
  };
  const { store } = openDriveOf(DRIVE_ID)!;
  return {
    ...bench,
    part,
    seen: (name) => seen(part(name)),
    drive: () => store.get().present,
    undoAll: async () => {
      if (store.get().past.length === 0) return;
      act(() => {
        while (store.get().past.length > 0) store.dispatch({ type: 'undo' });
      });
      await settle(2);
    },
  };
}
