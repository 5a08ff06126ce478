import { DEFAULT_HABITS, habitsNow } from '@emery/core/quantity';
import type { CoreAsked, CoreMessage } from './core-worker';
import type { CoreInput, CoreOutput, CoreTask } from '../stages/tasks';

/** Their words are stored with a job and read by everybody: they are written as ever, whoever asks. */
const SHARED: readonly CoreTask[] = ['jobCard', 'jobBring'];

export interface RunOptions {
  /** Ends the work at once; the promise is then rejected with the signal's reason. */
  signal?: AbortSignal;
  onProgress?: (fraction: number) => void;
}

/** Runs one of core's long sums in a worker of its own. Rejects with why there is no outcome. */
export function runCore<T extends CoreTask>(
  task: T,
  input: CoreInput<T>,
  { signal, onProgress = () => undefined }: RunOptions = {},
): Promise<CoreOutput<T>> {
  const worker = new Worker(new URL('./core-worker.ts', import.meta.url), { type: 'module' });
  return new Promise<CoreOutput<T>>((resolve, reject) => {
    const end = (settle: () => void) => {
      worker.terminate();
      settle();
    };
    signal?.addEventListener('abort', () => end(() => reject(signal.reason as Error)));
    worker.onmessage = ({ data }: MessageEvent<CoreMessage>) => {
      if ('progress' in data) onProgress(data.progress);
      else if ('fault' in data) end(() => reject(new Error(data.fault)));
      else end(() => resolve(data.output as CoreOutput<T>));
    };
    worker.onerror = (event) =>
      end(() => reject(new Error(event.message || 'its code could not be loaded; the server may be down')));
    worker.onmessageerror = () => end(() => reject(new Error('its result could not be read')));
    const habits = SHARED.includes(task) ? DEFAULT_HABITS : habitsNow();
    worker.postMessage({ task, input, habits } satisfies CoreAsked<T>);
  });
}
