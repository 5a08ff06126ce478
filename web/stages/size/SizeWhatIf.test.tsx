/** @jest-environment jsdom */
import { render, screen, within } from '@testing-library/react';
import SizeWhatIf from './SizeWhatIf';
import {
  addBelt,
  addStation,
  changeBelt,
  changeStation,
  type Drive,
  moveStation,
  newBelt,
  newDrive,
  newStation,
} from '@emery/core/drive';
import { sizeBelt } from '@emery/core/seating';
import { formatLength } from '@emery/core/quantity';

const stations = [
  ['crankshaft', 0, 0],
  ['power-steering', -150, 240],
  ['alternator', 180, 250],
] as const;
const empty = addBelt(newDrive('three'), newBelt(newDrive('three'), 'PK'));
const [BELT] = empty.belts.map(({ id }) => id);
const placed = stations.reduce<Drive>(
  (drive, [role, x, y]) => addStation(drive, newStation(drive, role, x, y, 'PK')),
  empty,
);
const [, PUMP] = placed.stations.map(({ id }) => id);
const plain = changeBelt(placed, BELT!, {
  route: placed.stations.map(({ pulleys }) => ({ pulley: pulleys[0]!.id, side: 'drive' as const })),
});
const fixed = changeStation(plain, PUMP!, { adjuster: { kind: 'fixed' } });
const slides = changeStation(plain, PUMP!, { adjuster: { kind: 'slide', direction: 120, travel: 40 } as never });
const taken = (drive: Drive, length: number) => changeBelt(drive, BELT!, { length });

const show = (before: Drive, after: Drive) => {
  render(<SizeWhatIf before={before} after={after} unit="mm" />);
  return screen
    .getAllByRole('row')
    .slice(1)
    .map((row) =>
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    );
};

test('on fixed centres a belt fits between two lengths, and one that is taken is told by its tension', () => {
  const path = sizeBelt(fixed, BELT!)!.window.slackEnd!;
  const before = taken(fixed, path - 6);
  const after = moveStation(before, PUMP!, -150, 243);
  const [window, sits] = show(before, after);
  for (const [k, drive] of [before, after].entries()) {
    const { fits, candidates } = sizeBelt(drive, BELT!, { lengths: [path - 6] })!;
    expect(window![k + 1]).toBe(`${formatLength(fits!.from, 'mm')} to ${formatLength(fits!.to, 'mm')}`);
    expect(sits![k + 1]).toContain(`${Math.round(candidates[0]!.tensionN!)} N`);
  }
  expect(sits![1]).not.toBe(sits![2]);
});

test('with an adjuster on one side alone: its window there, and what is missing here', () => {
  const [window, sits] = show(taken(plain, 1200), taken(slides, 1200));
  expect(window).toEqual(['Belt fits from', 'no adjuster given', expect.stringMatching(/^\d.* to \d/)]);
  expect(sits![1]).toBe('not known yet');
});

test('a belt without a path has neither window nor place', () => {
  const none = changeBelt(plain, BELT!, { route: [plain.belts[0]!.route[0]!] });
  const [window] = show(none, plain);
  expect(window!.slice(1)).toEqual(['no path', 'no adjuster given']);
});
