import { grouped } from '../quantity';
import { isSchema, type AnyObject } from 'yup';
import { type Drive, driveSchema } from './drive';
import { rulesOf } from './lists';

/** A drive is saved and brought in as so many bytes of JSON at most. */
export const MOST_DRIVE_BYTES = 1024 * 1024;
/** What goes around a drive as it is saved may take so much of that. */
const ENVELOPE_BYTES = 2048;

/** What a drive cannot hold more of. */
export interface Full {
  /** The list by the way to it, without places: `belts.route`. Empty for the drive as a whole. */
  list: string;
  max: number;
}

type Json = Readonly<Record<string, unknown>>;
interface Item extends Json {
  readonly past?: boolean;
  readonly listened?: readonly { readonly outcome: string }[];
}

/** Items that have had their time, by list: of these the oldest make room for what comes. */
const PAST: Readonly<Record<string, (item: Item) => boolean>> = {
  'inspect.findings': ({ past }) => past === true,
  'inspect.changed': () => true,
  'noise.cures': ({ listened }) => listened?.at(-1)?.outcome === 'quiet',
};

/**
 * The drive after an edit, where every list of it that grew still holds no more than a file may: past items make room.
 * Where there is none it stays as it was `before`, and `full` says what of. Lists that were too long already, as from a
 * file of another program, may shrink. Only what the edit touched is looked at.
 */
export function withinLists(before: Drive, after: Drive): { drive: Drive; full: Full | null } {
  if (before === after) return { drive: after, full: null };
  const edit: Edit = { grew: false, full: null };
  const drive = walked(driveSchema, before, after, '', edit) as Drive;
  if (edit.full) return { drive: before, full: edit.full };
  const max = MOST_DRIVE_BYTES - ENVELOPE_BYTES;
  return edit.grew && bytesOf(drive) > max ? { drive: before, full: { list: '', max } } : { drive, full: null };
}

interface Edit {
  grew: boolean;
  full: Full | null;
}

/** What stands at `way` after the edit, with room made where it is needed. */
function walked(schema: unknown, before: unknown, after: unknown, way: string, edit: Edit): unknown {
  if (before === after || edit.full || typeof after !== 'object' || after === null) return after;
  const known = resolved(schema, after);
  return Array.isArray(after)
    ? walkedList(known, Array.isArray(before) ? (before as unknown[]) : [], after as unknown[], way, edit)
    : walkedFields(known, (before ?? {}) as Json, after as Json, way, edit);
}

function walkedFields(known: Known, before: Json, after: Json, way: string, edit: Edit): unknown {
  let next = after;
  for (const [field, schema] of Object.entries(known.fields ?? {})) {
    if (!(field in after)) continue;
    const inner = walked(schema, before[field], after[field], way === '' ? field : `${way}.${field}`, edit);
    if (inner !== after[field]) next = { ...next, [field]: inner };
  }
  return next;
}

function walkedList({ list }: Known, before: readonly unknown[], after: unknown[], way: string, edit: Edit): unknown {
  if (!list) return after;
  const old = new Set(before);
  // An item that was changed is told from a new one by its id, or by its place.
  const sameAs = (item: unknown, k: number) => {
    const id = (item as Json | null)?.['id'];
    return id === undefined ? before[k] : before.find((old) => (old as Json | null)?.['id'] === id);
  };
  const items = after.map((item, k) => (old.has(item) ? item : walked(list.item, sameAs(item, k), item, way, edit)));
  const same = items.every((item, k) => item === after[k]);
  const now = same ? after : items;
  if (now.length <= before.length) return now;
  edit.grew = true;
  if (now.length <= list.max) return now;
  const isPast = PAST[way];
  let over = now.length - list.max;
  const left = isPast ? now.filter((item) => !(over > 0 && old.has(item) && isPast(item as Item) && over--)) : now;
  if (left.length > list.max) edit.full = { list: way, max: list.max };
  return left;
}

interface Known {
  fields?: AnyObject;
  list?: { max: number; item: unknown };
}

/** What a schema says of an object's fields, or of a list's items. */
function resolved(schema: unknown, value: unknown): Known {
  if (!isSchema(schema)) return {};
  const own = schema as unknown as {
    type: string;
    resolve: (options: object) => unknown;
    fields?: AnyObject;
    spec: { meta?: Known['list'] };
  };
  if (own.type === 'lazy') return resolved(own.resolve({ value }), value);
  const { fields, spec } = own;
  return { ...(fields && { fields }), ...(spec.meta?.max !== undefined && { list: spec.meta }) };
}

/** Bytes of a drive as it is sent, in UTF-8. */
function bytesOf(drive: Drive): number {
  const text = JSON.stringify(drive);
  let bytes = 0;
  for (let k = 0; k < text.length; k += 1) {
    const code = text.charCodeAt(k);
    // Of a pair that stands for one sign, each half takes two of its four.
    bytes += bytesOfUnit(code);
  }
  return bytes;
}

/** Why an edit was not made, and what makes it possible. */
export function fullWords({ list, max }: Full): string {
  if (list === '')
    return 'The drive holds as much as it can, 1 MB. Nothing was changed; remove pictures or sounds first.';
  const what = rulesOf(list)?.what ?? 'this list';
  const name = `${what[0]!.toUpperCase()}${what.slice(1)}`;
  return `${name}: a drive holds ${grouped(max)} at most. Nothing was changed; remove one first.`;
}

/** UTF-8 bytes of one unit of UTF-16; the two halves of a pair make four together. */
function bytesOfUnit(code: number): number {
  if (code < 0x80) return 1;
  return code < 0x800 || (code >= 0xd800 && code <= 0xdfff) ? 2 : 3;
}
