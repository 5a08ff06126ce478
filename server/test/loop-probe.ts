import { readFileSync } from 'node:fs';

/** A turn shorter than this is never looked into, ms of processor time. */
const SHORT_MS = 5;

/** What the kernel's own account says at one moment: of a process's first thread, and of what the host took away. */
interface Look {
  /** Processor time of the thread, ms. What the host takes meanwhile is in it, for the kernel cannot tell. */
  processorMs: number;
  /** How long the thread was ready and others of this machine had the processor, ms. */
  waitedMs: number;
  /** Which processor it is on. */
  on: string;
  /** What the host took from each processor, ms since it was started, by its name, and `cpu`, from all: proc(5). */
  takenMs: Record<string, number>;
}

function scheduled(): Pick<Look, 'processorMs' | 'waitedMs'> {
  const [processor, waited] = readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'latin1').split(' ');
  return { processorMs: Number(processor) / 1e6, waitedMs: Number(waited) / 1e6 };
}

function look(): Look {
  const [, state = ''] = readFileSync(`/proc/self/task/${process.pid}/stat`, 'latin1').split(') ');
  const rows = readFileSync('/proc/stat', 'latin1').matchAll(/^(cpu\d*) +(.*)$/gm);
  const takenMs = Object.fromEntries(
    [...rows].map(([, name = '', row = '']) => [name, 10 * Number(row.split(' ')[7])]),
  );
  return { ...scheduled(), on: `cpu${state.split(' ')[36]}`, takenMs };
}

/** What the thread had of the processor between two looks, ms, without what the host took from it. */
function ownMs(from: Look, to: Look): number {
  // One that was moved may have lost it on either.
  const where = from.on === to.on ? from.on : 'cpu';
  return to.processorMs - from.processorMs - (to.takenMs[where]! - from.takenMs[where]!);
}

/** The longest turn of the loop: its processor time, and how long it waited for the processor besides, ms. */
export interface LongestTurn {
  heldMs: number;
  waitedMs: number;
}

/**
 * Watches every turn of the event loop from now on: nobody else is answered while one lasts. What it gives back tells
 * of the longest since it was last asked: neither what others on the machine take in between nor what its host takes
 * from the machine counts in its processor time.
 */
export function watchLoop(): () => LongestTurn {
  const none = { heldMs: 0, waitedMs: 0 };
  let longest: LongestTurn = none;
  let looked = look();
  let before: Pick<Look, 'processorMs' | 'waitedMs'> = looked;
  const turn = () => {
    const now = scheduled();
    let heldMs = now.processorMs - before.processorMs;
    // At most one short turn before this one is between the looks as well.
    if (now.processorMs - looked.processorMs >= SHORT_MS) {
      const later = look();
      heldMs = Math.min(heldMs, ownMs(looked, later));
      looked = later;
    }
    if (heldMs > longest.heldMs) longest = { heldMs, waitedMs: now.waitedMs - before.waitedMs };
    before = now;
    setImmediate(turn);
  };
  setImmediate(turn);
  return () => {
    const told = longest;
    longest = none;
    return told;
  };
}

/** Holds the loop for so much of the processor's time, ms, for the test of the watch itself. */
export function holdLoop(ms: number): void {
  for (const from = look(); ownMs(from, look()) < ms;);
}
