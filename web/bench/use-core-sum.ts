import { useCallback, useEffect, useRef, useState } from 'react';
import type { CoreTask, CoreTasks } from './core-worker';
import { runCore } from './run-core';

/** Why a sum has no outcome, and the way to try it again. */
export interface SumStopped {
  why: string;
  again: () => void;
}

/** A sum that follows what it is about. */
export interface FollowingSum<T extends CoreTask> {
  /** The last outcome with what it was worked out from, which the caller compares with what is there now. */
  found: { input: CoreTasks[T]['input']; output: CoreTasks[T]['output'] } | null;
  /** Share done of the one under way; null while none is. */
  progress: number | null;
  stopped: SumStopped | null;
}

/**
 * One of core's long sums, run beside the page anew whenever `input` is another object, once it has rested for `rest`
 * ms. None is run for null.
 */
export function useCoreSum<T extends CoreTask>(
  task: T,
  input: CoreTasks[T]['input'] | null,
  rest = 120,
): FollowingSum<T> {
  const [found, setFound] = useState<FollowingSum<T>['found']>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [fault, setFault] = useState<{ why: string; input: unknown } | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    if (input === null) return;
    let cancel = () => undefined as void;
    const timer = setTimeout(() => {
      setProgress(0);
      const running = runCore(task, input, setProgress);
      cancel = running.cancel;
      running.done.then(
        (output) => {
          setFound({ input, output });
          setFault(null);
          setProgress(null);
        },
        ({ message }: Error) => {
          setFault({ why: message, input });
          setProgress(null);
        },
      );
    }, rest);
    return () => {
      clearTimeout(timer);
      cancel();
      setProgress(null);
    };
  }, [task, input, rest, tries]);
  const again = useCallback(() => {
    setFault(null);
    setTries((count) => count + 1);
  }, []);
  return { found, progress, stopped: fault && fault.input === input ? { why: fault.why, again } : null };
}

/**
 * One of core's long sums, run beside the page when it is asked for. A new run, cancelling, or leaving ends the one
 * under way.
 */
export function useCoreRun<T extends CoreTask>(
  task: T,
  onDone: (output: CoreTasks[T]['output'], input: CoreTasks[T]['input']) => void,
) {
  const [progress, setProgress] = useState<number | null>(null);
  const [stopped, setStopped] = useState<SumStopped | null>(null);
  const running = useRef<() => void>(() => undefined);
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  });
  useEffect(() => () => running.current(), []);
  const cancel = () => {
    running.current();
    setProgress(null);
  };
  const run = (input: CoreTasks[T]['input']) => {
    running.current();
    setProgress(0);
    setStopped(null);
    const started = runCore(task, input, setProgress);
    running.current = started.cancel;
    started.done.then(
      (output) => {
        setProgress(null);
        done.current(output, input);
      },
      ({ message }: Error) => {
        setProgress(null);
        setStopped({ why: message, again: () => run(input) });
      },
    );
  };
  return { /** Share of the sum done; null while none is under way. */ progress, stopped, run, cancel };
}
