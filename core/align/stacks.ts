import type { AlignStack, Drive, StackOption, StackPiece } from '../drive';

/** The plane that a stack of pieces brings a pulley to. Lengths mm, from the block's face. */
export interface StackPlane {
  id: string;
  pulley: string;
  planeMm: number;
  /** One standard deviation: the root of the pieces' squares. */
  plusMinusMm: number;
  /** All pieces off the same way at once. */
  worstMm: number;
}

/** One part taken for a piece that comes in several. */
export interface StackChoice {
  stack: string;
  piece: string;
  option: string;
}

/** A set of parts, and how far apart the planes are that it gives. */
export interface StackSet {
  choice: readonly StackChoice[];
  spreadMm: number;
  /** Of the spread: that of the highest and the lowest plane together. */
  plusMinusMm: number;
  /** Parts of it that are not on now, and what those cost. */
  changed: number;
  price: number;
  planes: readonly StackPlane[];
}

export interface SetSearch {
  sets: readonly StackSet[];
  /** How many there are in all. */
  count: number;
  /** There are more than are looked at, so none were. */
  tooMany: boolean;
}

/** So many sets of parts are looked at, at most. */
export const MOST_SETS = 1_000_000;
/** So many are told. */
export const SETS_TOLD = 200;

interface Part {
  name: string;
  mm: number;
  plusMinus?: number;
}

/** The stacks of the pulleys of a belt; all of the drive's where no belt is named. */
export function stacksOf({ align, belts }: Drive, beltId?: string): readonly AlignStack[] {
  const on = beltId === undefined ? null : belts.find(({ id }) => id === beltId)?.route;
  return (align?.stacks ?? []).filter(({ pulley }) => !on || on.some((stop) => stop.pulley === pulley));
}

/**
 * The plane of a stack as it is settled: a piece that comes in several counts as the one that was chosen, else the one
 * that is on, else the one of `choice`, else its first.
 */
export function planeOfStack({ id, pulley, pieces }: AlignStack, choice: readonly StackChoice[] = []): StackPlane {
  const parts = pieces.map((piece): Part => {
    const taken = choice.find(({ stack, piece: name }) => stack === id && name === piece.name)?.option;
    return partOf(piece, taken);
  });
  return { id, pulley, ...summed(parts) };
}

function partOf({ name, mm = 0, plusMinus = 0, options, chosen }: StackPiece, taken?: string): Part {
  const called = (wanted: string | undefined) => options?.find((option) => option.name === wanted);
  return (
    called(chosen) ?? options?.find(({ fitted }) => fitted) ?? called(taken) ?? options?.[0] ?? { name, mm, plusMinus }
  );
}

function summed(parts: readonly Part[]) {
  const each = parts.map(({ plusMinus = 0 }) => plusMinus);
  return {
    planeMm: parts.reduce((sum, { mm }) => sum + mm, 0),
    plusMinusMm: Math.hypot(...each),
    worstMm: each.reduce((sum, value) => sum + value, 0),
  };
}

/** Pieces that neither have a depth nor come in several. */
export const withoutDepth = ({ pieces }: AlignStack): StackPiece[] =>
  pieces.filter(({ mm, options }) => mm === undefined && !options?.length);

/** One way to make up a stack. */
interface Made extends StackPlane {
  choice: StackChoice[];
  changed: number;
  price: number;
}

/**
 * Every set of parts for pieces that come in several, ranked by how far apart the planes come to be, then by the parts
 * that have to change, then by their price; the best `SETS_TOLD`. None where there are not two stacks to line up, or
 * nothing comes in several.
 */
export function searchSets(stacks: readonly AlignStack[]): SetSearch {
  const open = stacks.some(({ pieces }) => pieces.some(({ options }) => options?.length));
  if (stacks.length < 2 || !open) return { sets: [], count: 0, tooMany: false };
  const count = stacks.reduce((all, stack) => all * waysToMake(stack), 1);
  if (count > MOST_SETS) return { sets: [], count, tooMany: true };
  const made = stacks.map(waysOf);
  const kept = new Best();
  // By counting through, for there may be a million: which way of each stack is in hand.
  const at = made.map(() => 0);
  for (let n = 0; n < count; n += 1) {
    kept.offer(at, made);
    for (let s = 0; s < at.length; s += 1) {
      at[s]! += 1;
      if (at[s]! < made[s]!.length) break;
      at[s] = 0;
    }
  }
  return { sets: kept.sets().map((which) => setOf(which.map((way, s) => made[s]![way]!))), count, tooMany: false };
}

const waysToMake = ({ pieces }: AlignStack) => pieces.reduce((all, { options }) => all * (options?.length || 1), 1);

function waysOf(stack: AlignStack): Made[] {
  let choices: { choice: StackChoice[]; taken: StackOption[] }[] = [{ choice: [], taken: [] }];
  for (const { name, options } of stack.pieces) {
    if (!options?.length) continue;
    choices = choices.flatMap(({ choice, taken }) =>
      options.map((option) => ({
        choice: [...choice, { stack: stack.id, piece: name, option: option.name }],
        taken: [...taken, option],
      })),
    );
  }
  return choices.map(({ choice, taken }) => {
    const parts: Part[] = [];
    let next = 0;
    for (const piece of stack.pieces) parts.push(piece.options?.length ? taken[next++]! : partOf(piece));
    const bought = taken.filter(({ fitted }) => !fitted);
    return {
      id: stack.id,
      pulley: stack.pulley,
      ...summed(parts),
      choice,
      changed: bought.length,
      price: bought.reduce((sum, { price = 0 }) => sum + price, 0),
    };
  });
}

function setOf(ways: readonly Made[]): StackSet {
  const high = ways.reduce((best, way) => (way.planeMm > best.planeMm ? way : best));
  const low = ways.reduce((best, way) => (way.planeMm < best.planeMm ? way : best));
  return {
    choice: ways.flatMap(({ choice }) => choice),
    spreadMm: high.planeMm - low.planeMm,
    plusMinusMm: high === low ? 0 : Math.hypot(high.plusMinusMm, low.plusMinusMm),
    changed: ways.reduce((sum, { changed }) => sum + changed, 0),
    price: ways.reduce((sum, { price }) => sum + price, 0),
    planes: ways.map(({ id, pulley, planeMm, plusMinusMm, worstMm }) => ({
      id,
      pulley,
      planeMm,
      plusMinusMm,
      worstMm,
    })),
  };
}

/** Spreads within this of one another come to the same, mm. */
const SAME_SPREAD = 1e-9;

/** The best sets so far, in no order until they are asked for; cut down whenever twice as many are held. */
class Best {
  #held: { which: number[]; spread: number; changed: number; price: number }[] = [];
  #worst = Infinity;

  offer(at: readonly number[], made: readonly (readonly Made[])[]): void {
    let [high, low] = [-Infinity, Infinity];
    for (let s = 0; s < at.length; s += 1) {
      const { planeMm } = made[s]![at[s]!]!;
      if (planeMm > high) high = planeMm;
      if (planeMm < low) low = planeMm;
    }
    const spread = high - low;
    if (spread > this.#worst + SAME_SPREAD) return;
    let [changed, price] = [0, 0];
    for (let s = 0; s < at.length; s += 1) {
      changed += made[s]![at[s]!]!.changed;
      price += made[s]![at[s]!]!.price;
    }
    this.#held.push({ which: [...at], spread, changed, price });
    if (this.#held.length >= 2 * SETS_TOLD) this.#cut();
  }

  sets(): number[][] {
    this.#cut();
    return this.#held.map(({ which }) => which);
  }

  #cut(): void {
    this.#held.sort((a, b) =>
      Math.abs(a.spread - b.spread) > SAME_SPREAD
        ? a.spread - b.spread
        : a.changed - b.changed || a.price - b.price || a.spread - b.spread,
    );
    this.#held.length = Math.min(this.#held.length, SETS_TOLD);
    if (this.#held.length === SETS_TOLD) this.#worst = this.#held.at(-1)!.spread;
  }
}
