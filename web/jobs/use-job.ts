import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { useMe } from '../api/access';
import { ask } from '../api/client';
import { newSaveId } from '../api/shop';
import { keepAnswer } from '../offline/kept-answers';
import type { QueueState } from './job-queue';
import { outbox } from './outbox';
import { live } from '../live/messages';
import { useStore } from '../state/store';
import { whoIsThere } from './who';
import type { JobNews, JobOpened } from '@emery/core/api';
import { type JobEvent, type JobRun, jobSteps, runOf } from '@emery/core/job';

/** How often what others did is asked for, ms. */
const NEWS_MS = 2500;

/** What an event says besides who and when, which is added here. */
type Happening = JobEvent extends infer E ? (E extends JobEvent ? Omit<E, 'id' | 'at' | 'by'> : never) : never;

export interface JobInHand {
  job: JobOpened | null;
  error: Error | null;
  run: JobRun;
  queue: QueueState;
  happens: (what: Happening) => void;
  /** The refused ones of these ids, or all, were read. */
  forgetRefused: (ids?: readonly string[]) => void;
}

/** A job with all that happened at it, here and elsewhere; what happens here is there at once. */
export function useJob(id: string): JobInHand {
  const client = useQueryClient();
  const name = useMe()?.name ?? null;
  const key = useMemo(() => ['job', id], [id]);
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => ask<JobOpened>('GET', `/jobs/${id}`, undefined, signal),
    staleTime: Infinity,
  });
  const queue = useMemo(() => outbox.of(id), [id]);
  const state = useSyncExternalStore(queue.subscribe, queue.get);
  useEffect(() => {
    void queue.send();
    return outbox.follow(id, (events) =>
      // Told again by the news in their own order; until then they stand at the end.
      client.setQueryData<JobOpened>(key, (job) => job && { ...job, events: [...job.events, ...events] }),
    );
  }, [queue, client, id, key]);
  useNews(data ?? null, key);
  // With the server away the job opens again as it was last known here, its ticks with it.
  useEffect(() => {
    if (data) void keepAnswer(`/jobs/${id}`, JSON.stringify(data));
  }, [data, id]);
  const events = useMemo(() => [...(data?.events ?? []), ...state.waiting], [data, state.waiting]);
  const run = useMemo(() => runOf(events), [events]);
  // By what it is done now: the steps it began with, and what was taken over of a plan that changed.
  const job = useMemo(
    () => (data ? { ...data, sheet: { ...data.sheet, steps: jobSteps(data.sheet.steps, run) } } : null),
    [data, run],
  );
  return {
    job,
    error,
    run,
    queue: state,
    happens: (what) =>
      queue.put({ ...what, id: newSaveId(), at: new Date().toISOString(), by: name ?? whoIsThere() } as JobEvent),
    forgetRefused: (ids) => queue.forgetRefused(ids),
  };
}

/** Asks what others did since, while the job is in hand. */
function useNews(job: JobOpened | null, key: readonly unknown[]): void {
  const client = useQueryClient();
  useQuery({
    queryKey: ['job news', key[1]],
    enabled: job !== null && job.signedAt === null,
    // Told live, there is nothing to ask for.
    refetchInterval: useStore(live) ? false : NEWS_MS,
    gcTime: 0,
    retry: false,
    queryFn: async ({ signal }) => {
      const { seq = 0 } = client.getQueryData<JobOpened>(key) ?? {};
      const news = await ask<JobNews>('GET', `/jobs/${String(key[1])}/events?after=${seq}`, undefined, signal);
      client.setQueryData<JobOpened>(key, (old) => {
        if (!old) return old;
        const fresh = new Set(news.events.map(({ id }) => id));
        // In the server's order: what this device had put at the end gives way to it.
        const events = [...old.events.filter(({ id }) => !fresh.has(id)), ...news.events];
        return { ...old, events, seq: news.seq, signedAt: news.signedAt, signedBy: news.signedBy };
      });
      return news.seq;
    },
  });
}
