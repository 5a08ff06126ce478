import type { Request } from 'express';
import { invalid } from './problem';

const MOST_OFFSET = 1e9;

/** `?search=&limit=&offset=` of a list request. */
export interface Page {
  search: string;
  limit: number;
  offset: number;
}

export function pageOf({ query }: Request, max = 200): Page {
  const integer = (name: string, fallback: number) => {
    const text = query[name];
    if (text === undefined) return fallback;
    const value = Number(text);
    if (!Number.isInteger(value) || value < 0 || value > MOST_OFFSET)
      throw invalid([{ path: name, message: 'must be a whole number from 0 to 1,000,000,000' }]);
    return value;
  };
  const search = typeof query['search'] === 'string' ? query['search'].trim().slice(0, 100) : '';
  return { search, limit: Math.min(max, integer('limit', 40)), offset: integer('offset', 0) };
}

/** `text` as a LIKE pattern that finds it anywhere, its own % and _ taken literally. */
export function likeAnywhere(text: string): string {
  return `%${text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
}
