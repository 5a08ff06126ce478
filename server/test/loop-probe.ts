import { readFileSync } from 'node:fs';

/**
 * Processor time of the thread that calls this, ms: what others on the machine take in between does not count. From
 * the kernel's own account of a process's first thread.
 */
function processorMs(): number {
  return Number(readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'latin1').split(' ')[0]) / 1e6;
}

/**
 * Watches every turn of the event loop from now on: nobody else is answered while one lasts. What it gives back tells
 * the processor time of the longest since it was last asked, ms.
 */
export function watchLoop(): () => number {
  let longest = 0;
  let before = processorMs();
  const turn = () => {
    const now = processorMs();
    longest = Math.max(longest, now - before);
    before = now;
    setImmediate(turn);
  };
  setImmediate(turn);
  return () => {
    const told = longest;
    longest = 0;
    return told;
  };
}
