/** So many short runs in a row are started again; the next is not. */
const MOST = 5;
/** A server that listened for less than this, ms, has had a short run. */
const SHORT = 30_000;

/**
 * Whether a server that ended by itself is to be started again, told after each of its runs by how long it listened,
 * ms. How long the starts take does not count: on a slow machine six of them fill more than any minute, and a server
 * that cannot live would be started for ever.
 */
export function startsAgain() {
  let short = 0;
  return (listenedFor) => {
    short = listenedFor < SHORT ? short + 1 : 0;
    return short <= MOST;
  };
}
