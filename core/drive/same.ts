const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The same as JSON: whatever the order of an object's fields, and one that is undefined is not there. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((item, k) => same(item, b[k]));
  if (!isRecord(a) || !isRecord(b)) return false;
  return (
    Object.keys(a).every((key) => same(a[key], own(b, key))) &&
    Object.keys(b).every((key) => b[key] === undefined || own(a, key) !== undefined)
  );
}

const own = (record: Readonly<Record<string, unknown>>, key: string) =>
  Object.hasOwn(record, key) ? record[key] : undefined;
