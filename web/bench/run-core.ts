import type { CoreMessage, CoreTask, CoreTasks } from './core-worker';

export interface Running<Output> {
  /** Settles with the outcome, or with why there is none. */
  done: Promise<Output>;
  /** Ends the work at once; `done` then stays open for good. */
  cancel: () => void;
}

/** Runs one of core's long sums in a worker of its own. */
export function runCore<T extends CoreTask>(
  task: T,
  input: CoreTasks[T]['input'],
  onProgress: (share: number) => void = () => undefined,
): Running<CoreTasks[T]['output']> {
  const worker = new Worker(new URL('./core-worker.ts', import.meta.url), { type: 'module' });
  const done = new Promise<CoreTasks[T]['output']>((resolve, reject) => {
    const fail = (why: string) => {
      reject(new Error(why));
      worker.terminate();
    };
    worker.onmessage = ({ data }: MessageEvent<CoreMessage>) => {
      if ('progress' in data) onProgress(data.progress);
      else if ('fault' in data) fail(data.fault);
      else {
        resolve(data.output as CoreTasks[T]['output']);
        worker.terminate();
      }
    };
    worker.onerror = (event) => fail(event.message || 'its code could not be fetched; the server may be away');
    worker.onmessageerror = () => fail('its outcome could not be read');
  });
  worker.postMessage({ task, input });
  return { done, cancel: () => worker.terminate() };
}
