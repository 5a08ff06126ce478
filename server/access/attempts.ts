import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';
import { againWords, REFUSED } from './words';
import { Problem } from '../http/problem';

const MINUTE = 60;

/** Wrong tries that are let through before whoever tries waits, and for how long, s. */
const BY_NAME = { points: 5, duration: 15 * MINUTE, blockDuration: 15 * MINUTE };
const BY_ADDRESS = { points: 20, duration: 15 * MINUTE, blockDuration: 15 * MINUTE };
/** Names that no one of the shop has share one account, so that tries of many names hold no memory. */
const UNKNOWN = ' ';

const GROUPS = 8;

/** The part of an address that one device cannot choose: of IPv6 the first 64 bits (RFC 4291). */
export function networkOf(address: string): string {
  if (!address.includes(':')) return address;
  const [before = '', after] = address.toLowerCase().split('::');
  const groups = (text: string) => text.split(':').filter((group) => group !== '');
  const [head, tail] = [groups(before), groups(after ?? '')];
  const between = Array<string>(Math.max(0, GROUPS - head.length - tail.length)).fill('0');
  return [...head, ...(after === undefined ? [] : between), ...tail]
    .slice(0, GROUPS / 2)
    .map((group) => group.replace(/^0+(?=.)/, ''))
    .join(':');
}

/** Slows whoever tries passphrases, by the name and by the address that they are tried for and from. */
export class Attempts {
  private readonly names = new RateLimiterMemory({ ...BY_NAME, keyPrefix: 'name' });
  private readonly addresses = new RateLimiterMemory({ ...BY_ADDRESS, keyPrefix: 'address' });

  /** Refuses with 429 where there were too many wrong ones; else counts one, to be taken back where it was right. */
  async begin(name: string | null, address: string): Promise<void> {
    await this.beginCode(address);
    await taken(this.names, name ?? UNKNOWN, REFUSED.wrongForName);
  }

  /** It was the right one. */
  async right(name: string, address: string): Promise<void> {
    await Promise.all([this.names.delete(name), this.rightCode(address)]);
  }

  /** The same for codes, which belong to no name: whoever tries them holds nobody else up. */
  async beginCode(address: string): Promise<void> {
    await taken(this.addresses, networkOf(address), REFUSED.wrongFromDevice);
  }

  async rightCode(address: string): Promise<void> {
    await this.addresses.reward(networkOf(address), 1);
  }
}

async function taken(limiter: RateLimiterMemory, key: string, why: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (limit) {
    throw tooMany((limit as RateLimiterRes).msBeforeNext, why);
  }
}

export function tooMany(ms: number, why: string): Problem {
  const minutes = Math.max(1, Math.ceil(ms / 60_000));
  return new Problem(429, 'Too many tries', `${why} ${againWords(minutes)}`, [], {
    retryAfterS: Math.ceil(ms / 1000),
  });
}
