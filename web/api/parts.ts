import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from './client';
import type { PartAtHand } from '@emery/core/align';

/** The hubs, pumps and spacers at hand in the shop. */
export const useParts = (enabled: boolean) =>
  useQuery({
    queryKey: ['parts'],
    enabled,
    queryFn: ({ signal }) => ask<{ parts: PartAtHand[] }>('GET', '/parts', undefined, signal),
    staleTime: 30_000,
  });

export function useChangeParts() {
  const client = useQueryClient();
  const onSettled = () => client.invalidateQueries({ queryKey: ['parts'] });
  return {
    /** Rows as a list has them; the server reads each. */
    add: useMutation({
      mutationFn: (rows: readonly Readonly<Record<string, unknown>>[]) =>
        ask<{ parts: PartAtHand[] }>('POST', '/parts', { rows }),
      onSettled,
    }),
    remove: useMutation({ mutationFn: (id: string) => ask('DELETE', `/parts/${id}`), onSettled }),
  };
}
