import type { Change } from './change';
import { PATCH_WORDS } from './words';

/** So many changes go in one patch; a day's work on one drive is some hundreds. */
export const MOST_CHANGES = 5000;
/** Lists within lists within an item: no way is longer. */
const MOST_STEPS = 12;
/** A point or an observation is known by all that it says. */
const LONGEST_STEP = 400;

const isText = (value: unknown): value is string => typeof value === 'string' && value.length <= LONGEST_STEP;
const isTexts = (value: unknown, max: number): value is string[] =>
  Array.isArray(value) && value.length <= max && value.every(isText);
const isMissingOr = (is: (value: unknown) => boolean, value: unknown) => value === undefined || is(value);

/** What is wrong with one change, as it came; null where nothing is. What it puts in is looked at once it is in. */
function wrongWith(value: unknown): string | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return PATCH_WORDS.object;
  const { at, add, drop, order, from, after, before, hash } = value as Readonly<Record<string, unknown>>;
  if (!isTexts(at, MOST_STEPS) || at.length === 0) return PATCH_WORDS.at(MOST_STEPS);
  if ([add !== undefined, drop !== undefined, order !== undefined, 'now' in value].filter(Boolean).length > 1)
    return PATCH_WORDS.oneThing;
  if (!isMissingOr((flag) => flag === true, drop)) return PATCH_WORDS.drop;
  if (order !== undefined && !(isTexts(order, MOST_CHANGES) && isTexts(from, MOST_CHANGES))) return PATCH_WORDS.order;
  if (![after, before, hash].every((text) => isMissingOr(isText, text))) return PATCH_WORDS.texts(LONGEST_STEP);
  return null;
}

/** Reads the changes of a patch; the first fault is told with its place. */
export function readChanges(
  value: unknown,
): { ok: true; changes: Change[] } | { ok: false; problem: { path: string; message: string } } {
  if (!Array.isArray(value)) return { ok: false, problem: { path: 'changes', message: PATCH_WORDS.list } };
  if (value.length > MOST_CHANGES)
    return { ok: false, problem: { path: 'changes', message: PATCH_WORDS.many(MOST_CHANGES) } };
  for (const [k, change] of value.entries()) {
    const message = wrongWith(change);
    if (message) return { ok: false, problem: { path: `changes[${k}]`, message } };
  }
  return { ok: true, changes: value as Change[] };
}
