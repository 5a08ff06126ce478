import { GLOVEBOX, gloveboxText } from './glovebox-card';
import { fitText, wrapped } from './fit-text';
import { CARD, cardText } from './routing-card';
import { shortName } from '../ui/short-name';
import { DEMO } from '../../core/test/demo';
import type { Drive } from '@emery/core/drive';

const LONG = 'Übergroßfahrzeughinterachsgetriebegehäuseentlüftungsschlauchschellenhalterblech8';
const named = (drive: Drive): Drive => ({
  ...drive,
  stations: drive.stations.map((station) => ({ ...station, label: LONG })),
});

test('lines hold so many characters and no more, and lose none but spaces, whatever the words', () => {
  const letters = ['a', 'bb', 'ß', '🚚', ' ', ' '];
  for (let seed = 1; seed < 400; seed += 1) {
    let state = seed * 2654435761;
    const text = Array.from({ length: 1 + (seed % 70) }, () => {
      state = (state * 1664525 + 1013904223) >>> 0;
      return letters[Math.floor(state / 2 ** 29.5)] ?? 'x';
    }).join('');
    const limit = 3 + (seed % 9);
    const lines = wrapped(text, limit);
    expect(lines.join('').replaceAll(' ', '')).toBe(text.replaceAll(' ', ''));
    for (const line of lines) expect([...line].length).toBeLessThanOrEqual(limit);
  }
});

test('a name is shortened by its end, between characters, and a short one stays', () => {
  expect(shortName('Idler', 5)).toBe('Idler');
  expect(shortName('Idlers', 5)).toBe('Idle…');
  expect(shortName('Fan 🚚🚚🚚', 6)).toBe('Fan 🚚…');
  expect(shortName('Alternator', 0)).toBe('A…');
});

test('a head is set smaller before its end is left out, and stays within its room', () => {
  expect(fitText('Truck', 390, 24, true)).toEqual({ text: 'Truck', size: 24 });
  const { text, size } = fitText(LONG, 760, 28, true);
  expect(text).toBe(LONG);
  expect(size).toBeCloseTo(760 / (80 * 0.63), 6);
  const small = fitText(LONG, 290, 24);
  expect(small.size).toBe(10);
  expect(small.text).toBe(`${LONG.slice(0, 49)}…`);
});

test.each(Object.entries(DEMO))('%s with names of eighty letters: all has room on both cards', (_name, drive) => {
  const lines = cardText(named(drive));
  lines.slice(1).forEach(({ y, size }, k) => expect(y - lines[k]!.y).toBeGreaterThanOrEqual(size));
  expect(lines.at(-1)!.y).toBeLessThan(CARD.height - 24);
  for (const { text, size } of lines) expect([...text].length).toBeLessThanOrEqual(Math.floor(540 / size));
  expect(lines.map(({ text }) => text).join('')).toMatch(/mm|No length/);
  const small = gloveboxText(named(drive));
  expect(small.at(-1)!.y).toBeLessThan(GLOVEBOX.height - 40);
  for (const { text, size } of small) expect([...text].length).toBeLessThanOrEqual(Math.floor(640 / size));
});
