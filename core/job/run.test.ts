import fc from 'fast-check';
import { DEMO } from '../test/demo';
import { changeBelt, type Drive, ofBeltNow } from '../drive';
import { inspectDrive, putFinding } from '../inspect';
import { readingsNow } from '../tension';
import { bringList } from './bring';
import { cardOf } from './card';
import { fittedMarking, fittedWords } from './fitted';
import { type JobEvent, runOf } from './run';
import { signedOff } from './sign-off';
import { eventWords, lateFacts, runFacts } from './words';

let n = 0;
const event = (more: object, by = 'Ann', at = '2026-11-26T10:00:00Z') =>
  ({ id: `e${(n += 1)}`, at, by, ...more }) as JobEvent;
const tick = (step: string, done = true, by?: string, at?: string) => event({ kind: 'tick', step, done }, by, at);

/** Two lists in any order that keeps each one's own. */
const interleaved = <T>(a: readonly T[], b: readonly T[], turns: readonly boolean[]): T[] => {
  const [left, right] = [[...a], [...b]];
  const all: T[] = [];
  for (const turn of turns) {
    const next = (turn ? left : right).shift();
    if (next) all.push(next);
  }
  return [...all, ...left, ...right];
};

describe('where a job stands', () => {
  test('two people at one job lose nothing, in whatever order their ticks come in and however often', () => {
    const steps = (who: string) => fc.uniqueArray(fc.integer({ min: 0, max: 8 }).map((k) => `${who} ${k}`));
    fc.assert(
      fc.property(
        steps('a'),
        steps('b'),
        fc.array(fc.boolean(), { maxLength: 20 }),
        fc.array(fc.nat(30), { maxLength: 8 }),
        (ann, bob, turns, again) => {
          const all = interleaved(
            ann.map((step) => tick(step, true, 'Ann')),
            bob.map((step) => tick(step, true, 'Bob')),
            turns,
          );
          const twice = again.reduce((list, k) => (list.length === 0 ? list : [...list, list[k % list.length]!]), all);
          const { done } = runOf(twice);
          expect([...done.keys()].sort()).toEqual([...ann, ...bob].sort());
          for (const [step, { by }] of done) expect(by).toBe(step.startsWith('a') ? 'Ann' : 'Bob');
          expect(runOf(twice)).toEqual(runOf(all));
        },
      ),
    );
  });

  test('ticked by two, the first has done it; taken back it is open; a tick sent again late changes nothing', () => {
    const first = tick('x', true, 'Ann');
    const all = [first, tick('x', true, 'Bob')];
    expect(runOf(all).done.get('x')).toMatchObject({ by: 'Ann' });
    const back = [...all, tick('x', false, 'Bob')];
    expect(runOf(back).done.size).toBe(0);
    expect(runOf([...back, first]).done.size).toBe(0);
    expect(runOf(all).people).toEqual(['Ann', 'Bob']);
  });

  test('two who say something of one belt take nothing from one another', () => {
    const said = [
      event({ kind: 'belt', belt: 'outer', fitted: 'new' }, 'Ann'),
      event({ kind: 'belt', belt: 'outer', number: 'TF 7' }, 'Ann'),
      event({ kind: 'belt', belt: 'outer', why: 'broke' }, 'Bob'),
    ];
    const all = { fitted: 'new', number: 'TF 7', why: 'broke' };
    expect(runOf(said).belts.get('outer')).toEqual(all);
    expect(runOf([said[0]!, said[2]!, said[1]!]).belts.get('outer')).toEqual(all);
    expect(runOf([...said, event({ kind: 'belt', belt: 'outer', fitted: 'same' })]).belts.get('outer')).toEqual({
      ...all,
      fitted: 'same',
    });
  });

  test('time worked, parts, odometer, remarks', () => {
    const at = (time: string) => `2026-11-26T${time}:00Z`;
    const run = runOf([
      event({ kind: 'timer', running: true }, 'Ann', at('10:00')),
      event({ kind: 'timer', running: true }, 'Bob', at('10:05')),
      event({ kind: 'timer', running: false }, 'Ann', at('10:20')),
      event({ kind: 'timer', running: false }, 'Ann', at('10:30')),
      event({ kind: 'timer', running: true }, 'Ann', at('11:00')),
      event({ kind: 'part', name: 'Belt', count: 1 }),
      event({ kind: 'part', name: 'Bolt', count: 2 }),
      event({ kind: 'part', name: 'Washer', count: 1 }, 'Ann'),
      event({ kind: 'part', name: 'Washer', count: 1, stock: 7 }, 'Bob'),
      event({ kind: 'part', name: 'Bolt', count: -2 }),
      event({ kind: 'odometer', odometer: 5 }),
      event({ kind: 'odometer', odometer: 50 }),
      event({ kind: 'note', text: 'stiff' }),
    ]);
    expect(run.workedMs).toBe(20 * 60_000);
    expect(run.runningSince).toBe(at('11:00'));
    expect(run.parts).toEqual([
      { name: 'Belt', count: 1 },
      { name: 'Washer', count: 2, stock: 7 },
    ]);
    expect(run.odometer).toBe(50);
    // Two rows of the shop's list that have one name are two parts, and one of them is taken back by its row.
    const two = runOf([
      event({ kind: 'part', name: '6PK1200', count: 1, stock: 7 }),
      event({ kind: 'part', name: '6PK1200', count: 2, stock: 8 }),
      event({ kind: 'part', name: '6PK1200', count: -1, stock: 8 }),
      event({ kind: 'part', name: '6PK1200', count: 1, stock: 7 }),
    ]);
    expect(two.parts).toEqual([
      { name: '6PK1200', count: 2, stock: 7 },
      { name: '6PK1200', count: 1, stock: 8 },
    ]);
    expect(run.notes).toMatchObject([{ text: 'stiff' }]);
    // Clocks of two devices that do not agree never make it negative.
    const odd = runOf([
      event({ kind: 'timer', running: true }, 'Ann', at('10:00')),
      event({ kind: 'timer', running: false }, 'Bob', at('09:00')),
    ]);
    expect(odd.workedMs).toBe(0);
  });
});

describe('signed off', () => {
  const at = '2026-11-30T10:00:00.000Z';
  const card = cardOf(DEMO.pickup);
  const all = (drive: Drive) => cardOf(drive).steps.map(({ id }) => tick(id, true, 'Ann', '2026-11-30T09:00:00.000Z'));

  test('a new belt has its number, date, odometer and next look; the old one is remembered', () => {
    const before = changeBelt(DEMO.pickup, 'outer', { care: { number: 'old', fittedOdometer: 40_000 } });
    const run = runOf([
      ...all(before),
      event({ kind: 'odometer', odometer: 91_000 }),
      event({ kind: 'belt', belt: 'outer', fitted: 'new', number: 'TF 7', why: 'broke' }),
      event({ kind: 'belt', belt: 'inner', fitted: 'same' }),
    ]);
    const brought = bringList(before).belts;
    const asked = brought.find(({ belt }) => belt === 'outer')!;
    const after = signedOff(before, { at, unit: 'km', steps: cardOf(before).steps, run, brought });
    const care = (id: string) => after.belts.find((belt) => belt.id === id)!.care;
    expect(care('outer')).toEqual({
      fittedAt: at,
      fittedOdometer: 91_000,
      number: 'TF 7',
      runInFrom: '2026-11-30T09:00:00.000Z',
      runInMinutes: 10,
      setAgainAt: '2026-11-30T09:00:00.000Z',
      nextLookAt: '2026-12-30T10:00:00.000Z',
      nextLookOdometer: 91_800,
    });
    expect(care('inner')).not.toHaveProperty('fittedAt');
    expect(care('inner')).toHaveProperty('nextLookAt');
    expect(after.inspect!.changed).toMatchObject([
      { on: 'belt', target: 'outer', odometer: 91_000, why: 'broke', careBefore: { number: 'old' } },
    ]);
    expect(after.inspect!.odometerUnit).toBe('km');
    expect(after.belts.find(({ id }) => id === 'outer')!.length).toBe(asked.lengthMm);
    // The belt that went on again is as long as it was.
    expect(after.belts.find(({ id }) => id === 'inner')!.length).toBe(
      DEMO.pickup.belts.find(({ id }) => id === 'inner')!.length,
    );
  });

  test('what the marking says is what went on: told where it is not what the card asked for', () => {
    const [asked] = bringList(DEMO.rescue).belts;
    const steps = cardOf(DEMO.rescue).steps;
    const on = (marking: string) => {
      const run = runOf([event({ kind: 'belt', belt: 'main', fitted: 'new', marking })]);
      return signedOff(DEMO.rescue, { at, unit: 'km', steps, run, brought: [asked!] }).belts[0]!;
    };
    expect(fittedWords(asked!.markings[0]!.text, asked)).toBeNull();
    expect(fittedMarking(asked!.markings.at(-1)!.text, asked)!.verdict).toBe('as-asked');
    expect(on(asked!.markings[0]!.text)).toMatchObject({ section: 'PK', ribs: 6, length: asked!.lengthMm });
    expect(fittedWords(asked!.second!.markings[0]!.text, asked)).toMatch(/second choice, not 6PK/);
    expect(fittedWords('5PK1600', asked)).toMatch(/^The card asks for 6PK\d+, not this belt\. Check/);
    expect(on('5PK1600')).toMatchObject({ section: 'PK', ribs: 5, length: 1600 });
    expect(fittedWords('no belt', asked)).toMatch(/cannot be read/);
    expect(on('no belt')).toMatchObject({ ribs: 6, length: asked!.lengthMm });
    expect(fittedWords('', asked)).toBeNull();
    // Same belt refitted stays what it was, whatever is read off it.
    const same = runOf([event({ kind: 'belt', belt: 'main', fitted: 'same', marking: '5PK1600' })]);
    expect(signedOff(DEMO.rescue, { at, unit: 'km', steps, run: same, brought: [asked!] }).belts[0]!.ribs).toBe(6);
    expect(runFacts(DEMO.rescue, same)).toEqual(['The belt back on, 5PK1600']);
  });

  test('readings of the old belt end with it: tension, noise and inspection', () => {
    const old = { at: '2026-11-20T08:00:00Z' };
    const read = putFinding(
      {
        ...changeBelt(DEMO.pickup, 'outer', {
          tensionReadings: [{ id: 't', way: 'pointer', value: 1, ...old } as never],
        }),
        noise: { evidence: [{ id: 'n', test: 'water', outcome: 'louder', belt: 'outer', ...old } as never] },
      },
      { on: 'belt', target: 'outer' },
      { check: 'chunks', outcome: 'yes' },
      old,
    );
    const run = runOf([event({ kind: 'belt', belt: 'outer', fitted: 'new' })]);
    const after = signedOff(read, { at, unit: 'km', steps: card.steps, run });
    expect(ofBeltNow(read, 'outer', old)).toBe(true);
    expect(ofBeltNow(after, 'outer', old)).toBe(false);
    const verdict = (drive: Drive) =>
      inspectDrive(drive).find(({ on, target }) => on === 'belt' && target === 'outer')!.verdict;
    expect([verdict(read), verdict(after)]).toEqual(['replace', 'not looked at']);
    expect(readingsNow(read, read.belts[1]!)).toHaveLength(1);
    expect(readingsNow(after, after.belts[1]!)).toHaveLength(0);
  });

  test('from the 31st a month on is the last day of the next', () => {
    const run = runOf([...all(DEMO.pickup), event({ kind: 'belt', belt: 'outer', fitted: 'same' })]);
    const next = signedOff(DEMO.pickup, { at: '2027-01-31T10:00:00.000Z', unit: 'km', steps: card.steps, run });
    expect(next.belts.find(({ id }) => id === 'outer')!.care!.nextLookAt).toBe('2027-02-28T10:00:00.000Z');
  });

  test('what the drive no longer has is passed over, and nothing done changes nothing', () => {
    const run = runOf([event({ kind: 'belt', belt: 'gone', fitted: 'new', number: 'x' })]);
    expect(signedOff(DEMO.pickup, { at, unit: 'km', steps: card.steps, run })).toEqual(DEMO.pickup);
  });
});

describe('entries in words', () => {
  const { steps } = cardOf(DEMO.pickup);
  const words = (more: object) => eventWords({ drive: DEMO.pickup, steps }, event(more));
  test.each([
    [{ kind: 'tick', step: steps[0]!.id, done: true }, `Ticked: ${steps[0]!.text}`],
    [{ kind: 'tick', step: 'none', done: false }, 'Tick removed: a step that is not in this job'],
    [{ kind: 'note', text: 'Stiff', step: steps[0]!.id }, `Remark at “${steps[0]!.text}”: Stiff`],
    [{ kind: 'odometer', odometer: 61_240 }, 'Odometer 61,240'],
    [{ kind: 'odometer', odometer: null }, 'Odometer not read'],
    [
      { kind: 'belt', belt: 'inner', fitted: 'new', marking: '13x1000', why: 'broke' },
      'Belt 1: new belt fitted, marking 13x1000, came off: broke',
    ],
    [{ kind: 'part', name: 'Bolt', count: 2 }, 'Part used: 2 × Bolt'],
    [{ kind: 'part', name: 'Bolt', count: -1 }, 'Returned: 1 × Bolt'],
    [{ kind: 'photo', photo: { hash: '', width: 1, height: 1 } }, 'Picture'],
    [{ kind: 'timer', running: false }, 'Clock stopped'],
    [{ kind: 'plan', change: 'reword', step: steps[0]! }, `Plan: reworded “${steps[0]!.text}”`],
  ])('%j', (more, text) => expect(words(more)).toBe(text));

  test('late ticks by step, person and day; a story names no more of them than anybody reads', () => {
    const late = (k: number) => event({ kind: 'tick', step: steps[k % 3]!.id, done: true, late: true }, 'Bob');
    const run = runOf([
      event({ kind: 'tick', step: steps[0]!.id, done: true }),
      ...Array.from({ length: 250 }, (_, k) => late(k)),
    ]);
    // What was signed stands as it was.
    expect([...run.done.keys()]).toEqual([steps[0]!.id]);
    const facts = lateFacts(steps, run);
    expect(facts[1]).toBe(`Ticked late: ${steps[1]!.text.slice(0, 200)} (Bob, ${late(0).at.slice(0, 10)})`);
    expect([facts.length, facts.at(-1)]).toEqual([201, 'and 50 more']);
  });
});
