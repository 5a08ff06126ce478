import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { StockBelt } from '@emery/core/size';
import { ask } from './client';

export interface StockListed extends StockBelt {
  id: number;
}

interface StockPage {
  belts: StockListed[];
  total: number;
}

const PAGE = 100;

/** The shop's belts a page at a time, kept on screen while the next filter is under way. */
export const useStock = (filter: { search: string; section: string; ribs: string }) =>
  useInfiniteQuery({
    queryKey: ['stock', filter],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) => ask<StockPage>('GET', `/stock?${new URLSearchParams({ ...filter, limit: String(PAGE), offset: String(pageParam) }).toString()}`, undefined, signal),
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, { belts }) => sum + belts.length, 0);
      return last.belts.length > 0 && shown < last.total ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });

/** All belts of one section and rib count between two lengths, mm. */
export const useStockFor = (section: string | null, ribs: number | null, from: number, to: number) =>
  useQuery({
    queryKey: ['stock', 'for', section, ribs, from, to],
    enabled: section !== null,
    queryFn: ({ signal }) => ask<StockPage>('GET', `/stock?${new URLSearchParams({ section: section!, ribs: ribs === null ? '' : String(ribs), from: String(from), to: String(to), limit: '500' }).toString()}`, undefined, signal),
    staleTime: 30_000,
    retry: 1,
  });
