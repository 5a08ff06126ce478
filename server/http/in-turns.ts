/** Lets what else is asked of the server be answered. */
export const otherTurns = () => new Promise<void>((resolve) => setImmediate(resolve));

/** Does `work` on each in order, so many between two looks at what else is asked of the server. */
export async function inTurns<T, R>(
  items: readonly T[],
  atOnce: number,
  work: (item: T, index: number) => R,
): Promise<R[]> {
  const done: R[] = [];
  for (const [index, item] of items.entries()) {
    if (index % atOnce === 0) await otherTurns();
    done.push(work(item, index));
  }
  return done;
}
