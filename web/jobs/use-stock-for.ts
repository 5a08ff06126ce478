import { useQueries } from '@tanstack/react-query';
import { stockedLengths } from '../api/stock';
import type { Belt } from '@emery/core/drive';

/** Lengths that can be had, by belt, mm. */
export type StockFor = Readonly<Record<string, readonly number[]>>;

/**
 * The lengths that the shop's list has for each belt, as Size goes by; none where the list does not answer. Null while
 * it is being asked.
 */
export function useStockFor(belts: readonly Belt[]): StockFor | null {
  return useQueries({
    queries: belts.map(({ section, ribs }) => stockedLengths(section, ribs ?? null)),
    combine: (answers) =>
      answers.some(({ isPending, fetchStatus }) => isPending && fetchStatus === 'fetching')
        ? null
        : Object.fromEntries(
            answers.map(({ data }, k) => [belts[k]!.id, (data?.lengths ?? []).map(({ lengthMm }) => lengthMm)]),
          ),
  });
}
