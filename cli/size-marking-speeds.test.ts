import { readFileSync } from 'node:fs';
import { emery } from './test/emery';
import type { Drive } from '@emery/core/drive';
import { sizeBelt } from '@emery/core/seating';

const truck = 'demo/1-rescue-truck.emery.json';

test('size prints the window and each length as core has it', () => {
  const { status, stdout } = emery('size', truck, '--belt', 'main', '--lengths', '1780,1805,1900');
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as {
    window: object;
    candidates: {
      lengthMm: number;
      verdict: string;
      armAngle: number | null;
      position: number | null;
      tensionN: number | null;
      reserveMm: number;
    }[];
  };
  const sized = sizeBelt(JSON.parse(readFileSync(truck, 'utf8')) as Drive, 'main', { lengths: [1780, 1805, 1900] })!;
  expect(printed.window).toEqual(sized.window);
  expect(Object.keys(printed.window)).toEqual(['full', 'shortMark', 'longMark', 'free']);
  expect(printed.candidates.map(({ verdict }) => verdict)).toEqual(['tight', 'fits', 'out-of-travel']);
  printed.candidates.forEach((candidate, k) => {
    const { armAngle, position, tensionN, reserveMm } = sized.candidates[k]!;
    expect(candidate).toMatchObject({ armAngle, position, tensionN, reserveMm });
  });
});

test('a slot has a slack and a tight end', () => {
  const { window, candidates } = JSON.parse(
    emery('size', 'demo/2-hill-farm-pickup.emery.json', '--belt', 'inner').stdout,
  ) as { window: object; candidates: object[] };
  expect(Object.keys(window)).toEqual(['slackEnd', 'tightEnd']);
  expect(candidates.length).toBeGreaterThan(3);
});

test('marking prints its readings, and an empty list for nonsense', () => {
  expect(JSON.parse(emery('marking', '6PK1735').stdout)).toEqual({
    readings: [
      expect.objectContaining({
        section: 'PK',
        ribs: 6,
        widthMm: 21.36,
        lengthMm: 1735,
        basis: 'effective',
        scheme: 'ribs-PK-mm',
      }),
    ],
  });
  expect(JSON.parse(emery('marking', 'hello').stdout)).toEqual({ readings: [] });
});

test("speeds prints what every shaft turns at each engine speed, and each belt's pace", () => {
  const { status, stdout } = emery('speeds', 'demo/4-snow-groomer.emery.json', '--rpm', '850,2300');
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as {
    stations: { id: string; speedRatio: number; direction: string; rpm: number[] }[];
    belts: { id: string; beltSpeed: number[]; flexPerSecond: number[] }[];
  };
  expect(printed.stations[0]).toEqual({ id: 'crank', speedRatio: 1, direction: 'ccw', rpm: [850, 2300] });
  for (const { speedRatio, rpm } of printed.stations) expect(rpm).toEqual([850 * speedRatio, 2300 * speedRatio]);
  expect(printed.belts.map(({ id, beltSpeed, flexPerSecond }) => [id, beltSpeed.length, flexPerSecond.length])).toEqual(
    [
      ['first', 2, 2],
      ['second', 2, 2],
    ],
  );
  expect(printed.belts[0]!.beltSpeed[1]! / printed.belts[0]!.beltSpeed[0]!).toBeCloseTo(2300 / 850, 12);
});

test.each<[string[], RegExp]>([
  [['speeds', truck], /^emery: usage: emery speeds FILE --rpm/],
  [['speeds', truck, '--rpm', '700,fast'], /^emery: --rpm: "fast" is not an engine speed/],
  [['size', truck], /^emery: usage: emery size FILE --belt ID/],
  [['size', truck, '--belt', 'ghost'], /^emery: --belt: there is no belt "ghost"; this drive has main\n$/],
  [['size', truck, '--belt', 'main', '--lengths', '1800,long'], /^emery: --lengths: "long" is not a length in mm/],
  [['marking'], /^emery: usage: emery marking/],
])('bad input is one plain line and exit code 2: %s', (args, line) => {
  const { status, stderr, stdout } = emery(...args);
  expect([status, stdout]).toEqual([2, '']);
  expect(stderr).toMatch(line);
});
