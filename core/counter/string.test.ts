import fc from 'fast-check';
import type { Belt, Drive, Lay, Pulley, RouteStop, Station, Tool } from '../drive';
import { normals } from '../numeric';
import { cordLengthOf } from '../adjuster';
import { solveBelt } from '../path';
import { sectionFor } from '../section';
import { measuredLength } from '../size';
import { BEND_RANGES, BENDS, bendOf, type Riding, stringLength } from './string';
import { draws, expectShare } from '../test/draws';

const KIND = { ribbed: 'ribbed', vee: 'vee', toothed: 'toothed' } as const;

/**
 * A ring of drive-side pulleys with smooth ones pushed in from outside between some of them: any number, any sizes.
 * Null where the route does not close, as where a pulley pushed in meets another.
 */
function ring(random: () => number, section: string): { drive: Drive; belt: Belt; backs: number[] } | null {
  const { kind, pitch } = sectionFor(section)!;
  const count = 3 + Math.floor(random() * 3);
  const stations: Station[] = [];
  const route: RouteStop[] = [];
  const put = (x: number, y: number, side: RouteStop['side'], pulley: object, role: Station['role']) => {
    const id = `p${stations.length}`;
    stations.push({ id: `s${stations.length}`, role, x, y, pulleys: [{ id, ...pulley } as Pulley] });
    route.push({ pulley: id, side });
  };
  for (let k = 0; k < count; k += 1) {
    const at = (2 * Math.PI * k) / count + 0.15 * (random() - 0.5);
    const away = 190 + 90 * random();
    const diameter = 60 + 90 * random();
    const grooved =
      kind === 'toothed'
        ? { surface: KIND[kind], teeth: Math.round((diameter * Math.PI) / pitch) }
        : { surface: KIND[kind], diameter };
    put(away * Math.cos(at), away * Math.sin(at), 'drive', grooved, k === 0 ? 'crankshaft' : 'other');
    if (random() < 0.5) continue;
    const between = at + Math.PI / count;
    const inward = 60 + 130 * random();
    put(
      inward * Math.cos(between),
      inward * Math.sin(between),
      'back',
      { surface: 'smooth', diameter: 60 + 30 * random() },
      'idler',
    );
  }
  const belt: Belt = { id: 'b', section, route: [...route], ...(kind === 'ribbed' && { ribs: 6 }) };
  const drive: Drive = { format: 'emery-drive', version: 1, crankRotation: 'ccw', stations, belts: [belt] };
  const solved = solveBelt(drive, 'b')!;
  if (cordLengthOf(solved) === null) return null;
  const backs = solved.contacts.flatMap(({ side, wrapDeg }) => (side === 'back' ? [wrapDeg!] : []));
  return backs.some((degrees) => degrees > 310) ? null : { drive, belt, backs };
}

function randomly(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 16807) % 2147483647) / 2147483647;
}

const SECTIONS = ['PK', 'AV10', 'AV13', 'PJ', 'L'];
const TOOLS: [Tool, Lay | undefined][] = [
  ['string', 'groove'],
  ['string', 'rim'],
  ['strap', undefined],
  ['wire', 'groove'],
  ['rope', 'groove'],
];

test('with the very bends told, the counter comes within a millimetre or its own doubt of Size', () => {
  const random = randomly(91);
  let looked = 0;
  let worst = 0;
  for (let k = 0; k < draws(600); k += 1) {
    const section = SECTIONS[k % SECTIONS.length]!;
    const made = ring(random, section);
    if (!made) continue;
    const [tool, lay] = TOOLS[(k >> 1) % TOOLS.length]!;
    const measurement = { tool, mm: 1700 + 300 * random(), ...(lay && { lay }), doubled: k % 3 === 0 };
    const size = measuredLength(made.drive, made.belt, null, { id: 'm', ...measurement });
    if (!size) continue;
    const answer = stringLength({
      section: sectionFor(section)!,
      measurement,
      riding: made.backs.map((bend): Riding => ({ on: 'back', bend })),
    });
    looked += 1;
    worst = Math.max(worst, Math.abs(answer.markedMm - size.markedMm));
    expect(Math.abs(answer.markedMm - size.markedMm)).toBeLessThan(Math.max(1, 3 * answer.doubts.bends));
  }
  expectShare(looked, draws(600), { from: 0.5 });
  expect(worst).toBeLessThan(5);
});

test('on random drives, with bends told in words and a tape as shaky as it is taken for, its ± holds as often as it claims', () => {
  const random = randomly(17);
  const normal = normals(5);
  const off: number[] = [];
  for (let k = 0; k < draws(4000); k += 1) {
    const section = SECTIONS[k % SECTIONS.length]!;
    const made = ring(random, section);
    if (!made || made.backs.length === 0) continue;
    const [tool, lay] = TOOLS[Math.floor(random() * TOOLS.length)]!;
    const measurement = { tool, mm: 1800, ...(lay && { lay }) };
    const size = measuredLength(made.drive, made.belt, null, { id: 'm', ...measurement });
    if (!size) continue;
    const answer = stringLength({
      section: sectionFor(section)!,
      measurement: { ...measurement, mm: 1800 + normal() * size.plusMinus },
      riding: made.backs.map((degrees): Riding => ({ on: 'back', bend: asSaid(degrees) })),
    });
    off.push(Math.abs(answer.markedMm - size.markedMm) / answer.plusMinus);
  }
  expectShare(off.length, draws(4000), { from: 1500 / 4000 });
  const within = (many: number) => off.filter((value) => value <= many).length;
  expectShare(within(1), off.length, { from: 0.63, to: 0.76 });
  expectShare(within(2), off.length, { from: 0.93 });
});

/** The word for a bend. */
const asSaid = (degrees: number) => BENDS.find((bend) => degrees <= BEND_RANGES[bend][1])!;

test('one full turn more on the drive side: with no bend back the correction is that of a plain loop, whatever the tool', () => {
  // PK by hand: a strap of 1 mm on the rims runs 0.5 mm above them, the cord 2 mm above them, the marked line on them.
  const strap = stringLength({
    section: sectionFor('PK')!,
    measurement: { tool: 'strap', mm: 1500, stretch: 0 },
    riding: [],
  });
  expect(strap.markedMm).toBeCloseTo(1500 - 2 * Math.PI * 0.5, 9);
  // Half a turn of back: there the strap's middle lies 0.5 mm and the cord 1.3 mm above the metal.
  const bent = stringLength({
    section: sectionFor('PK')!,
    measurement: { tool: 'strap', mm: 1500, stretch: 0 },
    riding: [{ on: 'back', bend: 180 }],
  });
  expect(bent.markedMm - strap.markedMm).toBeCloseTo(Math.PI * (2 - 0.5 + 1.3 - 0.5), 9);
  // Ribs on a smooth pulley for a quarter of a turn: the strap lies as it does on ribs, the cord 1.3 mm higher.
  const smooth = stringLength({
    section: sectionFor('PK')!,
    measurement: { tool: 'strap', mm: 1500, stretch: 0 },
    riding: [{ on: 'smooth', bend: 90 }],
  });
  expect(smooth.markedMm - strap.markedMm).toBeCloseTo((Math.PI / 2) * (3.3 - 2), 9);
});

test('what is not laid on the drive says what Size says, whatever the belt bends round', () => {
  const drive = ring(randomly(3), 'AV13')!;
  for (const measurement of [
    { tool: 'marking', mm: 1234 },
    { tool: 'old-belt', mm: 1300 },
    { tool: 'gauge', mm: 400, circumference: 500 },
  ] as const) {
    const size = measuredLength(drive.drive, drive.belt, null, { id: 'm', ...measurement })!;
    const answer = stringLength({
      section: sectionFor('AV13')!,
      measurement,
      riding: [{ on: 'back', bend: 'more' }],
    });
    expect(answer.markedMm).toBe(size.markedMm);
    expect(answer.plusMinus).toBe(size.plusMinus);
  }
});

test('a wider word is never surer than degrees, and no bend is below zero', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...BENDS), { minLength: 1, maxLength: 6 }), (bends) => {
      const ask = (riding: Riding[]) =>
        stringLength({ section: sectionFor('PK')!, measurement: { tool: 'string', mm: 1700 }, riding });
      const words = ask(bends.map((bend) => ({ on: 'back', bend })));
      const degrees = ask(bends.map((bend) => ({ on: 'back', bend: bendOf(bend).degrees })));
      expect(words.markedMm).toBeCloseTo(degrees.markedMm, 9);
      expect(words.plusMinus).toBeGreaterThan(degrees.plusMinus);
    }),
  );
});
