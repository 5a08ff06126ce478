import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from './client';
import type { Role, SpeedBand } from '@emery/core/drive';
import type { PulleyAtHand, ShopBands } from '@emery/core/speeds';

/** The shop's own speed bands. */
export const useBands = (enabled: boolean) =>
  useQuery({
    queryKey: ['bands'],
    enabled,
    queryFn: ({ signal }) => ask<{ bands: ShopBands }>('GET', '/bands', undefined, signal),
    staleTime: 30_000,
  });

/** Keeps a band for a kind of accessory, or takes it back where `band` is null. */
export function useKeepBand() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ role, band }: { role: Role; band: SpeedBand | null }) =>
      band ? ask('PUT', `/bands/${role}`, band) : ask('DELETE', `/bands/${role}`),
    onSettled: () => client.invalidateQueries({ queryKey: ['bands'] }),
  });
}

/** The pulleys at hand in the shop. */
export const usePulleys = () =>
  useQuery({
    queryKey: ['pulleys'],
    queryFn: ({ signal }) => ask<{ pulleys: PulleyAtHand[] }>('GET', '/pulleys', undefined, signal),
    staleTime: 30_000,
  });

export function useChangePulleys() {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: ['pulleys'] });
  return {
    add: useMutation({
      mutationFn: (pulley: Omit<PulleyAtHand, 'id'>) => ask<PulleyAtHand>('POST', '/pulleys', pulley),
      onSettled,
    }),
    remove: useMutation({ mutationFn: (id: string) => ask('DELETE', `/pulleys/${id}`), onSettled }),
  };
}
