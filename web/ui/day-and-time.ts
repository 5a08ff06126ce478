/** A moment as a list tells it: 30 Nov, 14:05. */
export const DAY_AND_TIME = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
  hour12: false,
});
