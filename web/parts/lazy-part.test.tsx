import { render, screen } from '@testing-library/react';
import { useLayoutEffect } from 'react';
import { fetchParts, lazyModule, lazyPart } from './lazy-part';

/** A promise that is kept at once, as one that was kept between two steps of React looks to it. */
const atOnce = <T,>(value: T): Promise<T> =>
  ({
    then: (done: (value: T) => unknown) => atOnce(done(value)),
    finally: (done: () => unknown) => {
      done();
      return atOnce(value);
    },
    catch: () => atOnce(value),
  }) as unknown as Promise<T>;

test('a part whose code comes after it was drawn waiting, and before it looks for it, is shown all the same', async () => {
  const Part = lazyPart('A part', () => atOnce({ default: () => <p>here</p> }), <p>waiting</p>);
  function Beside() {
    useLayoutEffect(() => void fetchParts(), []);
    return null;
  }
  render(
    <>
      <Part />
      <Beside />
    </>,
  );
  expect(await screen.findByText('here')).toBeDefined();
});

test('sums that come later are fetched once, by the idle page or by who needs them, and tell when they are there', async () => {
  let fetched = 0;
  const sums = lazyModule(() => {
    fetched += 1;
    return Promise.resolve({ twice: (value: number) => 2 * value });
  });
  const calls: number[] = [];
  sums.subscribe(() => calls.push(sums.get()!.twice(2)));
  expect(sums.get()).toBeNull();
  await fetchParts();
  await sums.fetch();
  expect([fetched, ...calls]).toEqual([1, 4]);
});
