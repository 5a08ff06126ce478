import {
  fieldsTogether,
  isOtherShape,
  isUnit,
  joinedName,
  type Drive,
  type Json,
  listMerge,
  type ListMerge,
  same,
} from '../drive';
import { beforeOf, type Change, type Way } from './change';

/**
 * All that was done to `before` to make `after`, in an order in which it can be done again: `applied(before, changes)`
 * is `after`. What both share as one object is not looked at.
 */
export function changesBetween(before: Drive, after: Drive): Change[] {
  const found: Change[] = [];
  ofFields(before as unknown as Json, after as unknown as Json, { at: [], way: '' }, found);
  return found;
}

interface Place {
  at: Way;
  /** The way without keys: what the field table goes by. */
  way: string;
}

const isRecord = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const inside = ({ at, way }: Place, field: string): Place => ({
  at: [...at, field],
  way: way === '' ? field : `${way}.${field}`,
});

function ofFields(before: Json, after: Json, place: Place, found: Change[]): void {
  const together = fieldsTogether(place.way);
  if (together.some((field) => !same(before[field], after[field])))
    found.push({
      at: [...place.at, joinedName(together)],
      ...beforeOf(picked(before, together)),
      now: picked(after, together),
    });
  for (const field of new Set([...Object.keys(before), ...Object.keys(after)]))
    if (!together.includes(field)) ofValue(own(before, field), own(after, field), inside(place, field), found);
}

/** Those fields of an object; nothing where it has none of them. */
export function picked(from: Json, fields: readonly string[]): Json | undefined {
  const entries = fields.map((field) => [field, from[field]] as const).filter(([, value]) => value !== undefined);
  return entries.length === 0 ? undefined : Object.fromEntries(entries);
}

export const own = (record: Json, key: string): unknown => (Object.hasOwn(record, key) ? record[key] : undefined);

function ofValue(before: unknown, after: unknown, place: Place, found: Change[]): void {
  if (before === after || same(before, after)) return;
  const { way } = place;
  const count = found.length;
  if (isRecord(after) && !isUnit(way) && (before === undefined || isRecord(before))) {
    if (!isOtherShape(way, before ?? {}, after)) ofFields(before ?? {}, after, place, found);
  } else if (Array.isArray(after) && (before === undefined || Array.isArray(before))) {
    const rule = listMerge(way);
    if (rule.kind !== 'whole') ofItems((before ?? []) as unknown[], after as unknown[], rule, place, found);
  }
  // One that was not there and is empty is made as it is; one answer is another one as a whole.
  if (found.length === count)
    found.push({ at: place.at, ...beforeOf(before), ...(after !== undefined && { now: after }) });
}

/** Items with what each is known by; of several that are known by the same, each has a number. */
export function keyed(items: readonly unknown[], rule: ListMerge): { key: string; item: unknown }[] {
  const taken = new Set<string>();
  return items.map((item) => {
    const base = rule.kind === 'items' && isRecord(item) ? rule.key(item) : JSON.stringify(item);
    let key = base;
    for (let nth = 2; taken.has(key); nth += 1) key = `${base} #${nth}`;
    taken.add(key);
    return { key, item };
  });
}

function ofItems(before: unknown[], after: unknown[], rule: ListMerge, place: Place, found: Change[]): void {
  const [old, now] = [keyed(before, rule), keyed(after, rule)];
  const [left, right] = [new Map(old.map(pair)), new Map(now.map(pair))];
  for (const { key, item } of old)
    if (!right.has(key)) found.push({ at: [...place.at, key], ...beforeOf(item), drop: true });
  for (const [k, { key, item }] of now.entries()) {
    if (!left.has(key)) {
      const [previous, next] = [now[k - 1], now.slice(k + 1).find((other) => left.has(other.key))];
      found.push({
        at: [...place.at, key],
        add: item,
        ...(previous && { after: previous.key }),
        ...(next && { before: next.key }),
      });
    } else ofItem(left.get(key), item, { at: [...place.at, key], way: place.way }, found);
  }
  const [from, order] = [old.filter(({ key }) => right.has(key)), now.filter(({ key }) => left.has(key))].map((list) =>
    list.map(({ key }) => key),
  ) as [string[], string[]];
  if (!same(from, order)) found.push({ at: place.at, order: now.map(({ key }) => key), from });
}

const pair = ({ key, item }: { key: string; item: unknown }) => [key, item] as const;

function ofItem(before: unknown, after: unknown, place: Place, found: Change[]): void {
  if (before === after || same(before, after)) return;
  if (isRecord(before) && isRecord(after) && !isOtherShape(place.way, before, after))
    return ofFields(before, after, place, found);
  found.push({ at: place.at, ...beforeOf(before), now: after });
}
