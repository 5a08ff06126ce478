import path from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import packedStatic from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { jsonBody, MOST_DRIVE_BYTES } from './http/json-body';
import { requestLog } from './http/log';
import { Problem, problemHandler, unknownAddress } from './http/problem';
import { RESOURCES } from './resources';

/** What goes around a drive that is saved, bytes. */
const ENVELOPE_BYTES = 1024;

export interface AppOptions {
  data: DataSource;
  logger: Logger;
  /** The built interface; without it only the API is served. */
  webFolder?: string;
  /** Stands before all that asks the database. */
  guard?: RequestHandler;
}

/** The whole HTTP server, not yet listening. */
export function createApp({ data, logger, webFolder, guard }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(requestLog(logger));
  app.use(
    helmet({
      contentSecurityPolicy: {
        // The component library writes its style sheet at run time; scripts stay ours alone.
        directives: { 'style-src': ["'self'", "'unsafe-inline'"], 'upgrade-insecure-requests': null },
      },
      strictTransportSecurity: false,
    }),
  );
  // Answers of the API go to this machine alone: packing them takes longer than they do.
  app.use(
    compression({
      filter: (request, response) => !request.originalUrl.startsWith('/api/') && compression.filter(request, response),
    }),
  );
  app.use('/api', sameMachine);
  app.use('/api', (_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  if (guard) app.use('/api', guard);
  const drive = jsonBody(MOST_DRIVE_BYTES + ENVELOPE_BYTES);
  for (const { bodies = {} } of RESOURCES)
    for (const [path, body] of Object.entries(bodies)) app.use(`/api${path}`, body);
  for (const { path, body = drive, routes } of RESOURCES) app.use(`/api${path}`, ...(body ? [body] : []), routes(data));
  app.use('/api', unknownAddress);
  if (webFolder) serveInterface(app, webFolder);
  app.use(problemHandler);
  return app;
}

/**
 * A page of some other site must not reach the shop through the visitor's browser: only our own name and origin are
 * answered.
 */
const sameMachine: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  const { origin } = request.headers;
  const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
  if (!local || (origin !== undefined && origin !== `http://${host}`)) {
    throw new Problem(403, 'Refused', 'Emery answers only pages it served itself, on this machine.');
  }
  next();
};

function serveInterface(app: Express, webFolder: string): void {
  // Packed once when they were built, as tightly as it goes.
  app.use(
    '/assets',
    packedStatic(path.join(webFolder, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  app.use(express.static(webFolder, { index: false }));
  // Every other address is a page of the interface, which finds its own way.
  app.get('/{*page}', (_request, response) =>
    response.sendFile('index.html', { root: webFolder, headers: { 'Cache-Control': 'no-cache' } }),
  );
}
