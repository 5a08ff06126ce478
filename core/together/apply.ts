import { type Drive, fieldsNamed, isLastWriter, isListKnown, type Json, listMerge, same } from '../drive';
import {
  type AddItem,
  type Change,
  type DropItem,
  isAdd,
  isAsBefore,
  isDrop,
  isOrder,
  type OrderItems,
} from './change';
import type { SetField } from './change';
import { keyed, own, picked } from './changes-between';

/**
 * Why a change cannot be made as it was meant: what it was made to has another value; what holds it is gone; an item of
 * its key is there and is another; together with what others did the drive would name nothing or not be one; a list has
 * no room.
 */
export type ClashWhy = 'changed' | 'gone' | 'there' | 'unfit' | 'full';

export interface Outcome {
  drive: Drive;
  clash: ClashWhy | null;
}

/** `asMeant` makes a change only to what it was made to; `forced` makes it to whatever is there, where it can. */
export type Manner = 'asMeant' | 'forced';

/** Makes one change to a drive; the drive stays as it is where it clashes. */
export function applied(drive: Drive, change: Change, manner: Manner = 'asMeant'): Outcome {
  const toList = isAdd(change) || isDrop(change);
  const depth = isOrder(change) ? change.at.length : change.at.length - 1;
  const last = change.at[change.at.length - 1] ?? '';
  const edit = (holder: unknown, way: string): Edited => {
    if (isOrder(change)) return ordered(holder, change, way, manner);
    if (toList || isListAt(holder, way)) return itemEdited((holder ?? []) as unknown[], change, last, way, manner);
    return fieldSet((holder ?? {}) as Json, change, last, way, manner);
  };
  const { value, clash } = edited(drive, change.at.slice(0, depth), '', edit);
  return { drive: clash ? drive : (value as Drive), clash: clash ?? null };
}

/** Makes changes to a drive, whatever is there: what has nowhere to go is left out. */
export const forced = (drive: Drive, changes: readonly Change[]): Drive =>
  changes.reduce((now, change) => applied(now, change, 'forced').drive, drive);

interface Edited {
  value?: unknown;
  clash?: ClashWhy;
}

const isListAt = (value: unknown, way: string) => (value === undefined ? isListKnown(way) : Array.isArray(value));

/** `edit` made to what stands at a way; objects on the way there are made, items of lists are not. */
function edited(
  value: unknown,
  at: readonly string[],
  way: string,
  edit: (value: unknown, way: string) => Edited,
): Edited {
  const [step, ...rest] = at;
  if (step === undefined) return edit(value, way);
  if (isListAt(value, way)) {
    const items = keyed((value ?? []) as unknown[], listMerge(way));
    const found = items.find(({ key }) => key === step);
    if (!found) return { clash: 'gone' };
    const inner = edited(found.item, rest, way, edit);
    return inner.clash ? inner : { value: items.map((entry) => (entry === found ? inner.value : entry.item)) };
  }
  if (value !== undefined && (typeof value !== 'object' || value === null)) return { clash: 'changed' };
  const holder = (value ?? {}) as Json;
  const inner = edited(own(holder, step), rest, way === '' ? step : `${way}.${step}`, edit);
  return inner.clash ? inner : { value: withField(holder, step, inner.value) };
}

/** What stands at a way, and the way without keys; nothing where there is none. */
export function lookedUp(drive: Drive, at: readonly string[]): { value: unknown; way: string } {
  let [value, way] = [drive as unknown, ''];
  for (const step of at) {
    if (isListAt(value, way))
      value = keyed((value ?? []) as unknown[], listMerge(way)).find(({ key }) => key === step)?.item;
    else {
      value = typeof value === 'object' && value !== null ? own(value as Json, step) : undefined;
      way = way === '' ? step : `${way}.${step}`;
    }
  }
  return { value, way };
}

function withField(holder: Json, field: string, value: unknown): Json {
  if (value !== undefined)
    return Object.hasOwn(holder, field) && holder[field] === value ? holder : { ...holder, [field]: value };
  return Object.fromEntries(Object.entries(holder).filter(([name]) => name !== field));
}

function fieldSet(holder: Json, change: SetField, name: string, way: string, manner: Manner): Edited {
  const fields = fieldsNamed(way, name);
  const isOne = fields.length === 1 && fields[0] === name;
  const now = isOne ? own(holder, name) : picked(holder, fields);
  if (same(now, change.now)) return { value: holder };
  if (manner === 'asMeant' && !isAsBefore(now, change) && !isLastWriter(way, name)) return { clash: 'changed' };
  if (isOne) return { value: withField(holder, name, change.now) };
  const values = (change.now ?? {}) as Json;
  return { value: fields.reduce((made, field) => withField(made, field, own(values, field)), holder) };
}

type ItemChange = AddItem | DropItem | SetField;

function itemEdited(list: unknown[], change: ItemChange, key: string, way: string, manner: Manner): Edited {
  const items = keyed(list, listMerge(way));
  const found = items.find((entry) => entry.key === key);
  if (isAdd(change)) {
    if (!found) return { value: inserted(items, change) };
    if (same(found.item, change.add)) return { value: list };
    return manner === 'forced' ? { value: replaced(items, key, change.add) } : { clash: 'there' };
  }
  if (!found) return isDrop(change) ? { value: list } : { clash: 'gone' };
  if (isDrop(change)) {
    if (manner === 'asMeant' && !isAsBefore(found.item, change)) return { clash: 'changed' };
    return { value: items.filter((entry) => entry !== found).map(({ item }) => item) };
  }
  if (same(found.item, change.now)) return { value: list };
  if (manner === 'asMeant' && !isAsBefore(found.item, change)) return { clash: 'changed' };
  return { value: replaced(items, key, change.now) };
}

interface Keyed {
  key: string;
  item: unknown;
}

const replaced = (items: readonly Keyed[], key: string, by: unknown) =>
  items.map((entry) => (entry.key === key ? by : entry.item));

/** Before the item that it stood before; between the two that it stood between where these were turned round. */
function inserted(items: readonly Keyed[], { add, after, before }: AddItem): unknown[] {
  const placeOf = (key: string | undefined) => items.findIndex((entry) => entry.key === key);
  const [previous, next] = [placeOf(after), placeOf(before)];
  const list = items.map(({ item }) => item);
  return list.toSpliced(placeBetween(previous, next, before === undefined, list.length), 0, add);
}

function placeBetween(previous: number, next: number, wasLast: boolean, length: number): number {
  if (next >= 0) return previous === next + 1 ? previous : next;
  return previous < 0 || wasLast ? length : previous + 1;
}

/** What others put in stays behind the item that it stands behind now. */
function ordered(holder: unknown, { order, from }: OrderItems, way: string, manner: Manner): Edited {
  const items = keyed((holder ?? []) as unknown[], listMerge(way));
  const there = new Map(items.map((entry) => [entry.key, entry]));
  const left = (keys: readonly string[]) => keys.filter((key) => there.has(key));
  const now = items.map(({ key }) => key).filter((key) => from.includes(key));
  if (
    same(
      now,
      left(order).filter((key) => from.includes(key)),
    )
  )
    return { value: holder };
  if (manner === 'asMeant' && !same(now, left(from))) return { clash: 'changed' };
  const wanted = left(order);
  for (const [k, { key }] of items.entries()) {
    if (order.includes(key)) continue;
    const behind = items[k - 1];
    wanted.splice(behind ? wanted.indexOf(behind.key) + 1 : 0, 0, key);
  }
  return { value: wanted.map((key) => there.get(key)?.item) };
}
