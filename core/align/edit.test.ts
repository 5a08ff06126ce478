import { driveOf, SERPENTINE } from '../test/examples';
import type { Drive } from '../drive';
import {
  countFront,
  drawnByStacks,
  keepReading,
  movesDone,
  nextLoadedReadings,
  partRow,
  planeOfStack,
  putMove,
  putPiece,
  readPartRow,
  removeMove,
  removePiece,
  seeTrack,
  takeSet,
} from './index';

const drive = driveOf(
  SERPENTINE.map(([id, x, y, diameter, side = 'drive', more]) => [id, x, y, diameter, side, { ...more, grooves: 7 }]),
  {},
  { crankRotation: 'cw' },
);

test('moves done are written down, their readings are past, and a belt that went over is where it now sits', () => {
  let now = keepReading(drive, { tool: 'laser', pulley: 'alt', mm: 3 });
  now = keepReading(now, { tool: 'laser', pulley: 'ac', mm: 1 });
  now = countFront(now, 'main', 5, 1);
  const moves = [
    { pulley: 'alt', kind: 'press' as const, mm: -3 },
    { pulley: 'ac', kind: 'groove' as const, steps: 1 },
  ];
  const { align, belts } = movesDone(now, 'main', moves, '2026-11-25T08:00:00.000Z');
  expect(align!.readings!.map(({ pulley, past }) => [pulley, past])).toEqual([
    ['alt', true],
    ['ac', undefined],
  ]);
  expect(align!.done).toMatchObject([
    { kind: 'press', mm: -3 },
    { kind: 'groove', steps: 1 },
  ]);
  expect(belts[0]!.route[5]).toEqual({ pulley: 'ac', side: 'drive', front: 0 });
  expect(countFront({ ...now, belts }, 'main', 5, null).belts[0]!.route[5]).toEqual({ pulley: 'ac', side: 'drive' });
});

test('with the crank moved nothing that was read against it counts any more', () => {
  const now = keepReading(keepReading(drive, { tool: 'laser', pulley: 'alt', mm: 3 }), {
    tool: 'laser',
    pulley: 'ac',
    mm: 1,
  });
  const { align } = movesDone(now, 'main', [{ pulley: 'crank', kind: 'hub', mm: 2 }], '2026-11-25T08:00:00.000Z');
  expect(align!.readings!.map(({ past }) => past)).toEqual([true, true]);
});

test('possible moves is said once a pulley and kind, grooves once each way; a track once a roller', () => {
  let now = putMove(drive, { pulley: 'alt', kind: 'press', min: -1, max: 1 });
  now = putMove(now, { pulley: 'alt', kind: 'press', min: -2, max: 2 });
  now = putMove(now, { pulley: 'alt', kind: 'groove', steps: 1 });
  now = putMove(now, { pulley: 'alt', kind: 'groove', steps: -1 });
  expect(now.align!.moves).toHaveLength(3);
  now = removeMove(now, { pulley: 'alt', kind: 'groove', steps: -1 });
  expect(now.align!.moves!.map((move) => (move.kind === 'groove' ? move.steps : move.kind))).toEqual(['press', 1]);
  now = seeTrack(seeTrack(now, 'ten', 2), 'ten', 3);
  expect(now.align!.tracks).toEqual([{ pulley: 'ten', mm: 3 }]);
  expect(seeTrack(now, 'ten', null).align!.tracks).toEqual([]);
});

test('a stack: pieces and the depths they come in go on and off, what is settled on counts, else what is on', () => {
  const stacked: Drive = { ...drive, align: { stacks: [{ id: 's', pulley: 'alt', pieces: [] }] } };
  const put = (d: Drive, name: string, option: string | null, mm: number, fitted = false) =>
    putPiece(d, 's', { name, option, depth: { mm, plusMinus: 0.3, ...(fitted && { fitted }) } });
  let now = put(stacked, 'bracket', null, 40);
  now = put(put(put(now, 'hub', 'a', 5), 'hub', 'b', 7, true), 'hub', 'c', 9);
  const plane = (d: Drive, choice = {}) =>
    planeOfStack(d.align!.stacks![0]!, [{ stack: 's', piece: 'hub', option: 'c', ...choice }]);
  expect(plane(now)).toMatchObject({ planeMm: 47, worstMm: 0.6 });
  expect(plane(now).plusMinusMm).toBeCloseTo(0.3 * Math.SQRT2, 12);
  expect(plane(takeSet(now, [{ stack: 's', piece: 'hub', option: 'a' }])).planeMm).toBe(45);
  now = removePiece(now, 's', 'hub', 'b');
  expect(plane(now).planeMm).toBe(49);
  now = removePiece(removePiece(now, 's', 'hub', 'a'), 's', 'hub', 'c');
  expect(now.align!.stacks![0]!.pieces.map(({ name }) => name)).toEqual(['bracket']);
});

test('the pulleys are drawn in the planes of their stacks, against the crank; without its stack they are not', () => {
  const stack = (pulley: string, mm: number) => ({ id: pulley, pulley, pieces: [{ name: 'all', mm }] });
  const shown = (...stacks: ReturnType<typeof stack>[]) => drawnByStacks({ ...drive, align: { stacks } }, 'main', []);
  const drawn = shown(stack('crank', 60), stack('alt', 62.5), stack('ac', 59))!;
  const planes = new Map(drawn.stations.flatMap(({ pulleys }) => pulleys.map(({ id, plane }) => [id, plane])));
  expect([planes.get('crank'), planes.get('alt'), planes.get('ac'), planes.get('pump')]).toEqual([0, 2.5, -1, 0]);
  expect(shown(stack('alt', 62.5), stack('ac', 59))).toBeNull();
});

test('under load a pulley is read where it was at rest, once', () => {
  let now = keepReading(drive, { tool: 'laser', pulley: 'alt', at: -90, mm: 0 });
  now = keepReading(now, { tool: 'laser', pulley: 'ac', mm: 0 });
  const next = (d: Drive) => nextLoadedReadings(d, { belt: d.belts[0]! });
  expect(next(now)).toEqual([
    { pulley: 'alt', at: -90 },
    { pulley: 'ac', at: 90 },
  ]);
  expect(next(keepReading(now, { tool: 'laser', pulley: 'alt', mm: 1, load: true }))).toHaveLength(1);
});

test.each([
  [{ label: 'x', depth: '1000.5' }, 'depth'],
  [{ label: ' ', depth: 1 }, 'label'],
  [{ label: 'x', depth: 1, kind: 'toaster' }, 'kind'],
  [{ label: 'x', depth: 1, plusminus: '-1' }, 'plusminus'],
  [{ label: 'x', depth: 1, price: 'cheap' }, 'price'],
  [{ label: 'x', depth: 1, count: 0.5 }, 'count'],
])('a part written as %j is refused by its %s', (row, column) => {
  expect(readPartRow(row)).toMatchObject({ ok: false, column });
});

test('a part comes out of a list as it went in, a name like a formula too', () => {
  const part = { label: '=1+1', kind: 'hub' as const, mm: 38.25, plusMinus: 0.2, price: null, count: 3 };
  expect(readPartRow(partRow(part))).toEqual({ ok: true, part });
});
