import { readArchive } from '../files/read-archive';
import { readFiles } from '../files/read-files';
import { readEvents, readNewJob } from '../jobs/read-job';
import { readStock } from '../stock/read-stock';
import { checkDrive, type DriveCheck } from './check-drive';
import { type DriveMerge, type DrivePatch, mergeDrive } from './merge-drive';
import { withShopLimits } from '../drives/shop-limits';
import type { Drive, ShopLimit } from '@emery/core/drive';
import { memoryOf } from '@emery/core/records';

function* readOneDrive(value: unknown): Generator<DriveCheck> {
  yield checkDrive(value);
}

function* mergeOneDrive(patch: DrivePatch): Generator<DriveMerge> {
  yield mergeDrive(patch);
}

/** What is to be remembered of a stored drive by these limits of the shop. */
function* rememberDrive({ document, limits }: { document: string; limits: readonly ShopLimit[] | null }) {
  yield JSON.stringify(memoryOf(withShopLimits(JSON.parse(document) as Drive, limits)));
}

/** What is done beside the requests, a piece at a time. */
export const TASKS = {
  drive: readOneDrive,
  merge: mergeOneDrive,
  job: readNewJob,
  events: readEvents,
  stock: readStock,
  files: readFiles,
  archive: readArchive,
  memory: rememberDrive,
};

export type TaskName = keyof typeof TASKS;
export type Sent<T extends TaskName> = Parameters<(typeof TASKS)[T]>[0];
export type Item<T extends TaskName> =
  ReturnType<(typeof TASKS)[T]> extends Generator<infer I> | AsyncGenerator<infer I> ? I : never;
