import type { ClosingCure, PathFinding } from './finding';
import type { ContactSolution } from './solution';
import { directedTangent, wrapBetween } from './tangent';

/**
 * Says why signed wraps do not sum to one turn, by the first cure that makes one: a pulley that shows the belt the
 * wrong face turned over, the whole list the other way round, one pulley left out, any pulley turned over. Within each,
 * the largest wrap first, for that is where a belt bends away from its pulley most. With no single cure that pulley is
 * named. `fitsFlipped` tells whether a contact's pulley would suit the other side of the belt better.
 */
export function blameTurns(
  contacts: readonly ContactSolution[],
  turns: number,
  sense: 1 | -1,
  fitsFlipped: (contact: ContactSolution) => boolean,
): PathFinding {
  const finding = (cure: ClosingCure, pulley?: string): PathFinding => ({
    code: 'not-closed',
    severity: 'fault',
    ...(pulley !== undefined && { pulley }),
    figures: { turns, cure },
  });
  const worstFirst = [...contacts].sort((a, b) => (b.wrapDeg ?? 0) - (a.wrapDeg ?? 0));
  const closesFlipped = (contact: ContactSolution) =>
    turnsOf(
      contacts.map((other) => (other === contact ? { ...other, turn: other.turn === 1 ? -1 : 1 } : other)),
      sense,
    ) === 1;
  const closesWithout = (contact: ContactSolution) =>
    contacts.length > 2 &&
    turnsOf(
      contacts.filter((other) => other !== contact),
      sense,
    ) === 1;

  const wrongFace = worstFirst.find((contact) => fitsFlipped(contact) && closesFlipped(contact));
  if (wrongFace) return finding('flip', wrongFace.pulley);
  if (contacts.length > 2 && turnsOf([...contacts].reverse(), sense) === 1) return finding('reverse');
  const spare = worstFirst.find(closesWithout);
  if (spare) return finding('remove', spare.pulley);
  const wrongSide = worstFirst.find(closesFlipped);
  if (wrongSide) return finding('flip', wrongSide.pulley);
  return finding('none', worstFirst[0]!.pulley);
}

function turnsOf(contacts: readonly ContactSolution[], sense: 1 | -1): number | null {
  const directions: number[] = [];
  for (const [index, from] of contacts.entries()) {
    const to = contacts[(index + 1) % contacts.length]!;
    const tangent = directedTangent(from.centre, from.cordRadius, from.turn, to.centre, to.cordRadius, to.turn);
    if (!tangent) return null;
    directions.push(tangent.direction);
  }
  const before = (index: number) => directions[(index + directions.length - 1) % directions.length]!;
  const sum = contacts.reduce(
    (total, { turn }, index) => total + turn * wrapBetween(turn, before(index), directions[index]!),
    0,
  );
  return Math.round((sense * sum) / (2 * Math.PI));
}
