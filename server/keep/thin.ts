import { backupFile } from './labels';
import { DAY_MS, utcDay } from '@emery/core/quantity';

/** How many backups stay: of each of the last days, weeks and months that have any, the last. */
export const KEPT = { days: 7, weeks: 4, months: 12 } as const;

const NAME = /^emery-(\d{4})-(\d\d)-(\d\d)T(\d\d)-(\d\d)-(\d\d)Z\.(zip|zip\.age)$/;

/** The name of a backup that is made on a schedule. */
export const backupName = (at: Date, isSealed: boolean): string =>
  backupFile(at.toISOString().slice(0, 19).replaceAll(':', '-'), isSealed);

/** When a backup of that name was made; null for a file that is not one of ours. */
export function madeAt(name: string): Date | null {
  const found = NAME.exec(name);
  if (!found) return null;
  const [year, month, day, hour, minute, second] = found.slice(1, 7).map(Number);
  const at = new Date(Date.UTC(year ?? 0, (month ?? 0) - 1, day, hour, minute, second));
  return Number.isNaN(at.getTime()) ? null : at;
}

const dayOf = (at: Date) => utcDay(at.getTime());
/** Its Monday. */
const weekOf = (at: Date) => dayOf(new Date(at.getTime() - ((at.getUTCDay() + 6) % 7) * DAY_MS));
const monthOf = (at: Date) => at.toISOString().slice(0, 7);

/**
 * Which of these files have had their time. Days, weeks and months are counted as there are backups of them, not back
 * from today: a clock that was a year ahead for an hour, or a shop that was shut for one, takes none away. Files of
 * other names are nobody's business here.
 */
export function thinned(names: readonly string[]): string[] {
  const ours = names
    .flatMap((name) => {
      const at = madeAt(name);
      return at ? [{ name, at }] : [];
    })
    .sort((a, b) => b.at.getTime() - a.at.getTime());
  const stays = new Set<string>();
  for (const [share, spanOf] of [
    [KEPT.days, dayOf],
    [KEPT.weeks, weekOf],
    [KEPT.months, monthOf],
  ] as const) {
    const seen = new Set<string>();
    for (const { name, at } of ours) {
      if (seen.has(spanOf(at))) continue;
      if (seen.size === share) break;
      seen.add(spanOf(at));
      stays.add(name);
    }
  }
  return ours.filter(({ name }) => !stays.has(name)).map(({ name }) => name);
}
