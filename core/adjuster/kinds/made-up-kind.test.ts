import { driveOf } from '../../test/examples';
import { type Adjuster, changeStation, type Drive, moveStation, type SlotPivot } from '../../drive';
import { cardOf, heldBy } from '../../job';
import { staticBeltOf } from '../../loads';
import { memoryOf } from '../../records';
import { sizeBelt } from '../../seating';
import { settingFor } from '../../tension';
import { adjusterKind, adjustersOf, newAdjuster, pathLength } from '../index';
import { ADJUSTER_KINDS } from './index';
import { type AdjusterKind, byScrewOrBar } from './kind';

/*
 * A kind of adjuster that no drive has: with its one record in the table, every sum and every sentence takes it. What
 * a record leaves out does not compile.
 */

/** An eccentric bush: the shaft sits off the middle of it, and goes out as it is turned. It stands a third turned. */
interface Eccentric {
  readonly kind: 'eccentric';
  readonly off: number;
}
const OFF = 6;
const NOW = 1 / 3;
const start = (): Eccentric => ({ kind: 'eccentric', off: OFF });
const outBy = ({ off }: Eccentric, fraction: number) => off * (1 - Math.cos(Math.PI * fraction));

const ECCENTRIC = {
  ...ADJUSTER_KINDS.slide,
  label: 'Eccentric bush',
  start,
  travel: (drive: Drive, { id, x, y }: Drive['stations'][number], adjuster: Eccentric) => ({
    station: id,
    kind: 'eccentric',
    reads: 'travel',
    at: (fraction: number) => moveStation(drive, id, x + outBy(adjuster, fraction) - outBy(adjuster, NOW), y),
    readingAt: (fraction: number) => outBy(adjuster, fraction),
    marks: null,
    now: NOW,
  }),
  asked: { lengths: [['off', 'Out of centre']] },
  setting: { ...byScrewOrBar(), pitches: () => null, barred: false, mmOf: 'the bush' },
  steps: {
    way: 'move',
    boltsOff: (station: string) => `the clamp bolt of ${station}`,
    boltsOn: (station: string) => `the clamp bolt of ${station}`,
    moves: { verb: 'Move', what: (station: string) => `the bush of ${station}` },
  },
};

// @ts-expect-error: a record without its steps.
export const SAYS_NO_STEPS: AdjusterKind<SlotPivot> = { ...ADJUSTER_KINDS['slot-pivot'], steps: undefined };
// @ts-expect-error: a field that its adjuster has not.
export const ASKS_TOO_MUCH: AdjusterKind<SlotPivot>['asked'] = { lengths: [['armLength', 'Arm length']] };

const table = ADJUSTER_KINDS as unknown as Record<string, unknown>;
const KINDS = Object.keys(ADJUSTER_KINDS) as Adjuster['kind'][];

beforeAll(() => {
  table['eccentric'] = ECCENTRIC;
});
afterAll(() => {
  delete table['eccentric'];
});

const bare = driveOf([
  ['crank', 0, 0, 160],
  ['alt', 300, 0, 60, 'drive', { role: 'alternator' }],
]);
const drive = changeStation(bare, 'alt', { adjuster: start() as unknown as Adjuster });
const belt = drive.belts[0]!;

test('it tightens its belt: the ends of its travel are the ends of the lengths that fit', () => {
  expect(newAdjuster('eccentric' as Adjuster['kind'], { x: 0, y: 0 })).toEqual(start());
  expect(adjustersOf(drive, belt).stations.map(({ id }) => id)).toEqual(['alt']);
  const { window } = sizeBelt(drive, 'main')!;
  const [slack, tight] = [-OFF / 2, (3 * OFF) / 2].map((by) => moveStation(bare, 'alt', 300 + by, 0)) as [Drive, Drive];
  expect(window.slackEnd).toBeCloseTo(pathLength(slack, belt)!, 6);
  expect(window.tightEnd).toBeCloseTo(pathLength(tight, belt)!, 6);
  // Two strands of 12 mm more, less what the smaller wrap of the crank gives back.
  expect(window.tightEnd! - window.slackEnd!).toBeGreaterThan(22);
  expect(window.tightEnd! - window.slackEnd!).toBeLessThan(24);
});

test('Tension says how far it is turned, Job how it is slackened and set, and what is due goes by it', () => {
  const standing = staticBeltOf(drive, 'main')!;
  const setting = settingFor(drive, standing, standing.tensionN + 100)!;
  expect(setting.mm).toBeGreaterThan(0);
  expect(setting).toMatchObject({ turns: null, barN: null, shims: null, pitches: [] });
  expect(heldBy(drive, belt)).toBe('eccentric');
  const card = cardOf(drive).steps.map(({ text }) => text);
  expect(card).toContainEqual(expect.stringContaining('the clamp bolt of Alternator before'));
  expect(card).toContainEqual(expect.stringContaining('Move the bush of Alternator to the left on the drawing'));
  expect(card).toContainEqual(expect.stringMatching(/^Tighten the clamp bolt of Alternator to the torque/));
  const fitted = { ...drive, belts: [{ ...belt, care: { fittedAt: '2026-01-01' } }] };
  expect(memoryOf(fitted).dues.map(({ text }) => text)).toContainEqual(
    expect.stringContaining('set it again after its run-in'),
  );
});

test.each(KINDS)('%s: it starts as itself, and what is asked of it are fields that it has', (kind) => {
  const { label, asked, start: begin } = adjusterKind(kind);
  expect(label).toMatch(/^[A-Z]/);
  const started = begin({ x: 100, y: 200 });
  expect(started.kind).toBe(kind);
  for (const [field] of [...(asked.places ?? []), ...(asked.lengths ?? []), ...(asked.angles ?? [])])
    expect(started).toHaveProperty(field);
});
