import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { CoreInput, CoreOutput, CoreTask } from '../stages/tasks';
import { runCore } from './run-core';

/** Why a sum has no outcome, and the way to try it again. */
export interface SumStopped {
  why: string;
  again: () => void;
}

/** A sum that follows what it is about. */
export interface FollowingSum<T extends CoreTask> {
  /** The last outcome with what it was worked out from, which the caller compares with what is there now. */
  found: { input: CoreInput<T>; output: CoreOutput<T> } | null;
  /** Fraction done of the one under way; null while none is. */
  progress: number | null;
  stopped: SumStopped | null;
}

/** A name for each input: what is put in is known by which object it is, not by the much it holds. */
const names = new WeakMap<object, number>();
let lastName = 0;
const nameOf = (input: unknown): number => {
  if (typeof input !== 'object' || input === null) return 0;
  const known = names.get(input);
  if (known !== undefined) return known;
  lastName += 1;
  names.set(input, lastName);
  return lastName;
};

/** The value once it has rested for `ms`; null at once where it is null. */
function useRested<T>(value: T | null, ms: number): T | null {
  const [rested, setRested] = useState<T | null>(ms === 0 ? value : null);
  useEffect(() => {
    if (value === null || ms === 0) return;
    const timer = setTimeout(() => setRested(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  if (value === null) return null;
  return ms === 0 || rested === value ? value : null;
}

/**
 * One of core's long sums, run beside the page anew whenever `input` is another object, once it has rested for `rest`
 * ms. None is run for null, and one that is no longer wanted is ended.
 */
export function useCoreSum<T extends CoreTask>(task: T, input: CoreInput<T> | null, rest = 120): FollowingSum<T> {
  const asked = useRested(input, rest);
  const [progress, setProgress] = useState(0);
  const { data, error, isFetching, refetch } = useQuery({
    queryKey: ['core', task, nameOf(asked)],
    enabled: asked !== null,
    queryFn: async ({ signal }) => {
      setProgress(0);
      return { input: asked!, output: await runCore(task, asked!, { signal, onProgress: setProgress }) };
    },
    placeholderData: keepPreviousData,
    structuralSharing: false,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  const again = useCallback(() => void refetch(), [refetch]);
  return {
    found: data ?? null,
    progress: isFetching ? progress : null,
    stopped: error && asked !== null && !isFetching ? { why: error.message, again } : null,
  };
}

/**
 * One of core's long sums, run beside the page when it is asked for. A new run, cancelling, or leaving ends the one
 * under way.
 */
export function useCoreRun<T extends CoreTask>(task: T, onDone: (output: CoreOutput<T>, input: CoreInput<T>) => void) {
  const [progress, setProgress] = useState(0);
  const running = useRef<AbortController | null>(null);
  const { mutate, reset, isPending, error, variables } = useMutation({
    mutationFn: (input: CoreInput<T>) => {
      running.current?.abort();
      running.current = new AbortController();
      setProgress(0);
      return runCore(task, input, { signal: running.current.signal, onProgress: setProgress });
    },
    onSuccess: onDone,
  });
  useEffect(() => () => running.current?.abort(), []);
  const cancel = () => {
    reset();
    running.current?.abort();
  };
  return {
    /** Fraction of the sum done; null while none is under way. */
    progress: isPending ? progress : null,
    stopped: error && !isPending ? { why: error.message, again: () => mutate(variables!) } : null,
    run: (input: CoreInput<T>) => mutate(input),
    cancel,
  };
}
