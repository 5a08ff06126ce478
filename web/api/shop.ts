import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from './client';
import type { DriveListed, DriveOpened, Shop, VehicleListed, VehiclePage } from '@emery/core/api';

const PAGE = 30;

export const useShop = () =>
  useQuery({
    queryKey: ['shop'],
    queryFn: ({ signal }) => ask<Shop>('GET', '/shop', undefined, signal),
    staleTime: 60_000,
  });

/** A change of the shop; with limits goes the list that was seen, so that nobody else's is overwritten. */
type ShopChange = Omit<Partial<Shop>, 'limits'> & ({ limits?: never; limitsWere?: never } | LimitsChange);
type LimitsChange = Record<'limits' | 'limitsWere', Shop['limits']>;

export function useChangeShop() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: ShopChange) => ask<Shop>('PATCH', '/shop', change),
    // The unit turns over under the thumb; the server is told meanwhile.
    onMutate: ({ limitsWere: _, ...change }) =>
      client.setQueryData<Shop>(['shop'], (shop) => shop && { ...shop, ...change }),
    onSettled: () => client.invalidateQueries({ queryKey: ['shop'] }),
  });
}

/** Vehicles a page at a time, newest first, kept on screen while the next search is under way. */
export const useVehicles = (search: string) =>
  useInfiniteQuery({
    queryKey: ['vehicles', search],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      ask<VehiclePage>(
        'GET',
        `/vehicles?search=${encodeURIComponent(search)}&limit=${PAGE}&offset=${pageParam}`,
        undefined,
        signal,
      ),
    getNextPageParam: (last, pages) => {
      const shown = pages.reduce((sum, { vehicles }) => sum + vehicles.length, 0);
      return last.vehicles.length > 0 && shown < last.total ? shown : undefined;
    },
    placeholderData: keepPreviousData,
  });

export const useVehicle = (id: string, enabled = true) =>
  useQuery({
    queryKey: ['vehicles', 'one', id],
    enabled,
    queryFn: ({ signal }) => ask<VehicleListed>('GET', `/vehicles/${id}`, undefined, signal),
  });

/** What has been deleted and can come back. */
export const useDeleted = (enabled: boolean) =>
  useQuery({
    queryKey: ['deleted'],
    enabled,
    queryFn: async ({ signal }) => {
      const [vehicles, drives] = await Promise.all([
        ask<{ vehicles: VehicleListed[]; total: number }>('GET', '/vehicles/deleted', undefined, signal),
        ask<{ drives: DriveListed[]; total: number }>('GET', '/drives/deleted', undefined, signal),
      ]);
      return { ...vehicles, ...drives, total: vehicles.total + drives.total };
    },
  });

/** A drive as the server has it now, for pages that only show it; asked for anew every so many ms where it is said. */
export const useSavedDrive = (id: string, everyMs?: number) =>
  useQuery({
    queryKey: ['saved drive', id],
    queryFn: ({ signal }) => ask<DriveOpened>('GET', `/drives/${id}`, undefined, signal),
    gcTime: 0,
    staleTime: 0,
    ...(everyMs !== undefined && { refetchInterval: everyMs }),
  });

export const useDrive = (id: string, enabled: boolean) =>
  useQuery({
    queryKey: ['drive', id],
    enabled,
    queryFn: ({ signal }) => ask<DriveOpened>('GET', `/drives/${id}`, undefined, signal),
    gcTime: 0,
    staleTime: Infinity,
  });

/** A change to the shop's list: runs, then has the list read again. */
export function useShopChange<Input, Output>(run: (input: Input) => Promise<Output>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: run,
    onSettled: () =>
      Promise.all(['vehicles', 'deleted', 'shop'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}

export const newSaveId = () => crypto.randomUUID();
