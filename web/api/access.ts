import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { onMachine } from '../access/here';
import { ask } from './client';
import type {
  AuditEntry,
  BringCode,
  CodeState,
  DeviceListed,
  FeedListed,
  Me,
  PersonListed,
  SharingState,
  StaffRole,
} from '@emery/core/api';

/** Whom the server takes this device for. At the machine itself that is known without asking, but for the owner. */
const AT_MACHINE: Me = { role: 'owner', name: null, machine: true, job: null, owned: true };
export const useMe = (): Me | null => {
  const machine = onMachine();
  const { data } = useQuery({
    queryKey: ['access', 'me'],
    enabled: !machine,
    queryFn: ({ signal }) => ask<Me>('GET', '/access/me', undefined, signal),
    staleTime: 60_000,
  });
  return machine ? AT_MACHINE : (data ?? null);
};

const useList = <T>(what: string, everyMs?: number, enabled = true) =>
  useQuery({
    queryKey: ['access', what],
    enabled,
    queryFn: ({ signal }) => ask<T>('GET', `/access/${what}`, undefined, signal),
    ...(everyMs !== undefined && { refetchInterval: everyMs }),
  });

export const useSharing = (everyMs?: number) => useList<SharingState>('sharing', everyMs);
/** As the server has it, also at the machine: whether there is an owner yet. */
export const useOwned = () => useList<Me>('me').data?.owned;
export const usePeople = (enabled = true) => useList<{ people: PersonListed[] }>('people', undefined, enabled);
export const useDevices = () => useList<{ devices: DeviceListed[] }>('devices', 5000);
export const useFeeds = (enabled: boolean) => useList<{ feeds: FeedListed[] }>('feeds', undefined, enabled);
export const useAudit = (enabled: boolean) =>
  useList<{ entries: AuditEntry[]; total: number }>('audit', 10_000, enabled);

/** A change of who may do what: runs, then has every list of it read again. */
export function useAccessChange<Input, Output>(run: (input: Input) => Promise<Output>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: run, onSettled: () => client.invalidateQueries({ queryKey: ['access'] }) });
}

export interface NewPerson {
  name: string;
  role: StaffRole;
  passphrase: string;
}

export interface CodeAsked {
  place: string;
  person?: string;
  job?: string;
  name?: string;
}

export const askForCode = (asked: CodeAsked) => ask<BringCode>('POST', '/access/codes', asked);
export const withdrawCode = (id: string) => ask('DELETE', `/access/codes/${id}`);

/** How a code fares, looked at while it is shown. */
export const useCodeState = (id: string | null): CodeState | undefined =>
  useQuery<{ state: CodeState }>({
    queryKey: ['access', 'code', id],
    enabled: id !== null,
    gcTime: 0,
    refetchInterval: ({ state }) => (state.data === undefined || state.data.state === 'open' ? 1500 : false),
    queryFn: ({ signal }) => ask('GET', `/access/codes/${id}`, undefined, signal),
  }).data?.state;
