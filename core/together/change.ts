import { same } from '../drive';

/**
 * The way to a field or an item: names of fields, and of a list the key of one of its items, as the field table
 * (`merge-rules.ts`) says what each list is known by.
 */
export type Way = readonly string[];

/** What stood there before, or the digest of it where that is shorter; neither where nothing did. */
export interface Before {
  readonly was?: unknown;
  readonly hash?: string;
}

/** A field, or fields that are one answer, with another value; without `now` it is taken out. */
export interface SetField extends Before {
  readonly at: Way;
  readonly now?: unknown;
}
/** An item put into a list after the one of that key, or before the other; first where neither is there. */
export interface AddItem {
  readonly at: Way;
  readonly add: unknown;
  readonly after?: string;
  readonly before?: string;
}
/** An item taken out of a list. */
export interface DropItem extends Before {
  readonly at: Way;
  readonly drop: true;
}
/** Items of a list in another order. */
export interface OrderItems {
  readonly at: Way;
  readonly order: readonly string[];
  readonly from: readonly string[];
}

/** One thing that somebody did to a drive. It holds what it was done to, so that it can be done to a later version. */
export type Change = SetField | AddItem | DropItem | OrderItems;

export const isAdd = (change: Change): change is AddItem => 'add' in change;
export const isDrop = (change: Change): change is DropItem => 'drop' in change;
export const isOrder = (change: Change): change is OrderItems => 'order' in change;

/** Longer values than this go as a digest, as JSON. */
const LONGEST = 60;

/** What stood there, as a change holds it. */
export function beforeOf(value: unknown): Before {
  if (value === undefined) return {};
  return (JSON.stringify(value) ?? '').length <= LONGEST ? { was: value } : { hash: digest(value) };
}

/** Whether something is what a change was made to. */
export function isAsBefore(value: unknown, { was, hash }: Before): boolean {
  return hash === undefined ? same(value, was) : value !== undefined && digest(value) === hash;
}

/** As JSON with the fields of every object in one order, so that the same is written the same; '' for what has none. */
function canonical(value: unknown): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? '';
  if (Array.isArray(value)) return `[${value.map((part) => canonical(part) || 'null').join(',')}]`;
  const fields: string[] = [];
  for (const key of Object.keys(value).sort()) {
    const text = canonical((value as Readonly<Record<string, unknown>>)[key]);
    if (text !== '') fields.push(`${JSON.stringify(key)}:${text}`);
  }
  return `{${fields.join(',')}}`;
}

/** A name of 53 bits for a value: two FNV-1a sums over its JSON, with different starts. */
export function digest(value: unknown): string {
  const text = canonical(value);
  let [a, b] = [0x811c9dc5, 0x01000193 ^ text.length];
  for (let k = 0; k < text.length; k += 1) {
    const code = text.charCodeAt(k);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ code, 0x85ebca6b) ^ (b >>> 13);
  }
  return `${(a >>> 0).toString(36)}.${(b >>> 0).toString(36)}`;
}
