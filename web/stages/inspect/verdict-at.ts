import { type Drive, stationOf } from '@emery/core/drive';
import type { InspectItem, Verdict } from '@emery/core/inspect';

/** On one shaft a part that nobody looked at goes before a sound one: the shaft is not called sound. */
const ORDER: readonly Verdict[] = ['replace', 'watch', 'not looked at', 'keep'];
const worse = (a: Verdict, b: Verdict) => (ORDER.indexOf(a) <= ORDER.indexOf(b) ? a : b);

/** The worst verdict of anything on a shaft; null where there is nothing to judge. */
export function verdictAt(station: string, drive: Drive, items: readonly InspectItem[]): Verdict | null {
  const on = items.filter((item) => item.on !== 'belt' && stationOf(drive, item.target)?.id === station);
  return on.reduce<Verdict | null>((worst, { verdict }) => (worst ? worse(worst, verdict) : verdict), null);
}
