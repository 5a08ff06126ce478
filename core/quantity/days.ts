/** A day, in the milliseconds of a clock. */
export const DAY_MS = 86_400_000;

/** The day of a moment, ms since 1970, by UTC: 2026-11-29. */
export const utcDay = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
