/*
 * Two tiers. Tests that draw at random, and those that try whatever comes, take an eighth of their draws by default and
 * all with `npm test -- --thorough`. Bounds on a share go out with the draws, so that a sound program fails neither.
 */

declare const process: { env: Record<string, string | undefined> };

export const THOROUGH = process.env['EMERY_THOROUGH'] === '1';

/** How seldom a program that stands at it may fall outside one bound: with fifty bounds, one in ten thousand runs. */
const SELDOM = 2e-6;

/** How many of `all` draws are made in this tier. */
export function draws(all: number, thorough = THOROUGH): number {
  return thorough ? all : Math.max(1, Math.ceil(all / 8));
}

/** Chance of at most `hits` of `draws` where each has the chance `p`. */
export function chanceOfAtMost(hits: number, draws: number, p: number): number {
  if (hits < 0) return 0;
  if (hits >= draws || p <= 0) return 1;
  if (p >= 1) return 0;
  // Log of the chance of none, then one term after the other.
  let term = draws * Math.log1p(-p);
  let sum = Math.exp(term);
  for (let k = 1; k <= hits; k += 1) {
    term += Math.log(((draws - k + 1) / k) * (p / (1 - p)));
    sum += Math.exp(term);
  }
  return Math.min(1, sum);
}

/**
 * The least hits of `of` that a program has which falls below the share `from` of `all` draws as seldom as `SELDOM`.
 */
export function leastHits(from: number, draws: number, all: number): number {
  // The program that stands just so with all draws: found by halving, for the chance falls as it gets better.
  const bound = Math.ceil(from * all) - 1;
  let [low, high] = [from, 1];
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (chanceOfAtMost(bound, all, middle) > SELDOM) low = middle;
    else high = middle;
  }
  let min = 0;
  while (min < draws && chanceOfAtMost(min, draws, high) <= SELDOM) min += 1;
  return min;
}

/**
 * Holds a share of hits against the bounds it has with all draws, moved out by the binomial where fewer were made.
 *
 * @param hits how many of `draws` were right
 * @param draws how many were counted in this tier
 * @param bounds the shares from and to which all draws must lie
 * @param together how many of those counted hang together, as the places of one fit do: they count as one draw
 */
export function expectShare(
  hits: number,
  draws: number,
  { from, to }: { from?: number; to?: number },
  together = 1,
): void {
  expect(draws).toBeGreaterThan(0);
  if (THOROUGH) {
    if (from !== undefined) expect(hits / draws).toBeGreaterThan(from);
    if (to !== undefined) expect(hits / draws).toBeLessThan(to);
    return;
  }
  const made = Math.max(1, Math.round(draws / together));
  if (from !== undefined) expect(hits / draws).toBeGreaterThanOrEqual(leastHits(from, made, 8 * made) / made);
  if (to !== undefined) expect(hits / draws).toBeLessThanOrEqual(1 - leastHits(1 - to, made, 8 * made) / made);
}
