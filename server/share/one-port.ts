import net, { type Socket } from 'node:net';
import type http from 'node:http';
import type https from 'node:https';

/** The first byte of a TLS handshake (RFC 8446, 5.1). */
const HANDSHAKE = 0x16;
/** Who connects and says nothing for so long is let go, ms. */
const SILENT_MS = 10_000;
/** So many may be connected and not have said what they want. */
const MOST_SILENT = 500;

export interface OnePort {
  listener: net.Server;
  /** Cuts off everybody, whatever they are at. */
  cutOff: () => void;
}

/**
 * One port for both: what begins as a TLS handshake goes to `secure`, all else to `plain`. Whoever leaves the s out of
 * an address meets the plain page there and not an error.
 */
export function onePort(secure: https.Server, plain: http.Server): OnePort {
  const sockets = new Set<Socket>();
  let silent = 0;
  // Neither listens itself; they look after requests that never end from this moment on.
  for (const server of [secure, plain]) server.emit('listening');
  const listener = net.createServer((socket) => {
    if (silent >= MOST_SILENT) return void socket.destroy();
    silent += 1;
    let counted = true;
    const heard = () => {
      if (counted) silent -= 1;
      counted = false;
    };
    const drop = () => socket.destroy();
    sockets.add(socket);
    socket.setTimeout(SILENT_MS, drop);
    socket.on('error', drop);
    socket.once('close', () => {
      heard();
      sockets.delete(socket);
    });
    socket.once('data', (first) => {
      heard();
      socket.setTimeout(0);
      socket.off('timeout', drop);
      // Nothing more is read here: whoever takes the connection reads the rest of it.
      socket.pause();
      socket.unshift(first);
      const to = first[0] === HANDSHAKE ? secure : plain;
      to.emit('connection', socket);
      process.nextTick(() => socket.resume());
    });
  });
  return {
    listener,
    cutOff: () => {
      for (const socket of sockets) socket.destroy();
      for (const server of [secure, plain]) server.close();
    },
  };
}
