import type { RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import { ruleOf } from '../access/route-table';
import type { SlowAnswer } from '@emery/core/api';
import { DAY_MS } from '@emery/core/quantity';

const MOST = 10;

const OPEN = new WeakMap<DataSource, SlowAnswer<Date>[]>();
export const slowAnswersOf = (data: DataSource): readonly SlowAnswer<Date>[] => OPEN.get(data) ?? [];

/**
 * Keeps the slowest answer of each kind of request of the last day, by the address as the table has it: neither ids nor
 * what was searched for. Streams last as long as somebody listens, and are not answers in this sense.
 */
export function watchAnswers(data: DataSource): RequestHandler {
  const kept = OPEN.get(data) ?? [];
  OPEN.set(data, kept);
  return (request, response, next) => {
    const from = performance.now();
    // Routers below cut the address down as they hand it on.
    const { method, path } = request;
    response.once('finish', () => {
      const found = ruleOf(method, path);
      if (!found || found.rule.path === '/live') return;
      const what = `${found.rule.method} ${found.rule.path}`;
      const ms = Math.round((performance.now() - from) * 10) / 10;
      const now = new Date();
      const others = kept.filter((answer) => answer.what !== what && now.getTime() - answer.at.getTime() < DAY_MS);
      const before = kept.find((answer) => answer.what === what && now.getTime() - answer.at.getTime() < DAY_MS);
      const own = before && before.ms >= ms ? before : { what, ms, at: now };
      const slowest = [...others, own].sort((a, b) => b.ms - a.ms).slice(0, MOST);
      kept.splice(0, kept.length, ...slowest);
    });
    next();
  };
}
