import { mkdirSync } from 'node:fs';
import path from 'node:path';
import pino, { type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { RequestHandler } from 'express';

/** The server's log: a file, so that a frozen terminal never holds up a request; silent where no folder is given. */
export function openLog(folder: string | undefined): Logger {
  if (!folder) return pino({ level: 'silent' });
  mkdirSync(folder, { recursive: true });
  return pino({ level: 'info' }, pino.destination({ dest: path.join(folder, 'server.log'), sync: false }));
}

/** One line a request: method, address, status, time. No bodies and no headers. */
export function requestLog(logger: Logger): RequestHandler {
  return pinoHttp({
    logger,
    autoLogging: { ignore: (request) => !request.url?.startsWith('/api/') },
    serializers: {
      req: ({ method, url }: { method: string; url: string }) => ({ method, url }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
  });
}
