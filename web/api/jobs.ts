import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from './client';
import { newSaveId } from './shop';
import { whoIsThere } from '../jobs/who';
import type { JobListed, JobOpened, JobSheet } from '@emery/core/api';

/** Jobs of a drive or a vehicle, latest first; all that are in hand where neither is named. */
export const useJobs = (filter: { drive?: string; vehicle?: string }) =>
  useQuery({
    queryKey: ['jobs', filter],
    queryFn: ({ signal }) =>
      ask<{ jobs: JobListed[]; total: number }>(
        'GET',
        `/jobs?${new URLSearchParams(filter).toString()}`,
        undefined,
        signal,
      ),
    staleTime: 5000,
  });

/** Begins a job with the sheet as it is written now. */
export function useBeginJob() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ driveId, sheet }: { driveId: string; sheet: JobSheet }) =>
      ask<JobOpened>('POST', '/jobs', {
        id: newSaveId(),
        driveId,
        sheet,
        by: whoIsThere(),
        at: new Date().toISOString(),
      }),
    onSettled: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
}

/** Once a job has changed what the shop's lists show. */
export function useShopHasChanged() {
  const client = useQueryClient();
  return () =>
    Promise.all(
      ['jobs', 'vehicles', 'records', 'dues', 'stock', 'saved drive', 'drive'].map((key) =>
        client.invalidateQueries({ queryKey: [key] }),
      ),
    );
}
