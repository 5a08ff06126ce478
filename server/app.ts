import path from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { jsonBody, MOST_DRIVE_BYTES } from './json-body';
import { requestLog } from './log';
import { Problem, problemHandler, unknownAddress } from './problem';
import { driveRoutes } from './routes/drives';
import { fileRoutes } from './routes/files';
import { healthRoutes } from './routes/health';
import { photoRoutes } from './routes/photos';
import { shopRoutes } from './routes/shop';
import { bandRoutes, pulleyRoutes } from './routes/speeds';
import { STOCK_BOUNDS, stockRoutes } from './routes/stock';
import { vehicleRoutes } from './routes/vehicles';

/** Lists and files brought in, bytes. */
const LARGE = 20 * 1024 * 1024;
/** What goes around a drive that is saved, bytes. */
const ENVELOPE_BYTES = 1024;

export interface AppOptions {
  data: DataSource;
  logger: Logger;
  /** The built interface; without it only the API is served. */
  webFolder?: string;
}

/** The whole HTTP server, not yet listening. */
export function createApp({ data, logger, webFolder }: AppOptions): Express {
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
  app.use('/api/photos', photoRoutes(data));
  app.use('/api/import', jsonBody(LARGE));
  app.use('/api/stock', jsonBody(LARGE, STOCK_BOUNDS), stockRoutes(data));
  app.use('/api', jsonBody(MOST_DRIVE_BYTES + ENVELOPE_BYTES));
  app.use('/api/health', healthRoutes(data));
  app.use('/api/shop', shopRoutes(data));
  app.use('/api/bands', bandRoutes(data));
  app.use('/api/pulleys', pulleyRoutes(data));
  app.use('/api/vehicles', vehicleRoutes(data));
  app.use('/api/drives', driveRoutes(data));
  app.use('/api', fileRoutes(data));
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
  app.use(
    '/assets',
    express.static(path.join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }),
  );
  app.use(express.static(webFolder, { index: false }));
  // Every other address is a page of the interface, which finds its own way.
  app.get('/{*page}', (_request, response) =>
    response.sendFile('index.html', { root: webFolder, headers: { 'Cache-Control': 'no-cache' } }),
  );
}
