import { ReadableStream } from 'node:stream/web';
import { TextDecoder, TextEncoder } from 'node:util';
import { readingIn, serialTachometer, simulatedTachometer, type SerialSource } from './tachometer';

Object.assign(globalThis, { TextDecoder, TextEncoder });

const portOf = (...pieces: string[]): SerialSource => ({
  readable: new ReadableStream({
    start: (controller) => {
      for (const piece of pieces) controller.enqueue(new TextEncoder().encode(piece));
      controller.close();
    },
  }) as unknown as SerialSource['readable'],
});

test('a line of text is a reading where it holds one figure', () => {
  expect([
    readingIn('RPM 2117'),
    readingIn('2117.4 rpm'),
    readingIn('2 of 3'),
    readingIn('----'),
    readingIn('900000'),
  ]).toEqual([2117, 2117.4, null, null, null]);
});

test('the serial tachometer skips the line it came in on, and lines without a reading', async () => {
  await expect(serialTachometer(portOf('17\r\nba', 'ttery ok\r\n21', '17.5\r\n2118\r\n')).read()).resolves.toBe(2117.5);
});

test('without a reading, or with a closed port, it says so', async () => {
  await expect(serialTachometer(portOf('noise\nmore\n')).read()).rejects.toThrow(/No reading/);
  await expect(serialTachometer({ readable: null }).read()).rejects.toThrow(/closed/);
});

test('the simulated one reads about the true speed, in whole turns, and says what it is', async () => {
  const tachometer = simulatedTachometer(
    () => 5000,
    () => 0.5,
  );
  expect(tachometer.simulated).toBe(true);
  const rpm = await tachometer.read();
  expect(Number.isInteger(rpm)).toBe(true);
  expect(Math.abs(rpm - 5000)).toBeLessThan(15);
  await expect(simulatedTachometer(() => 0).read()).rejects.toThrow(/engine is stopped/);
});
