import { svgText } from './card-files';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { GLOVEBOX, gloveboxText } from './glovebox-card';
import { CARD, cardScale, cardText } from './routing-card';
import { type Drive, parseDrive } from '@emery/core/drive';

function demo(name: string): Drive {
  const reading = parseDrive(readFileSync(path.resolve(__dirname, '../../demo', `${name}.emery.json`), 'utf8'));
  if (!reading.ok) throw new Error(name);
  return reading.drive;
}
const text = (drive: Drive) => cardText(drive).map((line) => line.text);

test.each([
  '1-rescue-truck',
  '2-hill-farm-pickup',
  '3-mobile-kitchen-van',
  '4-snow-groomer',
  '5-hill-climb-car',
  '6-parish-minibus',
])('%s fits on its card: drawing in its frame, text above the foot and not on itself', (name) => {
  const drive = demo(name);
  const { k, x, y } = cardScale(drive);
  for (const station of drive.stations) {
    const r = (Math.max(...station.pulleys.map((pulley) => pulley.diameter ?? 0)) / 2) * k;
    expect(station.x * k + x - r).toBeGreaterThan(30);
    expect(station.x * k + x + r).toBeLessThan(780);
    expect(-station.y * k + y - r).toBeGreaterThan(86);
    expect(-station.y * k + y + r).toBeLessThan(CARD.height - 20);
  }
  const lines = cardText(drive);
  lines.slice(1).forEach(({ y: at, size }, index) => expect(at - lines[index]!.y).toBeGreaterThanOrEqual(size));
  expect(lines[lines.length - 1]!.y).toBeLessThan(CARD.height - 24);
});

test('the belt in order with its sides, its marking, and where it goes on last', () => {
  const lines = text(demo('1-rescue-truck'));
  expect(lines).toEqual(
    expect.arrayContaining([
      'PK, 6 ribs',
      '1  Crank, ribs',
      '2  Tensioner, back',
      '4  Water pump, back',
      'Fit last over Water pump',
    ]),
  );
  expect(lines.join(' ')).toContain('1805.6 mm effective (71 1/16"), from the drawing');
});

test('the release goes from the free end of the arm to the full one, whichever way the angles wrap', () => {
  const turned = (freeAngle: number, fullAngle: number) => {
    const drive = demo('1-rescue-truck');
    const stations = drive.stations.map((s) =>
      s.adjuster ? { ...s, adjuster: { ...s.adjuster, freeAngle, fullAngle } } : s,
    );
    return text({ ...drive, stations }).join(' ');
  };
  expect(turned(-12, 68)).toContain('Tensioner counter-clockwise.');
  expect(turned(165, 85)).toContain('Tensioner clockwise.');
  expect(turned(350, 60)).toContain('Tensioner counter-clockwise.');
  expect(turned(10, 300)).toContain('Tensioner clockwise.');
});

test('a route that has no path says so instead of a length', () => {
  expect(text(demo('6-parish-minibus')).join(' ')).toContain('No length: no belt fits this route');
});

test('a name with signs that no XML may hold still makes a file that opens', () => {
  const card = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
  card.append('Bell\u0007 tab\u0009 half \uD83D pair \uD83D\uDE9A');
  const parsed = new DOMParser().parseFromString(svgText(card), 'image/svg+xml');
  expect(parsed.querySelector('parsererror')).toBeNull();
  expect(parsed.documentElement.textContent).toBe('Bell  tab\u0009 half   pair \uD83D\uDE9A');
});

describe('the glovebox card', () => {
  const inside = (drive: Drive) => {
    const lines = gloveboxText(drive);
    lines.slice(1).forEach(({ y, size }, k) => expect(y - lines[k]!.y).toBeGreaterThanOrEqual(size));
    expect(lines.at(-1)!.y).toBeLessThan(GLOVEBOX.height - 40);
    return lines.map((line) => line.text).join(' ');
  };
  test.each(['1-rescue-truck', '3-mobile-kitchen-van', '4-snow-groomer'])('%s: all of it has room', (name) => {
    const drive = demo(name);
    const parts = inside(drive);
    expect(parts).not.toContain('in the code');
    for (const { care } of drive.belts) if (care?.number) expect(parts).toContain(`number ${care.number}`);
  });
  test('more belts than have room: it ends where the paper does, and says where the rest is', () => {
    const drive = demo('3-mobile-kitchen-van');
    const many = Array.from({ length: 12 }, (_, k) => ({ ...drive.belts[0]!, id: `b${k}` }));
    expect(inside({ ...drive, belts: many })).toMatch(/the rest is in the code$/);
    expect(inside({ ...drive, belts: [] })).toBe('No belt has a route yet.');
  });
});
