import { type Habits, setHabits } from '@emery/core/quantity';
import { TASKS, type CoreInput, type CoreTask } from '../stages/tasks';

/** The long sums, run beside the page. What goes in and out is plain data; cancelling is ending the worker. */
/** What is asked of it: a sum, what of, and how the person before the page writes figures. */
export interface CoreAsked<T extends CoreTask = CoreTask> {
  task: T;
  input: CoreInput<T>;
  habits: Habits;
}

export type CoreMessage = { progress: number } | { output: unknown } | { fault: string };

self.onmessage = async <T extends CoreTask>({ data }: MessageEvent<CoreAsked<T>>) => {
  // What is put in words here is written as on the page.
  setHabits(data.habits);
  const tell = (message: CoreMessage) => self.postMessage(message);
  // The name says which of them it is, and so what it takes.
  const run = TASKS[data.task] as (input: CoreInput<T>, onProgress: (fraction: number) => void) => unknown;
  try {
    tell({ output: await run(data.input, (progress) => tell({ progress })) });
  } catch (error) {
    tell({ fault: error instanceof Error ? error.message : String(error) });
  }
};
