import { fireEvent, screen } from '@testing-library/react';
import { DEMO } from '../../../core/test/demo';
import { onBench, settle } from '../../test/bench-page';

jest.mock('../../state/run-core', () => jest.requireActual('../../test/core-here'));

async function show() {
  const bench = await onBench(DEMO.rescue, 'speeds');
  await bench.press('Use');
  await bench.press('Traffic');
  const bar = () => screen.getAllByRole('slider').filter((slider) => slider.classList.contains('use-bar'))[2]!;
  return { bench, bar, share: () => Number(bar().getAttribute('aria-valuenow')) };
}
function pointer(type: 'pointerdown' | 'pointermove' | 'pointerup', at: Element, pointerId: number, clientY: number) {
  // jsdom's pointers have no number.
  const event = new MouseEvent(type, { bubbles: true, clientY, button: 0 });
  fireEvent(at, Object.defineProperty(event, 'pointerId', { value: pointerId }));
}

test('a bar follows the finger that holds it, as one step, and stays when it is let go', async () => {
  const { bench, bar, share } = await show();
  const [before, drive] = [share(), bench.drive()];
  pointer('pointerdown', bar(), 1, 150);
  for (const y of [120, 90, 60]) pointer('pointermove', bar(), 1, y);
  const held = share();
  expect(held).toBeGreaterThan(before);
  pointer('pointerup', bar(), 1, 60);
  pointer('pointermove', bar(), 1, 250);
  await settle(1);
  expect(share()).toBe(held);
  expect(bench.drive().use?.bins).not.toEqual(drive.use?.bins);
  await bench.press('Undo');
  expect(bench.drive()).toBe(drive);
});

test('a pointer that only passes over a bar, or another finger, moves nothing', async () => {
  const { bench, bar, share } = await show();
  const [before, drive] = [share(), bench.drive()];
  for (const y of [120, 60]) pointer('pointermove', bar(), 0, y);
  pointer('pointerdown', bar(), 1, 150);
  pointer('pointermove', bar(), 2, 40);
  expect(share()).toBe(before);
  expect(bench.drive()).toBe(drive);
});

test('every arrow and page key moves a bar its own way', async () => {
  const { bar, share } = await show();
  for (const [key, by] of [
    ['ArrowUp', 1],
    ['ArrowRight', 1],
    ['PageUp', 10],
    ['ArrowDown', -1],
    ['ArrowLeft', -1],
    ['PageDown', -10],
    ['x', 0],
  ] as const) {
    const before = share();
    fireEvent.keyDown(bar(), { key });
    await settle(1);
    expect(Math.sign(share() - before)).toBe(Math.sign(by));
    expect(Math.abs(share() - before - by)).toBeLessThan(Math.abs(by) / 4 + 0.2);
  }
});
