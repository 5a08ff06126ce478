import { TASKS, type CoreInput, type CoreTask } from '../stages/tasks';

/** The long sums, run beside the page. What goes in and out is plain data; cancelling is ending the worker. */
export type CoreMessage = { progress: number } | { output: unknown } | { fault: string };

self.onmessage = async <T extends CoreTask>({ data }: MessageEvent<{ task: T; input: CoreInput<T> }>) => {
  const tell = (message: CoreMessage) => self.postMessage(message);
  // The name says which of them it is, and so what it takes.
  const run = TASKS[data.task] as (input: CoreInput<T>, onProgress: (fraction: number) => void) => unknown;
  try {
    tell({ output: await run(data.input, (progress) => tell({ progress })) });
  } catch (error) {
    tell({ fault: error instanceof Error ? error.message : String(error) });
  }
};
