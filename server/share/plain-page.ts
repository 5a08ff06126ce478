import http, { type RequestListener } from 'node:http';
import helmet from 'helmet';
import { inAddress, readHost } from './addresses';
import { derOf } from './authority';
import { ADDRESS_UNKNOWN, plainPage } from './words';

const security = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      'default-src': ["'none'"],
      'script-src': ["'self'"],
      'style-src': ["'unsafe-inline'"],
      'base-uri': ["'none'"],
      'form-action': ["'none'"],
      'frame-ancestors': ["'none'"],
    },
  },
  strictTransportSecurity: false,
});

/** Says how far the clock of the device is off, which alone can make a good certificate look bad. */
const CLOCK = `'use strict';
const there = Number(document.documentElement.dataset.now);
const off = Math.round((Date.now() - there) / 60000);
if (Math.abs(off) > 3) {
  const line = document.getElementById('clock');
  const hours = Math.abs(off) >= 90;
  const amount = hours ? Math.round(Math.abs(off) / 60) + ' hours' : Math.abs(off) + ' minutes';
  line.textContent = 'The clock of this device is ' + amount + (off > 0 ? ' ahead' : ' behind') + ' of Emery. Set it first: a certificate is refused by a wrong clock.';
  line.hidden = false;
}
`;

export interface PlainOptions {
  /** The hosts that are answered for. */
  isOurs: (host: string) => boolean;
  port: () => number;
  authority: () => { certificate: string; fingerprint: string } | null;
}

/**
 * What is answered without encryption on the shared port: the certificate of the authority, the page that tells how to
 * trust it, and nothing of the shop.
 */
export function plainServer({ isOurs, port, authority }: PlainOptions): http.Server {
  const answer: RequestListener = (request, response) => {
    const send = (status: number, type: string, body: string | Buffer) => {
      response.writeHead(status, { 'content-type': type, 'cache-control': 'no-store' });
      response.end(request.method === 'HEAD' ? undefined : body);
    };
    const host = readHost(request.headers.host ?? '')?.host;
    if (host === undefined || !isOurs(host)) return send(403, 'text/plain; charset=utf-8', ADDRESS_UNKNOWN);
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return send(405, 'text/plain; charset=utf-8', 'Use https.');
    const own = authority();
    if (request.url === '/emery-authority.crt' && own) {
      response.setHeader('content-disposition', 'attachment; filename="emery-authority.crt"');
      return send(200, 'application/x-x509-ca-cert', derOf(own.certificate));
    }
    if (request.url === '/clock.js') return send(200, 'text/javascript; charset=utf-8', CLOCK);
    const address = `https://${inAddress(host)}:${port()}`;
    send(
      200,
      'text/html; charset=utf-8',
      plainPage({ address, fingerprint: own?.fingerprint ?? null, now: Date.now() }),
    );
  };
  const server = http.createServer((request, response) => security(request, response, () => answer(request, response)));
  // Small, and asked for once a device.
  server.headersTimeout = 10_000;
  server.requestTimeout = 10_000;
  server.keepAliveTimeout = 2000;
  return server;
}
