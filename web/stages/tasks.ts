import { readStockFile } from '../stock/read-stock-file';
import { alignTasks } from './align/tasks';
import { inspectTasks } from './inspect/tasks';
import { jobTasks } from './job/tasks';
import { noiseTasks } from './noise/tasks';
import { routeTasks } from './route/tasks';
import { sizeTasks } from './size/tasks';
import { speedsTasks } from './speeds/tasks';
import { surveyTasks } from './survey/tasks';
import { tensionTasks } from './tension/tasks';

/** Everything that is run beside the page, by name. A stage adds its own in one line. */
export const TASKS = {
  ...surveyTasks,
  ...routeTasks,
  ...sizeTasks,
  ...speedsTasks,
  ...tensionTasks,
  ...alignTasks,
  ...noiseTasks,
  ...inspectTasks,
  ...jobTasks,
  stock: (file: File, onProgress: (fraction: number) => void) => readStockFile(file, onProgress),
  /** Has the worker's code fetched while the server is there. */
  nothing: (_: null) => null,
};

export type CoreTask = keyof typeof TASKS;
export type CoreInput<T extends CoreTask> = Parameters<(typeof TASKS)[T]>[0];
export type CoreOutput<T extends CoreTask> = Awaited<ReturnType<(typeof TASKS)[T]>>;
