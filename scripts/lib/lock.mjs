import { createHash } from 'node:crypto';
import net from 'node:net';

/*
 * A name in Linux's abstract socket space is held by a process and let go by the kernel when it ends, however it ends.
 * So a lock is never stale, and a connection to the holder is a lease that cannot be left behind.
 */

/** The abstract socket for `purpose` on a folder, one per user. */
export function socketName(purpose, folder) {
  const digest = createHash('sha256').update(folder).digest('hex').slice(0, 24);
  return `\0emery-${purpose}-${process.getuid()}-${digest}`;
}

/** Takes the name and serves on it; resolves with the server, or with null where somebody else holds it. */
export function hold(name, onConnection = (socket) => socket.destroy()) {
  return new Promise((resolve, reject) => {
    const server = net.createServer(onConnection);
    server.on('error', (error) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)));
    server.listen(name, () => resolve(server));
  });
}

/** Runs `work` while holding the name, waiting for as long as somebody else does. */
export async function withLock(name, onWait, work) {
  let waited = false;
  for (;;) {
    const held = await hold(name);
    if (held) {
      try {
        return await work();
      } finally {
        held.close();
      }
    }
    if (!waited) onWait();
    waited = true;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}
