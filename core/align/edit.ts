import {
  type Align,
  type AlignMove,
  type AlignReading,
  changePulley,
  type Drive,
  findPulley,
  freeIdIn,
  itemsOf,
  putItem,
  seenTrack,
  type StackOption,
  stationOf,
  withItems,
} from '../drive';
import { hundredth } from '../numeric';
import { datumOf, datumSeatOf, seatOf } from '../planes';
import { groovesOf, movesShaft, type PlannedMove } from './plan';
import { planeOfStack, type StackChoice, stacksOf } from './stacks';

/* What the bench changes of a drive's alignment. Each is a pure function from drive to drive. */

export const changeAlign = (drive: Drive, change: Partial<Align>): Drive => ({
  ...drive,
  align: { ...drive.align, ...change },
});

/** Keeps a reading under an id of its own. */
export function keepReading(drive: Drive, reading: Omit<AlignReading, 'id'>): Drive {
  const id = freeIdIn('align', itemsOf(drive, 'align.readings'));
  return putItem(drive, 'align.readings', { id, ...reading });
}

/** Says what can be done to a pulley; the like of it that was said before is replaced. */
export function putMove(drive: Drive, move: AlignMove): Drive {
  return changeAlign(drive, { moves: [...withoutMove(drive, move), move] });
}

export const removeMove = (drive: Drive, move: AlignMove): Drive =>
  changeAlign(drive, { moves: withoutMove(drive, move) });

/** Inward and outward grooves of one pulley are two things. */
function withoutMove({ align }: Drive, move: AlignMove): AlignMove[] {
  const way = (other: AlignMove) => (other.kind === 'groove' ? Math.sign(groovesOf(other)[0] ?? 0) : 0);
  return (align?.moves ?? []).filter(
    (other) => other.pulley !== move.pulley || other.kind !== move.kind || way(other) !== way(move),
  );
}

/** Where a track was seen on a roller, and when (ISO 8601); null takes it out. */
export function seeTrack(drive: Drive, pulley: string, mm: number | null, date?: string): Drive {
  const others = (drive.align?.tracks ?? []).filter((track) => track.pulley !== pulley);
  if (mm === null) {
    // It may have been seen in an inspection: that is kept for the record, and counts no more.
    const { finding } = { finding: undefined, ...seenTrack(changeAlign(drive, { tracks: others }), pulley) };
    if (finding) return seeTrack(putItem(drive, 'inspect.findings', { ...finding, past: true }), pulley, null);
  }
  return changeAlign(drive, {
    tracks: mm === null ? others : [...others, { pulley, mm, ...(date !== undefined && { date }) }],
  });
}

/** Grooves counted free in front of a belt at a place of its route; null takes the count out. */
export function countFront(drive: Drive, beltId: string, at: number, front: number | null): Drive {
  return {
    ...drive,
    belts: drive.belts.map((belt) =>
      belt.id !== beltId
        ? belt
        : {
            ...belt,
            route: belt.route.map(({ front: old, ...stop }, k) => {
              if (k !== at) return old === undefined ? stop : { ...stop, front: old };
              return front === null ? stop : { ...stop, front };
            }),
          },
    ),
  };
}

/**
 * Moves that were carried out: written down as done, the readings of what was moved count no more, and a belt that went
 * over is where it now sits. `date` is ISO 8601.
 */
export function movesDone(drive: Drive, beltId: string, moves: readonly PlannedMove[], date: string): Drive {
  // A shaft moves whole: what was read of its other sheaves is another figure now, too.
  const moved = new Set(
    moves.flatMap((move) =>
      movesShaft(move) ? (stationOf(drive, move.pulley)?.pulleys ?? []).map(({ id }) => id) : [],
    ),
  );
  const on = new Set(drive.belts.find(({ id }) => id === beltId)?.route.map(({ pulley }) => pulley));
  // With the datum moved, all that was read against it is another figure now.
  const all = moved.has(datumOf(drive, beltId) ?? '');
  const readings = itemsOf(drive, 'align.readings').map((reading) =>
    moved.has(reading.pulley) || (all && on.has(reading.pulley)) ? { ...reading, past: true } : reading,
  );
  let next = withItems(drive, 'align.readings', readings);
  for (const { pulley, kind, mm, steps } of moves) {
    const id = freeIdIn('move', itemsOf(next, 'align.done'));
    const figures = { ...(mm !== undefined && { mm }), ...(steps !== undefined && { steps }) };
    next = putItem(next, 'align.done', { id, pulley, kind, ...figures, date });
    if (steps !== undefined) next = seatOver(next, beltId, pulley, steps);
  }
  return next;
}

function seatOver(drive: Drive, beltId: string, pulley: string, steps: number): Drive {
  const belt = drive.belts.find(({ id }) => id === beltId)!;
  const grooves = findPulley(drive, pulley)?.grooves;
  return belt.route.reduce((next, stop, at) => {
    if (stop.pulley !== pulley || grooves === undefined || belt.ribs === undefined) return next;
    const seat = seatOf(drive, belt, stop) ?? datumSeatOf(drive, belt);
    const front = grooves - belt.ribs - seat - steps;
    return front < 0 ? next : countFront(next, beltId, at, front);
  }, drive);
}

/** Settles on a set of parts: each piece that comes in several is the one of the set. */
export function takeSet(drive: Drive, choice: readonly StackChoice[]): Drive {
  return changeAlign(drive, {
    stacks: (drive.align?.stacks ?? []).map((stack) => ({
      ...stack,
      pieces: stack.pieces.map((piece) => {
        const taken = choice.find((choice) => choice.stack === stack.id && choice.piece === piece.name);
        return taken ? { ...piece, chosen: taken.option } : piece;
      }),
    })),
  });
}

/**
 * Draws the pulleys of a belt in the planes that their stacks come to, against the datum's; null where the datum has no
 * stack to count from, or no other pulley has one.
 */
export function drawnByStacks(drive: Drive, beltId: string, choice: readonly StackChoice[]): Drive | null {
  const datum = datumOf(drive, beltId);
  const planes = new Map(stacksOf(drive, beltId).map((stack) => [stack.pulley, planeOfStack(stack, choice).planeMm]));
  const from = datum === null ? undefined : planes.get(datum);
  if (from === undefined || planes.size < 2) return null;
  const level = findPulley(drive, datum!)?.plane ?? 0;
  return [...planes].reduce(
    (next, [pulley, mm]) => changePulley(next, pulley, { plane: hundredth(level + mm - from) }),
    drive,
  );
}

/** Puts a piece on a stack: with a depth of its own, or one more of the depths it comes in. */
export function putPiece(
  drive: Drive,
  stackId: string,
  { name, option, depth }: { name: string; option: string | null; depth: Omit<StackOption, 'name'> },
): Drive {
  const { mm, plusMinus, price, fitted } = depth;
  const doubt = plusMinus === undefined ? {} : { plusMinus };
  const made = { mm, ...doubt, ...(price !== undefined && { price }), ...(fitted && { fitted }) };
  return changeAlign(drive, {
    stacks: (drive.align?.stacks ?? []).map((stack) => {
      if (stack.id !== stackId) return stack;
      const old = stack.pieces.find((piece) => piece.name === name);
      const others = (old?.options ?? []).filter((otherOption) => otherOption.name !== option);
      const piece =
        option === null ? { name, mm, ...doubt } : { name, options: [...others, { name: option, ...made }] };
      return {
        ...stack,
        pieces: old
          ? stack.pieces.map((otherPiece) => (otherPiece === old ? piece : otherPiece))
          : [...stack.pieces, piece],
      };
    }),
  });
}

/** Takes a piece out, or one of the depths it comes in. */
export function removePiece(drive: Drive, stackId: string, name: string, option: string | null): Drive {
  return changeAlign(drive, {
    stacks: (drive.align?.stacks ?? []).map((stack) => ({
      ...stack,
      pieces:
        stack.id !== stackId
          ? stack.pieces
          : stack.pieces.flatMap((piece) => {
              if (piece.name !== name) return [piece];
              const left = (piece.options ?? []).filter((otherOption) => otherOption.name !== option);
              if (option === null || left.length === 0) return [];
              const { chosen, ...rest } = piece;
              return [{ ...rest, options: left, ...(chosen !== undefined && chosen !== option && { chosen }) }];
            }),
    })),
  });
}
