import { placeLabels, type LabelWanted } from './labels';

const wanted = (id: string, x: number, y: number, r: number): LabelWanted => ({
  id,
  x,
  y,
  r,
  free: r,
  forms: [{ width: 80, height: 34 }],
});
const open = { circles: [], lines: [], width: 800, height: 500 };

test('inside a large pulley above its hub, beside a small one', () => {
  const [large, small] = placeLabels([wanted('large', 200, 250, 90), wanted('small', 600, 250, 25)], open);
  expect(large).toMatchObject({ id: 'large', x: 200 });
  expect(large!.y).toBeLessThan(250);
  expect(Math.hypot(small!.x - 600, small!.y - 250)).toBeGreaterThan(25);
});

test('never on a belt, another pulley, another label or over the edge while there is room elsewhere', () => {
  const pulleys = Array.from({ length: 8 }, (_, k) =>
    wanted(`p${k}`, 150 + 160 * (k % 4), 140 + 220 * Math.floor(k / 4), 24),
  );
  const lines = pulleys.map((a, k) => ({
    start: { x: a.x, y: a.y - 24 },
    end: { x: pulleys[(k + 1) % 8]!.x, y: pulleys[(k + 1) % 8]!.y - 24 },
  }));
  const placed = placeLabels(pulleys, { ...open, circles: pulleys, lines });
  placed.forEach((a, index) => {
    expect(a.x - 40).toBeGreaterThanOrEqual(0);
    expect(a.x + 40).toBeLessThanOrEqual(800);
    for (const { x, y, r } of pulleys)
      expect(Math.hypot(Math.max(0, Math.abs(x - a.x) - 40), Math.max(0, Math.abs(y - a.y) - 17))).toBeGreaterThan(r);
    for (const b of placed.slice(index + 1)) expect(Math.abs(a.x - b.x) >= 80 || Math.abs(a.y - b.y) >= 34).toBe(true);
    for (const { start, end } of lines) {
      for (let t = 0; t <= 1; t += 0.01) {
        const [x, y] = [start.x + t * (end.x - start.x), start.y + t * (end.y - start.y)];
        expect(Math.abs(x - a.x) < 40 && Math.abs(y - a.y) < 17).toBe(false);
      }
    }
  });
});

test("a label keeps off what is reserved for the view's own buttons", () => {
  const wanted = [{ id: 'a', x: 340, y: 300, r: 20, free: 20, forms: [{ width: 80, height: 34 }] }];
  const open = {
    circles: [{ x: 340, y: 300, r: 20 }],
    lines: [{ start: { x: 300, y: 250 }, end: { x: 400, y: 250 } }],
    width: 400,
    height: 400,
  };
  const reserved = [{ x: 372, y: 325, w: 56, h: 150 }];
  const [label] = placeLabels(wanted, { ...open, reserved });
  expect(Math.abs(label!.x - 372) >= 28 + 40 || Math.abs(label!.y - 325) >= 75 + 17).toBe(true);
});

test('a label is nearer to its own pulley than to any other, and two never read as one, while there is room', () => {
  // Two small pulleys close together, as a tensioner and a compressor on a telephone.
  for (let apart = 60; apart <= 200; apart += 10) {
    const pulleys = [
      wanted('a', 200, 250, 18),
      wanted('b', 200 + apart, 250, 20),
      wanted('c', 200 + apart / 2, 360, 24),
    ];
    const placed = placeLabels(pulleys, { ...open, circles: pulleys });
    const clear = ({ x, y }: { x: number; y: number }, label: LabelWanted) =>
      Math.hypot(Math.max(0, Math.abs(label.x - x) - 40), Math.max(0, Math.abs(label.y - y) - 17)) - label.r;
    for (const label of placed) {
      const own = pulleys.find(({ id }) => id === label.id)!;
      for (const other of pulleys) if (other !== own) expect(clear(label, other)).toBeGreaterThan(clear(label, own));
      for (const other of placed)
        if (other !== label) expect(Math.abs(other.x - label.x) >= 90 || Math.abs(other.y - label.y) >= 34).toBe(true);
    }
  }
});
