import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '../api/client';
import { useShop } from '../api/shop';
import { stockOf } from '../api/stock';
import {
  type BringList,
  type CardStep,
  estimateOf,
  type JobEstimate,
  labourPace,
  type LabourPace,
} from '@emery/core/job';

/** Without an answer the defaults do. */
const BY_DEFAULTS = labourPace([]);

/** The shop's own pace, learnt from the clocks of its signed jobs. */
const usePace = () =>
  useQuery({
    queryKey: ['jobs', 'pace'],
    queryFn: ({ signal }) => ask<LabourPace>('GET', '/jobs/pace', undefined, signal),
    staleTime: 60_000,
  });

/** What a card is estimated to take and cost, its belts at the shelf's prices; null until all of it is known. */
export function useEstimate(steps: readonly CardStep[] | null, bring: BringList | null): JobEstimate | null {
  const asked = usePace();
  const pace = asked.data ?? (asked.isError ? BY_DEFAULTS : undefined);
  const shop = useShop().data;
  const belts = useMemo(() => bring?.belts ?? [], [bring]);
  const prices = useQueries({
    queries: belts.map(({ section, ribs, lengthMm }) => stockOf(section, ribs, lengthMm)),
    combine: (answers) => ({
      pending: answers.some(({ isPending }) => isPending),
      // Of several that are as long, the cheapest.
      least: answers.map(({ data }) => {
        const known = (data?.belts ?? []).flatMap(({ price }) => price ?? []);
        return known.length === 0 ? null : Math.min(...known);
      }),
    }),
  });
  return useMemo(() => {
    if (!steps || !bring || !pace || !shop || prices.pending) return null;
    const parts = [
      ...belts.map(({ markings, plain }, k) => ({
        name: markings[0]?.text ?? plain,
        count: 1,
        price: prices.least[k] ?? null,
      })),
      ...bring.parts.map((name) => ({ name, count: 1, price: null })),
    ];
    return estimateOf(steps, { pace, hourRate: shop.hourRate, parts });
  }, [steps, bring, pace, shop, belts, prices]);
}
