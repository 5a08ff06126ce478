import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useCoreRun, useCoreSum } from './use-core-sum';
import { type Drive, newDrive } from '@emery/core/drive';

jest.mock('./run-core', () => ({
  // Jest has no workers: the promise is settled by the test, as the worker's messages would.
  runCore: (task: string, input: unknown, options: { signal?: AbortSignal; onProgress?: (fraction: number) => void }) =>
    new Promise((resolve, reject) => {
      const run: Run = { task, input, resolve, reject, progress: options.onProgress!, ended: false };
      options.signal?.addEventListener('abort', () => {
        run.ended = true;
        reject(options.signal!.reason as Error);
      });
      mockRuns.push(run);
    }),
}));

interface Run {
  task: string;
  input: unknown;
  resolve: (output: unknown) => void;
  reject: (error: Error) => void;
  progress: (fraction: number) => void;
  ended: boolean;
}
const mockRuns: Run[] = [];
beforeEach(() => void (mockRuns.length = 0));

const client = new QueryClient({ defaultOptions: { queries: { networkMode: 'always' } } });
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
const follow = (drive: Drive | null, rest = 0) =>
  renderHook(({ input }) => useCoreSum('survey', input, rest), { wrapper, initialProps: { input: drive } });
const latest = () => mockRuns.at(-1)!;

test('what is not wanted does not run', async () => {
  const { result } = follow(null);
  await act(async () => new Promise((done) => setTimeout(done, 30)));
  expect(mockRuns).toHaveLength(0);
  expect(result.current).toEqual({ found: null, progress: null, stopped: null });
});

test('progress, then the outcome with what it was worked out from; another input is another run', async () => {
  const [first, second] = [newDrive('one'), newDrive('two')];
  const { result, rerender } = follow(first);
  await waitFor(() => expect(mockRuns).toHaveLength(1));
  act(() => latest().progress(0.4));
  await waitFor(() => expect(result.current.progress).toBe(0.4));
  await act(async () => latest().resolve('fit of one'));
  await waitFor(() =>
    expect(result.current).toMatchObject({ found: { input: first, output: 'fit of one' }, progress: null }),
  );
  rerender({ input: second });
  await waitFor(() => expect(mockRuns).toHaveLength(2));
  // Until the next is there the last one stands, and says whose it is.
  expect(result.current.found).toMatchObject({ input: first });
  await act(async () => latest().resolve('fit of two'));
  await waitFor(() => expect(result.current.found).toMatchObject({ input: second, output: 'fit of two' }));
});

test('a run that is no longer wanted is ended', async () => {
  const { rerender } = follow(newDrive('left'));
  await waitFor(() => expect(mockRuns).toHaveLength(1));
  rerender({ input: newDrive('next') });
  await waitFor(() => expect(mockRuns[0]!.ended).toBe(true));
});

test('a fault is told with its reason, and can be tried again', async () => {
  const { result } = follow(newDrive('faulty'));
  await waitFor(() => expect(mockRuns).toHaveLength(1));
  await act(async () => latest().reject(new Error('the worker is gone')));
  await waitFor(() => expect(result.current.stopped?.why).toBe('the worker is gone'));
  act(() => result.current.stopped!.again());
  await waitFor(() => expect(mockRuns).toHaveLength(2));
  await act(async () => latest().resolve('there'));
  await waitFor(() => expect(result.current).toMatchObject({ found: { output: 'there' }, stopped: null }));
});

test('a sum that waits for the hand to rest runs once for the last of many', async () => {
  // By a clock of its own: on a busy machine ten milliseconds may well be sixty.
  jest.useFakeTimers();
  try {
    const pass = (ms: number) => act(async () => jest.advanceTimersByTimeAsync(ms));
    const { rerender } = follow(newDrive('0'), 60);
    for (let k = 1; k < 6; k += 1) {
      rerender({ input: newDrive(String(k)) });
      await pass(59);
    }
    expect(mockRuns).toHaveLength(0);
    await pass(1);
    expect(mockRuns).toHaveLength(1);
    expect((latest().input as Drive).name).toBe('5');
    await pass(1000);
    expect(mockRuns).toHaveLength(1);
  } finally {
    jest.useRealTimers();
  }
});

test('a sum that is asked for: done, called off, and failed', async () => {
  const outcomes: unknown[] = [];
  const { result, unmount } = renderHook(() => useCoreRun('survey', (output) => outcomes.push(output)), { wrapper });
  act(() => result.current.run(newDrive('asked')));
  await waitFor(() => expect(result.current.progress).toBe(0));
  await act(async () => latest().resolve('answer'));
  await waitFor(() => expect(outcomes).toEqual(['answer']));
  act(() => result.current.run(newDrive('called off')));
  await waitFor(() => expect(mockRuns).toHaveLength(2));
  act(() => result.current.cancel());
  expect(mockRuns[1]!.ended).toBe(true);
  await waitFor(() => expect(result.current).toMatchObject({ progress: null, stopped: null }));
  act(() => result.current.run(newDrive('failed')));
  await waitFor(() => expect(mockRuns).toHaveLength(3));
  await act(async () => latest().reject(new Error('no room')));
  await waitFor(() => expect(result.current.stopped?.why).toBe('no room'));
  act(() => result.current.stopped!.again());
  await waitFor(() => expect(mockRuns).toHaveLength(4));
  unmount();
  expect(latest().ended).toBe(true);
});
