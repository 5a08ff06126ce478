import { readFileSync } from 'node:fs';

/** A turn shorter than this is never looked into, ms of processor time. */
const SHORT_MS = 5;

/** What the kernel's own account says at one moment: of a process's first thread, and of what the host took away. */
interface Look {
  /** Processor time of the thread, ms. What the host takes meanwhile is in it, for the kernel cannot tell. */
  processorMs: number;
  /** Which processor it is on. */
  on: string;
  /** What the host took from each processor, ms since it was started, by its name, and `cpu`, from all: proc(5). */
  takenMs: Record<string, number>;
}

function processorMs(): number {
  return Number(readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'latin1').split(' ')[0]) / 1e6;
}

function look(): Look {
  const [, state = ''] = readFileSync(`/proc/self/task/${process.pid}/stat`, 'latin1').split(') ');
  const rows = readFileSync('/proc/stat', 'latin1').matchAll(/^(cpu\d*) +(.*)$/gm);
  const takenMs = Object.fromEntries(
    [...rows].map(([, name = '', row = '']) => [name, 10 * Number(row.split(' ')[7])]),
  );
  return { processorMs: processorMs(), on: `cpu${state.split(' ')[36]}`, takenMs };
}

/** What the thread had of the processor between two looks, ms, without what the host took from it. */
function ownMs(from: Look, to: Look): number {
  // One that was moved may have lost it on either.
  const where = from.on === to.on ? from.on : 'cpu';
  return to.processorMs - from.processorMs - (to.takenMs[where]! - from.takenMs[where]!);
}

/**
 * Watches every turn of the event loop from now on: nobody else is answered while one lasts. What it gives back tells
 * the processor time of the longest since it was last asked, ms: neither what others on the machine take in between nor
 * what its host takes from the machine counts.
 */
export function watchLoop(): () => number {
  let longest = 0;
  let looked = look();
  let before = looked.processorMs;
  const turn = () => {
    const now = processorMs();
    let lasted = now - before;
    // At most one short turn before this one is between the looks as well.
    if (now - looked.processorMs >= SHORT_MS) {
      const later = look();
      lasted = Math.min(lasted, ownMs(looked, later));
      looked = later;
    }
    longest = Math.max(longest, lasted);
    before = now;
    setImmediate(turn);
  };
  setImmediate(turn);
  return () => {
    const before = longest;
    longest = 0;
    return before;
  };
}

/** The least that the thread can have had of the processor between two looks, ms: all that was taken, from it. */
const leastMs = (from: Look, to: Look): number =>
  to.processorMs - from.processorMs - (to.takenMs['cpu']! - from.takenMs['cpu']!);

/**
 * Holds the loop for so much of the processor's time, ms, for the test of the watch itself: by the account that says
 * least, for the watch takes that one where the thread was moved from one processor to the other. Ten times as long at
 * most, where the host takes nearly all.
 */
export function holdLoop(ms: number): void {
  const from = look();
  for (let now = look(); leastMs(from, now) < ms && now.processorMs - from.processorMs < 10 * ms;) now = look();
}
