import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { type Drive, PHASES, putItem, type Pulley, readDrive, type Station } from '../drive';
import { putFinding } from '../inspect';
import { markingsOf, readMarking, SECTIONS } from '../section';
import { frontsOf } from '../seating';
import { bringList } from './bring';
import { cardOf, inGivenOrder } from './card';
import { addStep, leaveOut, moveStep, rewordStep } from './edit';
import { beltOrder } from './order';

/** Any belts over one row of shafts, each sheave in a plane of its own: planes may well be in each other's way. */
const anyDrive = fc
  .array(
    fc.record({
      on: fc.uniqueArray(fc.integer({ min: 0, max: 4 }), { minLength: 2, maxLength: 3 }),
      planes: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 5, maxLength: 5 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((belts): Drive => {
    const stations = Array.from({ length: 5 }, (_, k): Station => ({
      id: `s${k}`,
      role: k === 0 ? 'crankshaft' : 'other',
      x: 250 * k,
      y: (k % 2) * 180,
      pulleys: belts.flatMap(({ on, planes }, b): Pulley[] =>
        on.includes(k) ? [{ id: `p${k}-${b}`, surface: 'vee', diameter: 90, plane: 20 * planes[k]! }] : [],
      ),
    }));
    return {
      format: 'emery-drive',
      version: 1,
      crankRotation: 'cw',
      stations,
      belts: belts.map(({ on }, b) => ({
        id: `b${b}`,
        section: 'AV10',
        route: [...on].sort().map((k) => ({ pulley: `p${k}-${b}`, side: 'drive' })),
      })),
    };
  });

function allOrders<T>(items: readonly T[]): T[][] {
  if (items.length === 0) return [[]];
  return items.flatMap((item, k) => allOrders(items.toSpliced(k, 1)).map((rest) => [item, ...rest]));
}

describe('the order of belts', () => {
  /** Belts that may come off in this order: none while another is still on in front of it. */
  const works = (fronts: ReturnType<typeof frontsOf>, order: readonly string[], on: readonly string[]) =>
    order.every((id, k) => {
      const still = on.filter((other) => other !== id && !order.slice(0, k).includes(other));
      return fronts.get(id)!.every(({ belt }) => !still.includes(belt));
    });

  test('against trying all orders: it is one that works, where any does, and says so where none does', () => {
    let none = 0;
    fc.assert(
      fc.property(anyDrive, (drive) => {
        const ids = drive.belts.map(({ id }) => id);
        const fronts = frontsOf(drive);
        const possible = allOrders(ids).some((order) => works(fronts, order, ids));
        const { off, on, tangled } = beltOrder(drive);
        expect([...off].sort()).toEqual([...ids].sort());
        expect(on).toEqual([...off].reverse());
        expect(works(fronts, off, ids)).toBe(possible);
        expect(tangled.length === 0).toBe(possible);
        if (!possible) none += 1;
      }),
      // All of them: of an eighth too few have no order at all.
      { numRuns: 100 },
    );
    expect(none).toBeGreaterThan(3);
  });

  test('for one belt: the fewest that let it off, of all that could be taken off', () => {
    fc.assert(
      fc.property(anyDrive, (drive) => {
        const ids = drive.belts.map(({ id }) => id);
        const fronts = frontsOf(drive);
        for (const id of ids) {
          const { off, tangled } = beltOrder(drive, id);
          expect(off).toContain(id);
          if (tangled.length > 0) continue;
          expect(off.at(-1)).toBe(id);
          expect(works(fronts, off, ids)).toBe(true);
          // Any subset that ends with it and works is no smaller.
          const others = ids.filter((other) => other !== id);
          const subsets = Array.from({ length: 2 ** others.length }, (_, bits) =>
            others.filter((_other, k) => (bits >> k) & 1),
          );
          const enough = subsets.filter((subset) =>
            allOrders(subset).some((order) => works(fronts, [...order, id], ids)),
          );
          expect(Math.min(...enough.map(({ length }) => length + 1))).toBe(off.length);
        }
      }),
      { numRuns: 30 },
    );
  });

  test('no belt of that name, none off', () => expect(beltOrder(DEMO.pickup, 'none').off).toEqual([]));
  test('a belt that comes off for another says for which, and where', () =>
    expect(beltOrder(DEMO.pickup, 'inner').gives.get('outer')).toEqual({ belt: 'inner', station: 'crank' }));
});

describe('the card', () => {
  const drives = Object.entries(DEMO);
  test.each(drives)('%s: phases in order, every id once, every arm with its caution', (_name, drive) => {
    const { steps } = cardOf(drive);
    expect(new Set(steps.map(({ id }) => id)).size).toBe(steps.length);
    const phases = steps.map(({ phase }) => PHASES.indexOf(phase));
    expect(phases).toEqual([...phases].sort((a, b) => a - b));
    for (const { code, caution, text } of steps) {
      expect(text).not.toMatch(/undefined|NaN|\[object|^\s|\s{2}|\.\./);
      if (code === 'release' || code === 'let-down') expect(caution).toMatch(/snaps back/);
      if (code === 'key') expect(caution).toMatch(/Key out and battery off/);
      if (code === 'bolt' || code === 'bolts') expect(caution).toMatch(/manual/);
    }
    expect(steps[0]!.phase).toBe('before');
    expect(steps.findIndex(({ code }) => code === 'key')).toBeLessThan(steps.findIndex(({ phase }) => phase === 'off'));
  });

  test('two belts on one adjuster: slackened once before the first is off, set once after the last is on', () => {
    const steps = cardOf(DEMO.pickup).steps.filter(({ phase }) => phase !== 'after');
    const codes = steps.map(({ code, belt }) => [code, belt ?? ''].join(' ').trim());
    const at = (code: string) => codes.filter((candidate) => candidate.startsWith(code));
    expect(at('slacken-bolts')).toEqual(['slacken-bolts outer']);
    expect(at('set ')).toEqual(['set outer']);
    expect(codes.indexOf('slacken outer')).toBeLessThan(codes.indexOf('lift outer'));
    expect(codes.indexOf('lift outer')).toBeLessThan(codes.indexOf('lift inner'));
    expect(codes.indexOf('lay outer')).toBeLessThan(codes.indexOf('set outer'));
    expect(codes.indexOf('lay inner')).toBeLessThan(codes.indexOf('lay outer'));
  });

  test('pivots before, pivots after: slackened first, tightened last, each with all that the manual says', () => {
    const drive = [
      { id: 'l', use: 'lock', torqueNm: 25, tool: '13 mm socket', size: 'M8' },
      { id: 'p', use: 'pivot', torqueNm: 47.4537, torqueUnit: 'lbf-ft', angleDeg: 60, reuse: 'new' },
      { id: 'c', use: 'cover', name: 'shroud', tool: '10 mm socket' },
    ].reduce<Drive>((now, bolt) => putItem(now, 'job.bolts', { station: 'alt', ...bolt } as never), DEMO.pickup);
    const { steps, findings } = cardOf(drive);
    const text = (id: string) => steps.find((step) => step.id === id)!.text;
    expect(text('off slacken-bolts alt')).toBe(
      'Slacken before the adjuster is turned: pivot bolt of Alternator; lock bolt of Alternator, M8, 13 mm socket.',
    );
    expect(text('on bolt p')).toBe(
      'Tighten pivot bolt of Alternator, 35 lbf·ft (47.5 N·m), then 60° on, fit a new bolt each time.',
    );
    expect(text('after bolt p')).toBe(text('on bolt p'));
    const order = steps.map(({ id }) => id);
    expect(order.indexOf('on bolt l')).toBeLessThan(order.indexOf('on bolt p'));
    expect(text('before covers')).toMatch(/shroud, 10 mm socket/);
    expect(text('check covers-on')).toMatch(/shroud/);
    expect(findings.some(({ code }) => code === 'no-torque')).toBe(true);
    // An order that the manual gives goes first.
    const given = putItem(
      putItem(drive, 'job.bolts', { id: 'p', station: 'alt', use: 'pivot', order: 1 }),
      'job.bolts',
      {
        id: 'l',
        station: 'alt',
        use: 'lock',
        order: 2,
      },
    );
    const ids = cardOf(given).steps.map(({ id }) => id);
    expect(ids.indexOf('on bolt p')).toBeLessThan(ids.indexOf('on bolt l'));
    expect(readDrive(given).ok).toBe(true);
  });

  test('what Inspect condemned is changed, and is on the bring list', () => {
    const bad = putFinding(
      DEMO.pickup,
      { on: 'pulley', target: 'alt-1' },
      { check: 'spin', outcome: 'grinds' },
      {
        at: '2026-11-01T10:00:00Z',
      },
    );
    expect(cardOf(DEMO.pickup).steps.some(({ code }) => code === 'change-part')).toBe(false);
    expect(cardOf(bad).steps.find(({ code }) => code === 'change-part')!.text).toMatch(/Alternator/);
    expect(bringList(bad).parts).toEqual([expect.stringMatching(/Alternator/)]);
    // For the belt behind it alone it is on the way all the same; its shaft carries that belt too.
    expect(cardOf(bad, 'outer').steps.some(({ code }) => code === 'change-part')).toBe(true);
  });

  test('other words, own steps, left out and moved: kept through a file, and undone', () => {
    const card = cardOf(DEMO.rescue);
    const [first, second] = card.steps.filter(({ phase }) => phase === 'check');
    const worded = rewordStep(DEMO.rescue, first!, '  Look twice. ');
    expect(cardOf(worded).steps.find(({ id }) => id === first!.id)).toMatchObject({
      text: 'Look twice.',
      caution: first!.caution,
      reworded: true,
    });
    expect(cardOf(rewordStep(worded, first!, ''))).toEqual(card);
    const added = addStep(worded, 'check', 'Wash the windscreen.');
    const own = cardOf(added).steps.find(({ code }) => code === 'own')!;
    expect(own).toMatchObject({ text: 'Wash the windscreen.', phase: 'check', caution: null });
    expect(cardOf(leaveOut(added, own, true)).steps.some(({ code }) => code === 'own')).toBe(false);
    const out = leaveOut(added, second!, true);
    expect(cardOf(out).leftOut.map(({ id }) => id)).toEqual([second!.id]);
    expect(cardOf(leaveOut(out, second!, false)).steps).toEqual(cardOf(added).steps);
    const moved = moveStep(added, cardOf(added).steps, own.id, first!.id);
    const checks = (drive: Drive) => cardOf(drive).steps.filter(({ phase }) => phase === 'check');
    expect(checks(moved)[0]!.id).toBe(own.id);
    expect(
      checks(moved)
        .slice(1)
        .map(({ id }) => id),
    ).toEqual(
      checks(added)
        .map(({ id }) => id)
        .filter((id) => id !== own.id),
    );
    // To a place in another phase nothing goes.
    expect(moveStep(added, cardOf(added).steps, own.id, 'before key')).toBe(added);
    const back = readDrive(JSON.parse(JSON.stringify(moved)));
    expect(back.ok && cardOf(back.drive)).toEqual(cardOf(moved));
  });

  test('placed steps keep their order among themselves, the rest their places, and none is lost', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 3 }), { maxLength: 9 }),
        fc.uniqueArray(fc.string({ minLength: 1, maxLength: 3 }), { maxLength: 9 }),
        fc.boolean(),
        (ids, others, mixed) => {
          const placed = mixed ? [...others, ...[...ids].reverse().slice(1)] : others;
          const steps = ids.map((id) => ({ id }));
          const ordered = inGivenOrder(steps, placed).map(({ id }) => id);
          expect([...ordered].sort()).toEqual([...ids].sort());
          expect(ordered.filter((id) => placed.includes(id))).toEqual(
            [...new Set(placed)].filter((id) => ids.includes(id)),
          );
          ids.forEach((id, k) => placed.includes(id) || expect(ordered[k]).toBe(id));
        },
      ),
    );
  });
});

describe('what to ask for at a counter', () => {
  test('every marking reads back as the belt it was made from', () => {
    const any = fc.record({
      section: fc.constantFrom(...SECTIONS.map(({ name }) => name)),
      ribs: fc.integer({ min: 3, max: 10 }),
      lengthMm: fc.integer({ min: 500, max: 3000 }),
    });
    let many = 0;
    fc.assert(
      fc.property(any, ({ section, ribs, lengthMm }) => {
        const belt = { section, ribs: section.startsWith('P') ? ribs : null, lengthMm };
        for (const { text, scheme } of markingsOf(belt)) {
          const [best] = readMarking(text);
          expect(best).toMatchObject({ section, ribs: belt.ribs, scheme });
          expect(Math.abs(best!.lengthMm - lengthMm)).toBeLessThanOrEqual(1.3);
          many += 1;
        }
      }),
    );
    expect(many).toBeGreaterThan(100);
  });
  test('a six-rib belt in four schemes, by hand', () =>
    expect(markingsOf({ section: 'PK', ribs: 6, lengthMm: 1734 }).map(({ text }) => text)).toEqual([
      '6PK1734',
      'K060683',
      '683K6',
      '5060683',
    ]));
  test('nothing for a section that does not exist, or ribs that nobody counted', () => {
    expect(markingsOf({ section: 'none', lengthMm: 1000 })).toEqual([]);
    expect(markingsOf({ section: 'PK', lengthMm: 1000 })).toEqual([]);
  });
  test('a belt without a length is brought by what Size recommends, with another that fits beside it', () => {
    const [belt] = bringList(DEMO.rescue).belts;
    expect(belt).toMatchObject({ belt: 'main', from: 'size', ribs: 6, section: 'PK' });
    expect(belt!.markings[0]!.text).toBe(`6PK${Math.round(belt!.lengthMm)}`);
    expect(belt!.second!.lengthMm).not.toBe(belt!.lengthMm);
    const marked: Drive = {
      ...DEMO.rescue,
      belts: DEMO.rescue.belts.map((otherBelt) => ({
        ...otherBelt,
        length: belt!.lengthMm + 1,
        care: { number: 'TF-1' },
      })),
    };
    expect(bringList(marked).belts[0]).toMatchObject({
      lengthMm: belt!.lengthMm + 1,
      from: 'marked',
      number: 'TF-1',
    });
  });
  test('teeth are asked for by their number', () =>
    expect(bringList(DEMO.climb).belts[0]!.plain).toMatch(/^\d+ teeth, /));
});
