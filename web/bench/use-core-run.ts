import { useCallback, useEffect, useRef, useState } from 'react';
import type { CoreTask, CoreTasks } from './core-worker';
import { runCore } from './run-core';

/** One of core's long sums, run beside the page when it is asked for. A new run, cancelling, or leaving ends the one under way. */
export function useCoreRun<T extends CoreTask>(task: T) {
  const [progress, setProgress] = useState<number | null>(null);
  const running = useRef<() => void>(() => undefined);
  useEffect(() => () => running.current(), []);
  const cancel = useCallback(() => {
    running.current();
    setProgress(null);
  }, []);
  /** Resolves with the outcome, or rejects with why there is none; stays open for good once cancelled. */
  const run = useCallback(
    (input: CoreTasks[T]['input']): Promise<CoreTasks[T]['output']> => {
      running.current();
      setProgress(0);
      const started = runCore(task, input, setProgress);
      running.current = started.cancel;
      return started.done.finally(() => setProgress(null));
    },
    [task],
  );
  return { /** Share of the sum done; null while none is under way. */ progress, run, cancel };
}
