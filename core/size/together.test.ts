import { driveOf } from '../test/examples';
import { pathLength, travelFromSlack } from '../adjuster';
import type { Drive } from '../drive';
import { sharingAdjuster, sizeTogether } from './together';

/** An alternator on a slide with two sheaves: one belt from the crank, one from the pump, both AV10. */
function twoBelts(same = false): Drive {
  const drive = driveOf(
    [
      ['crank', 0, 0, 160],
      ['alt', 300, 0, 70],
    ],
    { id: 'a', section: 'AV10' },
    { crankRotation: 'cw' },
  );
  const [crank, alt] = drive.stations;
  return {
    ...drive,
    stations: [
      { ...crank!, pulleys: [...crank!.pulleys, { id: 'crank-2', surface: 'vee', diameter: 160, plane: 14 }] },
      {
        ...alt!,
        adjuster: { kind: 'slide', direction: 0, travel: 40 },
        pulleys: [...alt!.pulleys, { id: 'alt-2', surface: 'vee', diameter: 70, plane: 14 }],
      },
      {
        id: 'pump',
        role: 'water-pump',
        x: 40,
        y: 200,
        pulleys: [{ id: 'pump-2', surface: 'vee', diameter: 120, plane: 14 }],
      },
    ],
    belts: [
      drive.belts[0]!,
      {
        id: 'b',
        section: 'AV10',
        length: null,
        route: [
          { pulley: 'crank-2', side: 'drive' },
          ...(same ? [] : [{ pulley: 'pump-2', side: 'drive' as const }]),
          { pulley: 'alt-2', side: 'drive' },
        ],
      },
    ],
  };
}

test('belts that one shaft tightens are found, and the pair that comes right at one position is the best', () => {
  const drive = twoBelts();
  const [a, b] = drive.belts as [Drive['belts'][number], Drive['belts'][number]];
  expect(sharingAdjuster(drive, a).map(({ id }) => id)).toEqual(['b']);
  const there = travelFromSlack(drive, a)!.at(0.45);
  const right = [pathLength(there, a)!, pathLength(there, b)!] as const;
  const { pairs, matched } = sizeTogether(drive, 'a', 'b', {
    first: [right[0] - 20, right[0], right[0] + 9],
    second: [right[1] - 14, right[1], right[1] + 25],
  })!;
  expect(pairs[0]!.lengths).toEqual(right);
  expect(pairs[0]!.looseNew).toBeCloseTo(0, 6);
  expect(pairs[0]!.fraction).toBeCloseTo(0.45, 6);
  // The longer belt stretches more than the shift of the shaft gives it.
  expect(pairs[0]!.looseWorn).not.toBeCloseTo(0, 3);
  expect(matched).toBe(false);
});

test('two belts side by side on twin sheaves are a matched set', () => {
  const drive = twoBelts(true);
  const { matched, pairs } = sizeTogether(drive, 'a', 'b', { first: [1010], second: [1010, 1022] })!;
  expect(matched).toBe(true);
  expect(pairs[0]!.lengths).toEqual([1010, 1010]);
});

test('belts without a common adjuster have no answer together', () => {
  const drive = twoBelts();
  expect(
    sizeTogether(
      { ...drive, stations: drive.stations.map((s) => ({ ...s, adjuster: undefined as never })) },
      'a',
      'b',
      { first: [1], second: [1] },
    ),
  ).toBeNull();
  expect(sizeTogether(drive, 'a', 'ghost', { first: [1], second: [1] })).toBeNull();
});
