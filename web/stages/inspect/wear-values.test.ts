import fc from 'fast-check';
import { BESIDE, valuesWithRoom } from './wear-values';

const at = (x: number, y: number, text = '1.8 mm') => ({ x, y, text });

test('a few readings apart are all written; of eighty close together the ends are, and no two over each other', () => {
  expect([...valuesWithRoom([at(0, 50), at(100, 52), at(200, 55)])].sort()).toEqual([0, 1, 2]);
  const many = Array.from({ length: 80 }, (_, k) => at(50 + k * 9, 40 + k));
  const written = valuesWithRoom(many);
  expect(written.has(79)).toBe(true);
  expect(written.has(0)).toBe(true);
  expect(written.size).toBeGreaterThan(8);
  expect(written.size).toBeLessThan(25);
  expect(valuesWithRoom([])).toEqual(new Set());
  expect(valuesWithRoom([at(3, 3)])).toEqual(new Set([0]));
});

test('whatever the readings, the newest is written, none covers another, and none that had room is left out', () => {
  const place = fc.record({
    x: fc.double({ min: 0, max: 800, noNaN: true }),
    y: fc.double({ min: 0, max: 200, noNaN: true }),
    text: fc.constantFrom('1.8 mm', '12 %', '0.35 mm'),
  });
  fc.assert(
    fc.property(fc.array(place, { minLength: 1, maxLength: 40 }), (readings) => {
      const written = valuesWithRoom(readings);
      const over = (a: number, b: number) => {
        const [one, other] = [readings[a]!, readings[b]!];
        const end = ({ x, text }: { x: number; text: string }) => x + BESIDE.x + text.length * 7.2;
        return one.x + BESIDE.x <= end(other) && other.x + BESIDE.x <= end(one) && Math.abs(one.y - other.y) <= 15;
      };
      expect(written.has(readings.length - 1)).toBe(true);
      for (const a of written) for (const b of written) if (a < b) expect(over(a, b)).toBe(false);
      for (const a of readings.keys()) if (!written.has(a)) expect([...written].some((b) => over(a, b))).toBe(true);
    }),
  );
});
