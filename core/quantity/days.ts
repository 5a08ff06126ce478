/** A day, in the milliseconds of a clock. */
export const DAY_MS = 86_400_000;
