import { habitsNow } from '@emery/core/quantity';

const formats = ['h24', 'h12'].map((clock) => {
  const time = { hour: '2-digit', minute: '2-digit', hour12: clock === 'h12' } as const;
  return [
    clock,
    {
      time: new Intl.DateTimeFormat(undefined, time),
      both: new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', ...time }),
    },
  ] as const;
});
const formatNow = () => new Map(formats).get(habitsNow().clock)!;

/** A moment as a list tells it: 30 Nov, 14:05; by the clock of the habits. */
export const DAY_AND_TIME = { format: (at: Date | number): string => formatNow().both.format(at) };

/** A day of its own, as a heading: Mon 30 Nov 2026. */
export const DAY = new Intl.DateTimeFormat(undefined, {
  ...{ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' },
} as const);

/** The time of day: 14:05. */
export const timeOfDay = (at: Date | number): string => formatNow().time.format(at);
