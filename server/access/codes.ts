import { randomInt, randomUUID } from 'node:crypto';
import { newSecret, sealed } from './secret';
import type { CodeState } from '@emery/core/api';

/** A code is good for so long, ms. */
export const CODE_MS = 120_000;
/** So many may be open at once in a shop. */
const MOST_OPEN = 50;
/** Digits are one in a million each: after so many wrong ones within the life of a code no digits are good any more. */
const MOST_WRONG = 10;

/** Whom a code brings in, and where to. */
export interface Brought {
  person: string | null;
  job: string | null;
  name: string;
  /** The page it stands at afterwards. */
  place: string;
  /** Who showed it. */
  by: string;
}

interface Code extends Brought {
  id: string;
  token: string;
  digits: string | null;
  expires: number;
  state: CodeState;
}

/**
 * Codes that bring a device in, each good once and for two minutes: by a secret that a QR code holds, or by six digits.
 * They are kept in memory alone: a server that starts anew knows none of them.
 */
export class Codes {
  private codes: Code[] = [];
  private wrong: number[] = [];

  constructor(private readonly now: () => number = Date.now) {}

  /** A new one, or null while too many are open. */
  make(brought: Brought): { id: string; token: string; digits: string; expires: number } | null {
    this.tidy();
    const open = this.codes.filter(({ state }) => state === 'open');
    if (open.length >= MOST_OPEN) return null;
    const [token, expires] = [newSecret(), this.now() + CODE_MS];
    const others = new Set(open.map(({ digits }) => digits));
    let digits: string;
    do digits = String(randomInt(1_000_000)).padStart(6, '0');
    while (others.has(digits));
    const code: Code = { ...brought, id: randomUUID(), token: sealed(token), digits, expires, state: 'open' };
    this.codes.push(code);
    return { id: code.id, token, digits, expires };
  }

  /** Uses one up, by its secret. */
  byToken(token: string): Brought | null {
    this.tidy();
    const wanted = sealed(token);
    return this.use(this.codes.find((code) => code.token === wanted));
  }

  /**
   * Uses one up, by its digits. `guessed` is true where so many were wrong that the digits of all codes were withdrawn;
   * their QR codes stay good.
   */
  byDigits(digits: string): { brought: Brought | null; guessed: boolean } {
    this.tidy();
    const found = this.codes.find((code) => code.state === 'open' && code.digits === digits);
    if (found) return { brought: this.use(found), guessed: false };
    this.wrong.push(this.now());
    const guessed = this.wrong.length >= MOST_WRONG;
    if (guessed) {
      this.wrong = [];
      for (const code of this.codes) code.digits = null;
    }
    return { brought: null, guessed };
  }

  stateOf(id: string): CodeState {
    this.tidy();
    return this.codes.find((code) => code.id === id)?.state ?? 'over';
  }

  withdraw(id: string): void {
    const code = this.codes.find((open) => open.id === id);
    if (code?.state === 'open') code.state = 'withdrawn';
  }

  private use(code: Code | undefined): Brought | null {
    if (code?.state !== 'open') return null;
    code.state = 'used';
    const { person, job, name, place, by } = code;
    return { person, job, name, place, by };
  }

  /** Ends those whose time is over, and forgets them a life later. */
  private tidy(): void {
    const now = this.now();
    for (const code of this.codes) if (code.state === 'open' && code.expires <= now) code.state = 'over';
    this.codes = this.codes.filter(({ expires }) => expires > now - CODE_MS);
    this.wrong = this.wrong.filter((at) => at > now - CODE_MS);
  }
}
