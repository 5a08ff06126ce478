import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask } from './client';
import type { BackupAge, BackupState, Health, PastOpened, PastPage } from '@emery/core/api';

/** How the shop is kept; looked at often while a backup is being made. */
export const useHealth = (enabled: boolean) =>
  useQuery({
    queryKey: ['keep'],
    enabled,
    queryFn: ({ signal }) => ask<Health>('GET', '/keep', undefined, signal),
    refetchInterval: ({ state }) => (typeof state.data?.backups.passed === 'number' ? 700 : 30_000),
  });

export const useBackupAge = () =>
  useQuery({
    queryKey: ['keep', 'age'],
    queryFn: ({ signal }) => ask<BackupAge>('GET', '/keep/age', undefined, signal),
    staleTime: 300_000,
  }).data ?? null;

/** Something done about backups; the page is read again after it. */
export function useKeepChange<Input>(run: (input: Input) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSettled: () => client.invalidateQueries({ queryKey: ['keep'] }) });
}

export const beginBackup = () => ask<BackupState>('POST', '/keep/backups');
export const cancelBackup = () => ask('DELETE', '/keep/backups');
export const chooseFolder = (folder: string) => ask<Health>('PUT', '/keep/folder', { folder });

const pastAddress = (id: string) => ['/drives', id, 'past'].join('/');

/** The versions of a drive, the latest first, those before a revision where one is said. */
export const usePast = (id: string, before: number | null) =>
  useQuery({
    queryKey: ['past', id, before],
    gcTime: 0,
    queryFn: ({ signal }) =>
      ask<PastPage>('GET', pastAddress(id) + (before === null ? '' : `?before=${before}`), undefined, signal),
  });

export const usePastVersion = (id: string, revision: number | null) =>
  useQuery({
    queryKey: ['past', id, 'version', revision],
    enabled: revision !== null,
    queryFn: ({ signal }) => ask<PastOpened>('GET', [pastAddress(id), revision].join('/'), undefined, signal),
  });
