import https from 'node:https';
import type { Answer } from './running';

/** Another device of the network: it keeps its cookie, and trusts one authority alone. */
export class Outside {
  cookie = '';
  /** What the last answer said besides its body. */
  headers: Record<string, string | string[] | undefined> = {};

  constructor(
    readonly origin: string,
    private readonly authority: string,
    /** The name that is asked for, where it is not that of the address. */
    private readonly more: Record<string, string> = {},
  ) {}

  ask = (method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> =>
    this.fetch(method, `/api${path}`, body, headers);

  fetch(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const text =
      body === undefined || body instanceof Uint8Array || typeof body === 'string' ? body : JSON.stringify(body);
    return new Promise((resolve, reject) => {
      const request = https.request(
        `${this.origin}${path}`,
        {
          method,
          ca: this.authority,
          // Of the address, whatever name is asked for.
          servername: '',
          headers: {
            ...(text !== undefined && {
              'content-type': 'application/json',
              'content-length': String(Buffer.byteLength(text)),
            }),
            ...(this.cookie && { cookie: this.cookie }),
            ...this.more,
            ...headers,
          },
        },
        (response) => {
          this.headers = response.headers;
          for (const set of response.headers['set-cookie'] ?? []) this.cookie = set.split(';')[0]!;
          const pieces: Buffer[] = [];
          response.on('data', (piece: Buffer) => pieces.push(piece));
          response.on('error', reject);
          response.on('end', () => {
            const said = Buffer.concat(pieces).toString();
            resolve({
              status: response.statusCode!,
              type: response.headers['content-type'] ?? '',
              body: said.startsWith('{') ? JSON.parse(said) : said,
            });
          });
        },
      );
      request.on('error', reject);
      request.end(text);
    });
  }
}
