import { existsSync, renameSync, statSync } from 'node:fs';

/*
 * Plain JavaScript, for the scripts that start the database keep their logs by it as well, without anything to build.
 */

/** A log is set aside once it is so large, bytes, and so many of those stay. */
export const MOST_LOG_BYTES = 5_000_000;
const MOST_OLD = 5;

/**
 * Sets a log aside that has grown, before it is written on; whatever keeps it from that, the log goes on where it is.
 * Returns how large the log is that is written on, bytes.
 *
 * @param {string} file
 * @returns {number}
 */
export function setLogAside(file) {
  try {
    const { size } = statSync(file);
    if (size < MOST_LOG_BYTES) return size;
    for (let k = MOST_OLD - 1; k >= 1; k -= 1)
      if (existsSync(`${file}.${k}`)) renameSync(`${file}.${k}`, `${file}.${k + 1}`);
    renameSync(file, `${file}.1`);
  } catch {
    // There is none yet, or it cannot be moved.
  }
  return 0;
}
