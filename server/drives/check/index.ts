import { Worker } from 'node:worker_threads';
import { invalid, Problem } from '../../http/problem';
import { checkDrive, type CheckedDrive, type DriveCheck } from './check-drive';

export { drawn, type CheckedDrive } from './check-drive';

/** A drive of so many characters is checked at once: that takes a few ms, less than handing it over is worth. */
const SMALL = 40_000;
/** No drive within its limits takes this long, ms. */
const LONGEST = 30_000;

interface Waiting {
  resolve: (check: DriveCheck) => void;
  reject: (error: Error) => void;
}

/**
 * Large drives are checked in a thread of their own, so that nobody else waits for them. The thread is started with the
 * first.
 */
let worker: Worker | null = null;
let number = 0;
const waiting = new Map<number, Waiting>();

function checkBeside(value: unknown): Promise<DriveCheck> {
  if (!worker) {
    const started = new Worker(new URL('./start-worker.mjs', import.meta.url), { execArgv: [] });
    const gone = () => {
      if (worker === started) worker = null;
      for (const { reject } of waiting.values())
        reject(
          new Problem(
            503,
            'Check interrupted',
            'The drive was being checked when that was cut short. Nothing is lost; try again.',
          ),
        );
      waiting.clear();
    };
    started.on('message', ({ number: which, check }: { number: number; check: DriveCheck }) => {
      waiting.get(which)?.resolve(check);
      waiting.delete(which);
      if (waiting.size === 0) started.unref();
    });
    started.on('error', gone);
    started.on('exit', gone);
    worker = started;
  }
  number += 1;
  worker.ref();
  const [mine, own] = [worker, number];
  mine.postMessage({ number: own, value });
  return new Promise((resolve, reject) => {
    const late = setTimeout(() => void mine.terminate(), LONGEST).unref();
    const settled =
      <T>(settle: (value: T) => void) =>
      (value: T) => {
        clearTimeout(late);
        settle(value);
      };
    waiting.set(own, { resolve: settled(resolve), reject: settled(reject) });
  });
}

/** The one before it in the queue for the thread. */
let before: Promise<unknown> = Promise.resolve();

/** Checks a drive in the thread once those before it are done: its time starts when its own check does. */
function inTurn(value: unknown): Promise<DriveCheck> {
  const mine = before.then(() => checkBeside(value));
  before = mine.catch(() => undefined);
  return mine;
}

/** Checks and draws a drive as it came. */
export async function driveCheck(value: unknown): Promise<DriveCheck> {
  return (JSON.stringify(value) ?? '').length <= SMALL ? checkDrive(value) : inTurn(value);
}

/**
 * The same for the `document` of a request; refuses with 422 what the drive file does not allow, each field by its
 * path.
 */
export async function checkedDrive(value: unknown): Promise<CheckedDrive> {
  const check = await driveCheck(value);
  if (check.ok) return check;
  throw invalid(
    check.problems.map(({ path, message }) => ({ path: path === '' ? 'document' : `document.${path}`, message })),
  );
}
