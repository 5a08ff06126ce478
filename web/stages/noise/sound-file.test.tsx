import { act, fireEvent, screen } from '@testing-library/react';
import { DEMO } from '../../../core/test/demo';
import { onBench, type OnBench, settle } from '../../test/bench-page';

jest.mock('../../state/run-core', () => jest.requireActual('../../test/core-here'));

const ledger = (bench: OnBench) => bench.part('ledger').textContent ?? '';

async function give(bytes: Uint8Array, name: string) {
  const file = new File([bytes as Uint8Array<ArrayBuffer>], name);
  // What jsdom's files lack.
  Object.assign(file, { arrayBuffer: () => Promise.resolve(bytes.buffer) });
  const input = document.querySelector<HTMLInputElement>('aside.ledger input[type="file"]')!;
  await act(async () => void fireEvent.change(input, { target: { files: [file] } }));
  await settle();
}

test('a file that is refused is named, and the sound before it is not shown as if it were the file', async () => {
  const bench = await onBench(DEMO.rescue, 'noise');
  await bench.press('Simulated');
  await bench.press('Listen to the simulated bay');
  await settle(6);
  expect(ledger(bench)).toMatch(/one standard deviation/);
  await bench.press('Sound file');
  await give(new TextEncoder().encode('RIFF and then nothing of a sound at all'), 'squeal.wav');
  expect(screen.getByRole('alert').textContent).toMatch(/file/i);
  expect(ledger(bench)).not.toMatch(/one standard deviation/);
});
