import { keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { ask } from './client';
import type { StockedLength } from '@emery/core/api';
import type { StockBelt } from '@emery/core/size';

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
    queryFn: ({ pageParam, signal }) =>
      ask<StockPage>(
        'GET',
        `/stock?${new URLSearchParams({ ...filter, limit: String(PAGE), offset: String(pageParam) }).toString()}`,
        undefined,
        signal,
      ),
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, { belts }) => sum + belts.length, 0);
      return last.belts.length > 0 && shown < last.total ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });

const kindOf = (section: string, ribs: number | null) => ({ section, ribs: ribs === null ? '' : String(ribs) });

/** Every length the list has of one section and rib count. */
export const useStockedLengths = (section: string | null, ribs: number | null) =>
  useQuery(stockedLengths(section, ribs));
export const stockedLengths = (section: string | null, ribs: number | null) =>
  queryOptions({
    queryKey: ['stock', 'lengths', section, ribs],
    enabled: section !== null,
    queryFn: ({ signal }) =>
      ask<{ lengths: StockedLength[] }>(
        'GET',
        `/stock/lengths?${new URLSearchParams(kindOf(section!, ribs)).toString()}`,
        undefined,
        signal,
      ),
    staleTime: 30_000,
    retry: 1,
  });

/** The belts of one length, as they are asked for. */
export const stockOf = (section: string, ribs: number | null, lengthMm: number) =>
  queryOptions({
    queryKey: ['stock', 'of', section, ribs, lengthMm],
    queryFn: ({ signal }) =>
      ask<StockPage>(
        'GET',
        `/stock?${new URLSearchParams({ ...kindOf(section, ribs), from: String(lengthMm - 0.01), to: String(lengthMm + 0.01) }).toString()}`,
        undefined,
        signal,
      ),
    staleTime: 30_000,
  });
export const useStockOf = (section: string, ribs: number | null, lengthMm: number) =>
  useQuery(stockOf(section, ribs, lengthMm));
