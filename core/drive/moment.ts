/** When something was seen, as ms since 1970, from ISO 8601; null without a date, or with one that is none. */
export function momentOf(date: string | undefined): number | null {
  const ms = date === undefined ? NaN : Date.parse(date);
  return Number.isNaN(ms) ? null : ms;
}
