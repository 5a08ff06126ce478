import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { REFUSED } from './words';
import { Problem } from '../http/problem';

/** Work and memory of one look, 32 MB of it: what OWASP asks of scrypt at least (N = 2^15, r = 8, p = 3). */
const COST = { N: 2 ** 15, r: 8, p: 3, maxmem: 64 * 1024 * 1024 };
const BYTES = 32;
/** So many wait for their turn at most: each holds memory, and one is looked at at a time. */
const MOST_WAITING = 20;

export const SHORTEST_PASSPHRASE = 10;
export const LONGEST_PASSPHRASE = 200;

const derive = promisify<string, Buffer, number, typeof COST, Buffer>(scrypt);
const keyOf = (passphrase: string, salt: Buffer) => derive(passphrase.normalize('NFKC'), salt, BYTES, COST);

let line: Promise<unknown> = Promise.resolve();
let waiting = 0;

/** One after the other, so that many who try at once use no more memory than one. */
async function inLine<T>(work: () => Promise<T>): Promise<T> {
  if (waiting >= MOST_WAITING) throw new Problem(503, 'Busy', REFUSED.busy);
  waiting += 1;
  const own = line.then(work);
  line = own.catch(() => undefined);
  try {
    return await own;
  } finally {
    waiting -= 1;
  }
}

/** A passphrase as it is stored: the salt and the key that scrypt derives (RFC 7914), with its cost. */
export function hashed(passphrase: string): Promise<string> {
  const salt = randomBytes(16);
  return inLine(async () => `scrypt$${salt.toString('base64')}$${(await keyOf(passphrase, salt)).toString('base64')}`);
}

/** Stands in for somebody who is not there: the answer takes as long. */
const NOBODY = `scrypt$${randomBytes(16).toString('base64')}$${randomBytes(BYTES).toString('base64')}`;

/** Whether it is the passphrase that was stored; null for somebody who is not there, and false then. */
export function isPassphrase(passphrase: string, stored: string | null): Promise<boolean> {
  const [, salt = '', key = ''] = (stored ?? NOBODY).split('$');
  const wanted = Buffer.from(key, 'base64');
  return inLine(async () => {
    const same = timingSafeEqual(await keyOf(passphrase, Buffer.from(salt, 'base64')), wanted);
    return same && stored !== null;
  });
}
