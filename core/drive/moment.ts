/** Moments that anything of a shop may have; before and after them a date is a mistake. ms since 1970. */
export const EARLIEST = Date.UTC(1900, 0, 1);
export const LATEST = Date.UTC(2200, 0, 1);
const ISO = /^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d{1,9})?)?(Z|[+-]\d\d:\d\d)$/;

/** Whether a text is a moment as ISO 8601 writes it, from 1900 to 2199. */
export function isMoment(text: string): boolean {
  return ISO.test(text) && momentOf(text) !== null;
}

/**
 * When something was seen, as ms since 1970, from ISO 8601; null without a date, or with one that is none or that
 * nothing of a shop can have.
 */
export function momentOf(date: string | undefined): number | null {
  const ms = date === undefined ? NaN : Date.parse(date);
  return ms >= EARLIEST && ms < LATEST ? ms : null;
}
