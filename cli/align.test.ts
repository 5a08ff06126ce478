import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { emery } from './test/emery';
import { planFor, searchSets, stacksOf } from '@emery/core/align';
import { type Drive, driveDifferences, readDrive } from '@emery/core/drive';
import { alignmentOf } from '@emery/core/planes';

const folder = mkdtempSync(path.join(tmpdir(), 'emery-align-'));
afterAll(() => rmSync(folder, { recursive: true }));

const truck = 'demo/1-rescue-truck.emery.json';
const van = 'demo/3-mobile-kitchen-van.emery.json';
const driveIn = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Drive;
/** The demo truck with its alignment changed, as a file. */
function changed(name: string, align: object): string {
  const file = path.join(folder, `${name}.emery.json`);
  const drive = driveIn(truck);
  writeFileSync(file, JSON.stringify({ ...drive, align: { ...drive.align, ...align } }));
  return file;
}

interface Printed {
  pulleys: { pulley: string; offsetMm: number; plusMinusMm: number; tiltXDeg: number; tiltYDeg: number }[];
  runs: { from: string; to: string; over: string[]; lengthMm: number; leaveDeg: number; verdict: string }[];
  plan: object[];
  after: { worstDeg: number };
  stacks: object[];
  combinations: { choice: object[]; spreadMm: number; plusMinusMm: number }[];
  findings: { code: string; message: string }[];
}

test('align prints what core has: planes, runs in travel order, the first plan and what it leaves', () => {
  const { status, stdout } = emery('align', truck, '--belt', 'main');
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as Printed;
  const drive = driveIn(truck);
  const alignment = alignmentOf(drive, 'main')!;
  expect(printed.pulleys.map(({ pulley, offsetMm }) => [pulley, offsetMm])).toEqual(
    alignment.planes.map(({ pulley, offset }) => [pulley, offset]),
  );
  expect(printed.runs.map(({ from, to, over, leaveDeg, verdict }) => ({ from, to, over, leaveDeg, verdict }))).toEqual(
    alignment.runs.map(({ from, to, over, leaveDeg, verdict }) => ({ from, to, over, leaveDeg, verdict })),
  );
  const [plan] = planFor(drive, alignment).plans;
  expect(printed.plan).toEqual(plan!.moves);
  expect(printed.plan).toEqual([{ pulley: 'steer-1', kind: 'press', mm: expect.any(Number) as number }]);
  expect(printed.after.worstDeg).toBe(plan!.worstDeg);
  for (const { message } of printed.findings) expect(message).toMatch(/^[A-Z0-9].*\.$/);
});

test('what brings the runs no further than watch is no plan, and told apart', () => {
  const file = changed('far', { moves: [{ pulley: 'steer-1', kind: 'press', min: -1.6, max: 0 }] });
  const printed = JSON.parse(emery('align', file, '--belt', 'main').stdout) as Printed & {
    watchPlan: object[];
    afterWatchPlan: { worstDeg: number };
  };
  expect(printed.plan).toEqual([]);
  expect(printed.after.worstDeg).toBeGreaterThan(1);
  expect(printed.watchPlan).toEqual([{ pulley: 'steer-1', kind: 'press', mm: expect.closeTo(-1.6, 6) as number }]);
  expect(printed.afterWatchPlan.worstDeg).toBeLessThanOrEqual(1);
  expect(printed.findings.map(({ code }) => code)).toContain('only-watch');
});

test('the runs lie along the spans that solve prints', () => {
  const solved = JSON.parse(emery('solve', truck).stdout) as {
    belts: {
      spans: { from: string; length: number }[];
      contacts: { pulley: string; wrapDeg: number; cordRadius: number }[];
    }[];
  };
  const { runs } = JSON.parse(emery('align', truck, '--belt', 'main').stdout) as Printed;
  const { spans, contacts } = solved.belts[0]!;
  const span = (from: string) => spans.find((span) => span.from === from)!.length;
  for (const { from, over, lengthMm } of runs) {
    const arcs = over.map((id) => contacts.find(({ pulley }) => pulley === id)!);
    const along = arcs.reduce((sum, { wrapDeg, cordRadius }) => sum + (wrapDeg * cordRadius * Math.PI) / 180, 0);
    expect(lengthMm).toBeCloseTo(along + [from, ...over].reduce((sum, id) => sum + span(id), 0), 9);
  }
});

test('stacks and their sets are those of the belt that is asked for; a stack without a choice has no set', () => {
  const fridge = JSON.parse(emery('align', van, '--belt', 'fridge').stdout) as Printed;
  const { sets } = searchSets(stacksOf(driveIn(van), 'fridge'));
  expect(fridge.combinations.map(({ choice, spreadMm }) => ({ choice, spreadMm }))).toEqual(
    sets.map(({ choice, spreadMm }) => ({ choice, spreadMm })),
  );
  expect(fridge.stacks).toHaveLength(2);
  expect(JSON.parse(emery('align', van, '--belt', 'main').stdout)).toMatchObject({ stacks: [], combinations: [] });
});

test('exact readings and parts, and grooves as a list, are read', () => {
  const file = changed('exact', {
    readings: [{ id: 'e', tool: 'laser', pulley: 'alt-1', at: 0, mm: 1.5, plusMinus: 0 }],
    moves: [{ pulley: 'alt-1', kind: 'groove', steps: [-1, 1] }],
    stacks: [{ id: 's', pulley: 'alt-1', pieces: [{ name: 'all', mm: 50, plusMinus: 0 }] }],
  });
  const { status, stdout } = emery('align', file, '--belt', 'main');
  expect(status).toBe(0);
  const { pulleys, stacks } = JSON.parse(stdout) as Printed;
  expect(pulleys.find(({ pulley }) => pulley === 'alt-1')).toMatchObject({
    offsetMm: expect.closeTo(1.5, 9) as number,
  });
  expect(stacks).toEqual([{ id: 's', planeMm: 50, plusMinusMm: 0, worstMm: 0 }]);
});

test.each([
  [{ readings: [{ id: 'a', tool: 'laser', pulley: 'none', mm: 1 }] }, /align\.readings\[0\]\.pulley/],
  [{ readings: [{ id: 'a', tool: 'stick', pulley: 'alt-1', mm: 1 }] }, /align\.readings\[0\]\.tool/],
  [{ readings: [{ id: 'a', tool: 'laser', pulley: 'alt-1', mm: 'far' }] }, /align\.readings\[0\]\.mm/],
  [{ moves: [{ pulley: 'alt-1', kind: 'bend' }] }, /align\.moves\[0\]\.kind/],
  [{ moves: [{ pulley: 'alt-1', kind: 'groove', steps: 0.5 }] }, /align\.moves\[0\]\.steps/],
  [{ stacks: [{ id: 's', pulley: 'alt-1', pieces: [{ mm: 1 }] }] }, /align\.stacks\[0\]\.pieces\[0\]\.name/],
])('a bad alignment is one line that names the field: %j', (align, line) => {
  const { status, stderr } = emery('align', changed('bad', align), '--belt', 'main');
  expect(status).toBe(2);
  expect(stderr).toMatch(line);
  expect(stderr.trim().split('\n')).toHaveLength(1);
});

test('align without a belt, or with one there is none of, says so', () => {
  expect(emery('align', truck)).toMatchObject({ status: 2, stderr: expect.stringContaining('--belt ID') as string });
  expect(emery('align', truck, '--belt', 'x').stderr).toContain('this drive has main');
});

test('what differs in two alignments is told by pulley, and no reading is lost in it', () => {
  const mine = driveIn(truck);
  const [first, ...others] = mine.align!.readings!;
  const theirs: Drive = {
    ...mine,
    align: {
      ...mine.align,
      readings: [{ ...first!, mm: 7 }, ...others.slice(1)],
      tracks: [{ pulley: 'pump-1', mm: 4 }],
    },
  };
  expect(readDrive(JSON.parse(JSON.stringify(theirs)))).toMatchObject({ ok: true });
  const texts = driveDifferences(mine, theirs, 'mm').map(({ part, text }) => `${part} | ${text}`);
  expect(texts).toEqual([
    'Alignment | Steering pump, reading 1: offset 6.2 mm in yours, 7.0 mm in theirs',
    'Alignment | Steering pump, reading 2: only in yours',
    'Alignment | Track on Water pump: off the middle 2.5 mm in yours, 4.0 mm in theirs',
  ]);
});
