import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { ask } from './client';
import type { BeltsOnPage, DuePage, GrowthAnswer, LivesAnswer, RecordPage } from '@emery/core/api';

const PAGE = 60;

/** A list over the whole shop, a page at a time, kept on screen while the next search is under way. */
function usePages<T extends { total: number }>(
  key: string,
  path: string,
  search: Record<string, string>,
  countOf: (page: T) => number,
) {
  return useInfiniteQuery({
    queryKey: [key, path, search],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      ask<T>(
        'GET',
        `${path}?${new URLSearchParams({ ...search, limit: String(PAGE), offset: String(pageParam) }).toString()}`,
        undefined,
        signal,
      ),
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, page) => sum + countOf(page), 0);
      return countOf(last) > 0 && shown < last.total ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });
}

export const useDues = (search: string) =>
  usePages<DuePage>('dues', '/records/due', { search }, ({ dues }) => dues.length);

export const useBeltsOn = (search: string) =>
  usePages<BeltsOnPage>('records', '/records/belts', { search }, ({ belts }) => belts.length);

/** What happened, over all vehicles or to one. */
export const useRecords = (search: string, vehicle?: string) =>
  usePages<RecordPage>(
    'records',
    '/records',
    { search, ...(vehicle !== undefined && { vehicle }) },
    ({ records }) => records.length,
  );

export const useLives = (kind: string) =>
  useQuery({
    queryKey: ['records', 'lives', kind],
    queryFn: ({ signal }) =>
      ask<LivesAnswer>('GET', `/records/lives?${new URLSearchParams({ kind }).toString()}`, undefined, signal),
    placeholderData: keepPreviousData,
  });

/** How belts of a section seat and grow by the shop's own sittings, those of one drive left out. */
export const useGrowth = (section: string | null, not: string) =>
  useQuery({
    queryKey: ['records', 'growth', section, not],
    enabled: section !== null,
    queryFn: ({ signal }) =>
      ask<GrowthAnswer>(
        'GET',
        `/records/growth?${new URLSearchParams({ section: section!, not }).toString()}`,
        undefined,
        signal,
      ),
    staleTime: 30_000,
    retry: 1,
  });
