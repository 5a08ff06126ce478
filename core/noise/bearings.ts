/*
 * A rolling bearing is heard at none of its shaft's own rates. With n balls of a size d on a pitch circle D its outer
 * race is struck n/2·(1 − d/D) times a turn, its inner race n/2·(1 + d/D) times, a ball spins D/2d·(1 − (d/D)²) times
 * and strikes both races, and the cage goes round ½·(1 − d/D) times. Nobody knows n and d/D of a bearing that is still
 * in its bracket, so that each is a family: about 0.4 n, 0.6 n, n/4 and 0.4.
 */

/** What of a bearing is worn. */
export type BearingPart = 'outer' | 'inner' | 'ball' | 'cage';

/** Balls that such bearings have; each as likely as the next. A default. */
const BALLS = [6, 7, 8, 9, 10, 11, 12] as const;
/** How often each part is what is worn: outer races go first, for the load stands still on them. A default. */
const PARTS: readonly { part: BearingPart; share: number; times: (balls: number) => number; spread: number }[] = [
  { part: 'outer', share: 0.45, times: (n) => 0.4 * n, spread: 0.025 },
  { part: 'inner', share: 0.25, times: (n) => 0.6 * n, spread: 0.025 },
  { part: 'ball', share: 0.12, times: (n) => n / 4, spread: 0.06 },
  { part: 'ball', share: 0.08, times: (n) => n / 2, spread: 0.06 },
  { part: 'cage', share: 0.1, times: () => 0.4, spread: 0.03 },
];

/** Each member of the families: so many strikes a turn of the shaft, with one standard deviation. */
const MEMBERS = PARTS.flatMap(({ part, share, times, spread }) =>
  BALLS.map((n) => ({
    part,
    share: share / BALLS.length,
    times: times(n),
    // Of the outer and the inner race it is d/D that nobody knows, and so it grows with the balls; of a cage it is not.
    sigma: spread * (part === 'cage' ? 1 : n * (part === 'ball' ? 0.25 : 1)),
  })),
);

/**
 * How likely a bearing of a shaft that turns `hz` times a second is heard at a rate, a Hz; and what of it is then the
 * likeliest to be worn. `doubtHz` is one standard deviation of the rate that was heard and of the shaft's together.
 */
export function bearingAt(
  hz: number,
  heardHz: number,
  doubtHz: number,
): { density: number; part: BearingPart; times: number } {
  const by = { outer: 0, inner: 0, ball: 0, cage: 0 };
  for (const { part, share, times, sigma } of MEMBERS) {
    const spread = Math.hypot(sigma * hz, doubtHz);
    const off = (heardHz - times * hz) / spread;
    by[part] += (share * Math.exp(-0.5 * off * off)) / (spread * Math.sqrt(2 * Math.PI));
  }
  const parts = Object.keys(by) as BearingPart[];
  const part = parts.reduce((best, part) => (by[part] > by[best] ? part : best));
  return { density: parts.reduce((sum, part) => sum + by[part], 0), part, times: heardHz / hz };
}
