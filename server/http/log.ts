import { createWriteStream, mkdirSync, type WriteStream } from 'node:fs';
import path from 'node:path';
import pino, { type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { RequestHandler } from 'express';
import { MOST_LOG_BYTES, setLogAside } from './set-log-aside.js';

/** Text that waits for the disk beyond this is dropped, bytes. */
const MOST_WAITING = 1_000_000;
/** After a fault the file is opened again with the first line after this, ms. */
const AGAIN_MS = 5000;

/**
 * A log file that never holds anybody up: written beside the requests, and what the disk does not take, as when it is
 * full, is dropped. It goes on by itself once there is room.
 */
export class LogFile {
  private stream: WriteStream | null = null;
  private notBefore = 0;
  private dropped = 0;
  private size = 0;

  constructor(private readonly file: string) {}

  write(line: string): void {
    if (!this.stream && Date.now() >= this.notBefore) this.open();
    if (!this.stream || this.stream.writableLength > MOST_WAITING) {
      this.dropped += 1;
      return;
    }
    if (this.dropped > 0)
      this.stream.write(
        `${JSON.stringify({ level: 40, time: Date.now(), msg: `${this.dropped} lines were dropped: the disk accepted none` })}\n`,
      );
    this.dropped = 0;
    this.stream.write(line);
    this.size += line.length;
    if (this.size < MOST_LOG_BYTES) return;
    this.stream.end();
    this.stream = null;
    this.size = 0;
  }

  private open(): void {
    this.size = setLogAside(this.file);
    const stream = createWriteStream(this.file, { flags: 'a' });
    stream.on('error', () => {
      stream.destroy();
      if (this.stream === stream) this.stream = null;
      this.notBefore = Date.now() + AGAIN_MS;
    });
    this.stream = stream;
  }
}

/** The server's log: a file, so that a frozen terminal never holds up a request; silent where no folder is given. */
export function openLog(folder: string | undefined): Logger {
  if (!folder) return pino({ level: 'silent' });
  mkdirSync(folder, { recursive: true });
  return pino({ level: 'info' }, new LogFile(path.join(folder, 'server.log')));
}

/** One line a request: method, address without what was searched for, status, time. No bodies and no headers. */
export function requestLog(logger: Logger): RequestHandler {
  return pinoHttp({
    logger,
    autoLogging: { ignore: (request) => !request.url?.startsWith('/api/') },
    serializers: {
      req: ({ method, url }: { method: string; url: string }) => ({ method, url: url.split('?')[0] }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
  });
}
