import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render } from '@testing-library/react';
import { randomLcg } from 'd3-random';
import { MemoryRouter, Route, Routes, useLocation, useNavigate } from 'react-router';
import { useEffect } from 'react';
import BenchPage from '../bench/BenchPage';
import { openDriveOf } from '../state/open-drives';
import Dress from '../theme/Dress';
import { fakeServer, type FakeServer } from './fake-server';
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

const ID = '00000000-0000-4000-8000-00000000d001';

/** Time that everything needs to come to rest: what is gathered, tried again, faded in. */
export async function settle(rounds = 4): Promise<void> {
  // What a timer changes is drawn when `act` ends, and may wait for another timer.
  for (let round = 0; round < rounds; round += 1)
    await act(async () => {
      await jest.advanceTimersByTimeAsync(250);
    });
}

/** A drive on the bench as a person has it before them, with a server that takes what is saved. */
export interface OnBench {
  server: FakeServer;
  drive: () => Drive;
  /** What is seen of the ledger, the chart, or the drawing. */
  seen: (part: 'ledger' | 'chart' | 'front') => string[];
  part: (part: 'ledger' | 'chart' | 'front') => Element;
  /** The address the page stands at. */
  place: () => string;
  go: (to: string) => Promise<void>;
  press: (name: string | RegExp) => Promise<void>;
  write: (field: string | RegExp, text: string) => Promise<void>;
  undoAll: () => Promise<void>;
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

export async function onBench(document: Drive, stage: string, unit: 'mm' | 'in' = 'mm'): Promise<OnBench> {
  jest.useFakeTimers({ now: new Date(TODAY) });
  cleanup();
  // What is made up by chance is the same each time.
  const draw = randomLcg(0.7);
  jest.spyOn(Math, 'random').mockImplementation(draw);
  globalThis.ResizeObserver = Sized as never;
  const server = fakeServer({ id: ID, document, unit });
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  const { container } = render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[`/drives/${ID}/${stage}`]}>
        <Way />
        <Routes>
          <Route element={<Dress />}>
            <Route path="/drives/:driveId/:stage?" element={<BenchPage />} />
          </Route>
          <Route path="*" element={<p>Another page</p>} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await settle(8);
  const part = (name: keyof typeof PARTS) => {
    const found = container.querySelector(PARTS[name]);
    if (!found) throw new Error(`there is no ${name}: ${container.textContent?.slice(0, 200)}`);
    return found;
  };
  const { store } = openDriveOf(ID)!;
  const find = (name: string | RegExp) => {
    const nameOf = namer();
    const found = controlsOf(container).filter((element) =>
      typeof name === 'string' ? nameOf(element) === name : name.test(nameOf(element)),
    );
    if (found.length === 0)
      throw new Error(`no ${String(name)} among ${controlsOf(container).map(nameOf).join(' | ').slice(0, 3000)}`);
    return found[0]!;
  };
  return {
    server,
    drive: () => store.get().present,
    part,
    seen: (name) => seen(part(name)),
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
    undoAll: async () => {
      if (store.get().past.length === 0) return;
      act(() => {
        while (store.get().past.length > 0) store.dispatch({ type: 'undo' });
      });
      await settle(2);
    },
  };
}
