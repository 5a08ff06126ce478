import { randomLcg } from 'd3-random';
import { draws } from '../../../core/test/draws';
import { type Drive, newBelt, newDrive, type Station } from '@emery/core/drive';
import { beltBounds, solveDrive } from '@emery/core/path';
import { placeLabels, type LabelPlaced, type LabelWanted, type Segment } from './labels';

/*
 * Drives drawn at random, at the sizes the drawing has on a phone, a tablet and a bench. What is right is counted here
 * by its own sums: by points all over every label, not by the boxes and lines that the placing works with.
 */

const NAMES = ['Crank', 'Tensioner', 'Steering pump', 'Water pump', 'Alternator', 'Compressor', 'Idler', 'Vacuum pump'];
const FIGURES = ['146° wrap', '2 13/16"', '1081 N · 182 %', 'not inspected', '▲ 56° wrap', '2400 rev/min'];
const SIZES = { 390: [330, 276], 768: [340, 560], 1280: [842, 520] } as const;
/** Half the belt as it is drawn, px at least. */
const HALF_BELT = 2.5;

function anyDrive(draw: () => number): Drive {
  const count = 3 + Math.floor(draw() * 6);
  const stations: Station[] = [];
  for (let tries = 0; stations.length < count && tries < 400; tries += 1) {
    const [diameter, x, y] = [50 + draw() * 140, draw() * 520 - 260, draw() * 460 - 120];
    const clear = stations.every(
      (other) => Math.hypot(other.x - x, other.y - y) > (other.pulleys[0]!.diameter! + diameter) / 2 + 14,
    );
    if (!clear) continue;
    const id = `s${stations.length}`;
    stations.push({
      ...{ id, label: NAMES[stations.length]!, role: stations.length === 0 ? 'crankshaft' : 'idler', x, y },
      pulleys: [{ id: `${id}a`, surface: 'ribbed', diameter, grooves: 6 }],
    } as Station);
  }
  const middle = (axis: 'x' | 'y') => stations.reduce((sum, station) => sum + station[axis], 0) / stations.length;
  const [mx, my] = [middle('x'), middle('y')];
  const turn = ({ x, y }: Station) => Math.atan2(y - my, x - mx);
  const route = [...stations]
    .sort((a, b) => turn(b) - turn(a))
    .map(({ pulleys }, at) => ({ pulley: pulleys[0]!.id, side: at > 0 && draw() < 0.3 ? 'back' : 'front' }));
  const drive = newDrive('Drawn');
  return { ...drive, stations, belts: [{ ...newBelt(drive, 'PK'), route }] } as unknown as Drive;
}

interface Drawn {
  wanted: LabelWanted[];
  lines: Segment[];
  placed: (LabelPlaced & { width: number; height: number })[];
}

function drawn(draw: () => number, [width, height]: readonly [number, number]): Drawn {
  const scale = height < 300 ? 0.87 : 1;
  const drive = anyDrive(draw);
  const { minX, maxX, minY, maxY } = beltBounds(drive);
  const k = Math.min((width - 24) / (maxX - minX), (height - 24) / (maxY - minY));
  const [tx, ty] = [width / 2 - (k * (minX + maxX)) / 2, height / 2 + (k * (minY + maxY)) / 2];
  const screen = ({ x, y }: { x: number; y: number }) => ({ x: x * k + tx, y: -y * k + ty });
  const wanted = drive.stations.map((station): LabelWanted => {
    const r = (station.pulleys[0]!.diameter! / 2) * k;
    const figure = FIGURES[Math.floor(draw() * FIGURES.length)]!;
    const [name, value] = [station.label!.length * 7, figure.length * 6.6].map((px) => px * scale + 4);
    const forms = [
      { width: Math.max(name!, value!), height: 34 * scale },
      { width: value!, height: 34 * scale },
      { width: value!, height: 17 * scale },
      { width: 24 * scale, height: 17 * scale },
    ];
    return { id: station.id, ...screen(station), r, free: r, forms };
  });
  const lines = solveDrive(drive).belts.flatMap(({ spans }) =>
    spans.map(({ start, end }) => ({ start: screen(start), end: screen(end) })),
  );
  const placed = placeLabels(wanted, { circles: wanted, lines, width, height }).map((label) => ({
    ...label,
    ...wanted.find(({ id }) => id === label.id)!.forms[label.form]!,
  }));
  return { wanted, lines, placed };
}

/** From a point to a line, by looking along it. */
function toLine({ start, end }: Segment, x: number, y: number): number {
  let nearest = Infinity;
  for (let n = 0; n <= 40; n += 1) {
    const t = n / 40;
    nearest = Math.min(nearest, Math.hypot(start.x + t * (end.x - start.x) - x, start.y + t * (end.y - start.y) - y));
  }
  return nearest;
}

/** What is wrong with a placing: labels that lie on something, and labels that could be another's. */
function faultsOf({ wanted, lines, placed }: Drawn, [width, height]: readonly [number, number]) {
  const faults = { overlaps: 0, strangers: 0 };
  const owner = new Map(placed.map((label) => [label, wanted.find(({ id }) => id === label.id)!]));
  for (const label of placed) {
    const own = owner.get(label)!;
    const points: [number, number][] = [];
    for (let i = 0; i <= 12; i += 1)
      for (let j = 0; j <= 4; j += 1)
        points.push([label.x + label.width * (i / 12 - 0.5), label.y + label.height * (j / 4 - 0.5)]);
    const rim = (circle: LabelWanted) =>
      Math.min(...points.map(([x, y]) => Math.hypot(x - circle.x, y - circle.y))) - circle.r;
    const others = wanted.filter((circle) => circle !== own);
    const within = points.every(([x, y]) => Math.hypot(x - own.x, y - own.y) <= own.r);
    const onOther = placed.some(
      (other) =>
        other !== label &&
        points.some(([x, y]) => Math.abs(x - other.x) < other.width / 2 && Math.abs(y - other.y) < other.height / 2),
    );
    const out = points.some(([x, y]) => x < 0 || y < 0 || x > width || y > height);
    const onBelt = lines.some((line) => points.some(([x, y]) => toLine(line, x, y) < HALF_BELT));
    const onRim = others.some((circle) => rim(circle) < 0) || (!within && rim(own) < 0);
    if (onOther || out || onBelt || onRim) faults.overlaps += 1;
    if (!within && !label.leader && others.some((circle) => rim(circle) <= rim(own))) faults.strangers += 1;
    const { leader } = label;
    if (leader && Math.hypot(leader.end.x - own.x, leader.end.y - own.y) > own.r) faults.strangers += 1;
  }
  return faults;
}

test.each(Object.entries(SIZES))('at %s px no name lies on anything or could be taken for another’s', (_, size) => {
  const draw = randomLcg(0.35);
  const found = { overlaps: 0, strangers: 0, leftOut: 0, leaders: 0, labels: 0, short: 0 };
  for (let n = draws(1000); n > 0; n -= 1) {
    const made = drawn(draw, size);
    const faults = faultsOf(made, size);
    found.overlaps += faults.overlaps;
    found.strangers += faults.strangers;
    found.labels += made.wanted.length;
    found.leftOut += made.wanted.length - made.placed.length;
    found.short += made.placed.filter(({ form }) => form > 0).length;
    found.leaders += made.placed.filter(({ leader }) => leader).length;
  }
  expect(found).toMatchObject({ overlaps: 0, strangers: 0 });
  expect(found.leftOut).toBeLessThan(found.labels / 100);
});
