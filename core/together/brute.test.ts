import fc from 'fast-check';
import { draws } from '../test/draws';
import { type Drive, newDrive, same } from '../drive';
import { changesBetween, merged } from './index';

/*
 * The merge held against one that is written apart: over small documents, every version both started with against every
 * two that can come of it. A document here is a name, two loads, a set of steps left out.
 */

interface Small {
  name: string | undefined;
  /** Amps and name of each load; not there where undefined. */
  loads: (readonly [amps: number, name: string | undefined] | undefined)[];
  leftOut: string[];
}

const NAMES = [undefined, 'a', 'b'];
const LOADS = [undefined, [1, undefined], [2, undefined], [1, 'lamp'], [2, 'lamp']] as const;
const SETS = [[], ['x'], ['y'], ['x', 'y']];

const driveOf = ({ name, loads, leftOut }: Small): Drive => {
  const { name: _, ...drive } = newDrive('');
  return {
    ...drive,
    ...(name !== undefined && { name }),
    loads: loads.flatMap((load, k) =>
      load ? [{ id: `l${k}`, amps: load[0], ...(load[1] && { name: load[1] }) }] : [],
    ),
    job: { leftOut },
  };
};

type Asked = string[];
/** Mine where only I changed it, theirs where only they did; where both did, theirs, and it is asked. */
function three<T>(base: T, mine: T, theirs: T, at: string, asked: Asked): T {
  if (same(mine, base)) return theirs;
  if (same(theirs, base) || same(mine, theirs)) return mine;
  asked.push(at);
  return theirs;
}

function bruteMerge(base: Small, mine: Small, theirs: Small): { small: Small; asked: Asked } {
  const asked: Asked = [];
  const loads = [0, 1].map((k) => {
    const [b, m, t] = [base.loads[k], mine.loads[k], theirs.loads[k]];
    if (!b || !m || !t) return three(b, m, t, `loads/l${k}`, asked);
    return [
      three(b[0], m[0], t[0], `loads/l${k}/amps`, asked),
      three(b[1], m[1], t[1], `loads/l${k}/name`, asked),
    ] as const;
  });
  const leftOut = ['x', 'y'].filter((step) =>
    three(
      ...([base, mine, theirs].map((small) => small.leftOut.includes(step)) as [boolean, boolean, boolean]),
      '',
      [],
    ),
  );
  const name = three(base.name, mine.name, theirs.name, 'name', asked);
  return { small: { name, loads, leftOut }, asked: [...new Set(asked)] };
}

/** The same whatever the order of items. */
const plain = ({ name, loads = [], job }: Drive) => ({
  name,
  loads: [...loads].sort((a, b) => (a.id < b.id ? -1 : 1)),
  leftOut: [...(job?.leftOut ?? [])].sort(),
});

function expectAsBrute(base: Small, mine: Small, theirs: Small): void {
  const { drive, clashes } = merged(driveOf(theirs), changesBetween(driveOf(base), driveOf(mine)));
  const { small, asked } = bruteMerge(base, mine, theirs);
  expect(plain(drive)).toEqual(plain(driveOf(small)));
  // One that changed the fields of an item that is gone asks of that item, once.
  const ways = clashes.flatMap(({ why, changes }) =>
    changes.map(({ at }) => (why === 'gone' ? at.slice(0, 2) : at).join('/')),
  );
  expect([...new Set(ways)].sort()).toEqual(asked.sort());
}

const smalls = (of: Partial<Record<keyof Small, boolean>>): Small[] =>
  (of.name ? NAMES : [undefined]).flatMap((name) =>
    (of.loads ? LOADS : [undefined]).flatMap((first) =>
      (of.leftOut ? SETS : [[]]).map((leftOut) => ({ name, loads: [first, undefined], leftOut })),
    ),
  );

test.each([[{ name: true, loads: true }], [{ leftOut: true, name: true }]])(
  'every version of %j that two can make of every one',
  (of) => {
    const all = smalls(of);
    let tried = 0;
    for (const base of all)
      for (const mine of all)
        for (const theirs of all) {
          expectAsBrute(base, mine, theirs);
          tried += 1;
        }
    expect(tried).toBe(all.length ** 3);
  },
);

test('all of it at once, drawn', () => {
  const small = fc.record<Small>({
    name: fc.constantFrom(...NAMES),
    loads: fc.tuple(fc.constantFrom(...LOADS), fc.constantFrom(...LOADS)) as fc.Arbitrary<Small['loads']>,
    leftOut: fc.constantFrom(...SETS),
  });
  fc.assert(fc.property(small, small, small, expectAsBrute), { numRuns: draws(8000) });
});
