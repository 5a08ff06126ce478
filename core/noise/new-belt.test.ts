import { changeBelt, changeStation, type Drive } from '../drive';
import { changeTakenBack, partChanged } from '../inspect';
import { cardOf, runOf, signedOff } from '../job';
import { tensionOf } from '../loads';
import { measuredTension } from '../tension';
import { driveOf } from '../test/examples';
import { evidenceOf } from './evidence';
import { diagnose } from './diagnose';

/* A belt that was changed has none of the old one's readings, setting or noise: anywhere. */

const DAY = '2026-03-01T09:00:00Z';
const SPAN = { from: 'crank', to: 'alt' };
const LATER = '2026-06-10T10:00:00Z';

const old = (): Drive => {
  const drive = changeStation(
    driveOf(
      [
        ['crank', 0, 0, 150],
        ['alt', 260, 40, 70, 'drive', { role: 'alternator' }],
      ],
      { section: 'AV10' },
    ),
    'alt',
    { adjuster: { kind: 'slide', direction: 9, travel: 40 } },
  );
  const set = changeBelt(drive, 'main', {
    staticTension: 90,
    tensionReadings: [
      { id: 'r1', way: 'gauge', span: SPAN, newtons: 95, at: DAY, when: 'worn' },
      { id: 'r2', way: 'gauge', span: SPAN, newtons: 85, at: DAY, when: 'worn' },
    ],
  });
  const evidence = [
    { test: 'kind', outcome: 'squeal', at: DAY },
    { test: 'surface', outcome: 'oily', belt: 'main', at: DAY },
  ];
  return { ...set, noise: { evidence } };
};
const loose = (drive: Drive) => diagnose(drive).causes.find(({ cause }) => cause === 'loose')?.probability ?? 0;

test('the old belt is loose and squeals; the new one has no setting, no reading and no noise of it', () => {
  const before = old();
  expect(measuredTension(before, before.belts[0]!)!.at).toBeCloseTo(90, -1);
  const after = partChanged(before, { on: 'belt', target: 'main' }, { at: LATER }, 'worn');
  expect(after.belts[0]!.staticTension).toBeUndefined();
  expect(measuredTension(after, after.belts[0]!)).toBeNull();
  expect(tensionOf(after).staticBelts[0]!.from).toBe('default');
  expect(evidenceOf(after).counts.filter(({ from }) => from === 'hand')).toEqual([]);
  expect(loose(after)).toBeLessThan(loose(before) / 2);
});

test('taken back, everything stands as it did', () => {
  const before = old();
  const part = { on: 'belt', target: 'main' } as const;
  const back = changeTakenBack(partChanged(before, part, { at: LATER }), part);
  expect(back.belts[0]!.staticTension).toBe(90);
  expect(measuredTension(back, back.belts[0]!)!.at).toBeCloseTo(90, -1);
  expect(evidenceOf(back).counts.length).toBe(evidenceOf(before).counts.length);
});

test('what is read of the new belt counts, even while it is set and before the change is signed for', () => {
  const reading = (id: string, at: string, when: 'new' | 'worn', newtons: number) =>
    ({ id, way: 'gauge', span: SPAN, newtons, at, when }) as const;
  const read = (readings: Parameters<typeof changeBelt>[2]['tensionReadings']) => {
    const after = partChanged(
      changeBelt(old(), 'main', { tensionReadings: readings! }),
      { on: 'belt', target: 'main' },
      { at: LATER },
    );
    return measuredTension(after, after.belts[0]!)?.at ?? null;
  };
  expect(read([reading('a', DAY, 'worn', 90), reading('b', LATER, 'worn', 400)])).toBeCloseTo(400, 0);
  expect(read([reading('a', DAY, 'worn', 90), reading('b', '2026-06-10T08:00:00Z', 'new', 520)])).toBeCloseTo(520, 0);
  expect(read([reading('a', '2026-06-10T08:00:00Z', 'worn', 90)])).toBeNull();
});

test('a job signed off: the old setting goes, one that was set under way stays', () => {
  const before = old();
  const { steps } = cardOf(before);
  const run = runOf([{ id: 'e1', at: LATER, by: 'a', kind: 'belt', belt: 'main', fitted: 'new' } as never]);
  const sign = (now: Drive) => signedOff(now, { at: LATER, unit: 'km', steps, run, began: before });
  expect(sign(before).belts[0]!.staticTension).toBeUndefined();
  expect(sign(changeBelt(before, 'main', { staticTension: 560 })).belts[0]!.staticTension).toBe(560);
  expect(sign(before).inspect!.changed![0]).toMatchObject({ staticBefore: 90 });
});
