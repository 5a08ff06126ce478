/** Those that wait in line for each thing, within this process. */
export type Lines = Map<string, Promise<unknown>>;

/** Runs `work` once all that stood in line for that thing before is done, however it went. */
export async function inLine<T>(lines: Lines, what: string, work: () => Promise<T>): Promise<T> {
  const before = lines.get(what) ?? Promise.resolve();
  const own = before.then(work);
  const over = own.catch(() => undefined);
  lines.set(what, over);
  try {
    return await own;
  } finally {
    if (lines.get(what) === over) lines.delete(what);
  }
}
