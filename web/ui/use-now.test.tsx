import { act, renderHook } from '@testing-library/react';
import { useNow } from './use-now';

beforeEach(() => jest.useFakeTimers({ now: 1_000_000 }));
afterEach(() => jest.useRealTimers());

test('the time goes on by the second until then, and no timer runs after', () => {
  const { result, rerender } = renderHook(({ until }: { until: number | null }) => useNow(until), {
    initialProps: { until: null as number | null },
  });
  act(() => jest.advanceTimersByTime(5000));
  expect(result.current.now).toBe(1_000_000);
  expect(jest.getTimerCount()).toBe(0);
  let at = 0;
  act(() => void (at = result.current.look()));
  expect(at).toBe(1_005_000);
  rerender({ until: at + 3000 });
  act(() => jest.advanceTimersByTime(2000));
  expect(result.current.now).toBe(1_007_000);
  for (let second = 0; second < 10; second += 1) act(() => jest.advanceTimersByTime(1000));
  expect(result.current.now).toBe(1_008_000);
  expect(jest.getTimerCount()).toBe(0);
});

test('one without an end goes on until it is stopped', () => {
  const { result, rerender, unmount } = renderHook(({ until }: { until: number | null }) => useNow(until), {
    initialProps: { until: Infinity as number | null },
  });
  act(() => jest.advanceTimersByTime(60_000));
  expect(result.current.now).toBe(1_060_000);
  rerender({ until: null });
  expect(jest.getTimerCount()).toBe(0);
  rerender({ until: Infinity });
  unmount();
  expect(jest.getTimerCount()).toBe(0);
});
