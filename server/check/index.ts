import { invalid, Problem } from '../http/problem';
import type { CheckedDrive, DriveCheck } from './check-drive';
import type { DriveMerge, DrivePatch } from './merge-drive';
import { MERGE } from './words';
import { TASKS, type Item, type Sent, type TaskName } from './tasks';
import { Thread } from './thread';
import type { DriveProblem } from '@emery/core/drive';

export { drawn, type CheckedDrive } from './check-drive';

/**
 * What is sent in so many bytes is checked at once: that takes a few ms, less than handing it over is worth. All else
 * is checked in a thread beside the requests, so that nobody waits for it; what is brought in has one of its own, so
 * that no save waits for it either.
 */
const SMALL = 40_000;
const saves = new Thread();
const imports = new Thread();

const THREADS: Readonly<Record<TaskName, Thread>> = {
  drive: saves,
  merge: saves,
  job: saves,
  events: saves,
  stock: imports,
  files: imports,
  archive: imports,
  memory: imports,
};

/** Does a task, a piece each time one is asked for. `size` is how much was sent, bytes. */
export async function* piecesOf<T extends TaskName>(task: T, value: Sent<T>, size: number): AsyncGenerator<Item<T>> {
  // The table has each task take what it is sent, and give what it gives.
  const pieces = size <= SMALL ? TASKS[task](value as never) : THREADS[task].run(task, value);
  yield* pieces as AsyncGenerator<Item<T>>;
}

/** Does a task of one piece. */
export async function checked<T extends TaskName>(task: T, value: Sent<T>, size: number): Promise<Item<T>> {
  for await (const item of piecesOf(task, value, size)) return item;
  throw new Error(`${task} gave nothing`);
}

/** Checks and draws a drive as it came. */
export const driveCheck = (value: unknown): Promise<DriveCheck> =>
  checked('drive', value, (JSON.stringify(value) ?? '').length);

/**
 * The same for the `document` of a request; refuses with 422 what the drive file does not allow, each field by its
 * path.
 */
export async function checkedDrive(value: unknown): Promise<CheckedDrive> {
  const check = await driveCheck(value);
  if (check.ok) return check;
  throw notADrive(check.problems);
}

const notADrive = (problems: readonly DriveProblem[]) =>
  invalid(problems.map(({ path, message }) => ({ path: path === '' ? 'document' : `document.${path}`, message })));

/** A stored drive with changes that somebody made to a version of it; refuses what no drive allows. */
export async function mergedDrive(patch: DrivePatch): Promise<Extract<DriveMerge, { ok: true }>> {
  // Many changes are looked at many times over.
  const size = patch.document.length + 40 * patch.changes.length ** 2;
  const merge = await checked('merge', patch, size);
  if (merge.ok) return merge;
  if (merge.full !== null) throw new Problem(422, MERGE.full, merge.full);
  throw notADrive(merge.problems.length > 0 ? merge.problems : [{ path: '', message: MERGE.unfit }]);
}
