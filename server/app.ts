import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import packedStatic from 'express-static-gzip';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { accessOf } from './access/access';
import { MACHINE, setCaller } from './access/caller';
import { accessGuard } from './access/guard';
import { sessions } from './access/sessions';
import { jsonBody, MOST_DRIVE_BYTES } from './http/json-body';
import { requestLog } from './http/log';
import { watchAnswers } from './keep/slow-answers';
import { Problem, problemHandler, unknownAddress } from './http/problem';
import { tellLists } from './live/tell-lists';
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
  /** Where it is asked from: the machine itself, which needs no sign-in, or other devices. */
  door: 'machine' | 'shared';
  /** Addresses of proxies whose word on who asks is taken; for the shared door alone. */
  proxies?: string | undefined;
}

/** The whole HTTP server, not yet listening. The shop is to be open (`openAccess`). */
export function createApp({ data, logger, webFolder, guard, door, proxies }: AppOptions): Express {
  const access = accessOf(data);
  const app = express();
  app.disable('x-powered-by');
  if (proxies) app.set('trust proxy', proxies.split(/[\s,]+/).filter(Boolean));
  app.use(requestLog(logger));
  app.use(
    helmet({
      contentSecurityPolicy: {
        // The component library writes its style sheet at run time; scripts stay ours alone.
        directives: {
          'style-src': ["'self'", "'unsafe-inline'"],
          'frame-ancestors': ["'none'"],
          'upgrade-insecure-requests': null,
        },
      },
      xFrameOptions: { action: 'deny' },
      strictTransportSecurity: false,
    }),
  );
  // Answers of the API go to this machine alone: packing them takes longer than they do. Over the air it does not.
  app.use(
    compression({
      filter: (request, response) =>
        (door === 'shared' || !request.originalUrl.startsWith('/api/')) &&
        // A stream that is packed would be kept back until it is long enough.
        !request.originalUrl.startsWith('/api/live') &&
        compression.filter(request, response),
    }),
  );
  // A monitor asks where it asks everything.
  app.get('/health', (request, _response, next) => {
    request.url = '/api/health';
    next();
  });
  app.use('/api', watchAnswers(data));
  app.use('/api', door === 'machine' ? sameMachine : ownPage((host, origin) => access.sharing.isOwnPage(host, origin)));
  const build = buildOf(webFolder);
  app.use('/api', (_request, response, next) => {
    response.set({ 'Cache-Control': 'no-store', ...(build && { 'Emery-Build': build }) });
    next();
  });
  if (guard) app.use('/api', guard);
  if (door === 'shared') app.use('/api', ...sessions(data, access.secret));
  else app.use('/api', atMachine);
  app.use('/api', accessGuard({ data, ...access }));
  app.use('/api', tellLists(data));
  const drive = jsonBody(MOST_DRIVE_BYTES + ENVELOPE_BYTES);
  for (const { bodies = {} } of RESOURCES)
    for (const [path, body] of Object.entries(bodies)) app.use(`/api${path}`, body);
  for (const { path, body = drive, routes } of RESOURCES) app.use(`/api${path}`, ...(body ? [body] : []), routes(data));
  app.use('/api', unknownAddress);
  if (webFolder) serveInterface(app, webFolder);
  app.use(problemHandler);
  return app;
}

/** Which build of the interface is served: a page that was loaded before another is told by it. */
function buildOf(webFolder: string | undefined): string | null {
  if (!webFolder) return null;
  return createHash('sha256')
    .update(readFileSync(path.join(webFolder, 'index.html')))
    .digest('hex')
    .slice(0, 12);
}

const atMachine: RequestHandler = (request, _response, next) => {
  setCaller(request, MACHINE);
  next();
};

/** A proxy before the machine's own door would let in everybody as its owner. */
const PROXY_HEADERS = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip', 'via'];

/**
 * A page of some other site must not reach the shop through the visitor's browser: only our own name and origin are
 * answered.
 */
const sameMachine: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  const { origin } = request.headers;
  const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
  if (!local || (origin !== undefined && origin !== `http://${host}`) || isCrossSite(request.headers)) {
    throw new Problem(403, 'Refused', 'Emery answers only pages it served itself, on this machine.');
  }
  if (PROXY_HEADERS.some((name) => request.headers[name] !== undefined))
    throw new Problem(
      403,
      'Refused',
      'This came through a proxy. For one of the shop’s own set EMERY_ORIGIN, and let it ask the shared port.',
    );
  next();
};

/** The same at the shared door, whose names and addresses may change while it is open. */
const ownPage =
  (isOwn: (host: string, origin: string | undefined) => boolean): RequestHandler =>
  (request, _response, next) => {
    // As the proxy says where there is one, and only where it is one of the shop's.
    if (!isOwn(request.host ?? '', request.headers.origin) || isCrossSite(request.headers))
      throw new Problem(403, 'Refused', 'Emery answers only pages it served itself, at its own addresses.');
    next();
  };

/** Whether a browser says that another site asks (Fetch Metadata). */
const isCrossSite = (headers: Record<string, string | string[] | undefined>): boolean =>
  headers['sec-fetch-site'] === 'cross-site' || headers['sec-fetch-site'] === 'same-site';

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
