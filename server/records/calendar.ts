import ical, { ICalAlarmType } from 'ical-generator';
import type { DueListed } from '@emery/core/api';
import { otherTurns } from '../http/in-turns';
import { dueBy } from '@emery/core/records';
import { DAY_MS } from '@emery/core/quantity';

/** The reminder of a day's entry comes at eight in the morning of the day before, s ahead of its start. */
const REMIND_S = 16 * 3600;
const FOOT = 'END:VCALENDAR';
/** Entries written between two looks at what else is asked of the server. */
const AT_ONCE = 8;

/** Something due, with when its entry last changed. */
export type DueDated = DueListed & { changedAt: Date };

/**
 * What is due as a calendar (RFC 5545): a day's entry each with a reminder, those on no day that is known left out. An
 * entry keeps its name while the thing is due, so that a calendar that reads the feed again moves it and does not
 * double it; what it says of its last change moves with the entry alone. `address` is where this Emery is reached.
 * Written a few entries at a time, with others answered in between.
 */
export async function calendarOf(dues: readonly DueDated[], total: number, address: string): Promise<string> {
  const dated = dues.filter(({ expected }) => expected !== null);
  // Lists stop somewhere; a calendar that does says so in its own name.
  const name = total > dues.length ? `Emery: the first ${dues.length} of ${total} due` : 'Emery: due';
  const head = calendarWith(name, [], address).slice(0, -FOOT.length);
  const parts: string[] = [];
  for (let from = 0; from < dated.length; from += AT_ONCE) {
    await otherTurns();
    const calendar = calendarWith(name, dated.slice(from, from + AT_ONCE), address);
    parts.push(calendar.slice(head.length, -FOOT.length));
  }
  return `${head}${parts.join('')}${FOOT}`;
}

function calendarWith(name: string, dues: readonly DueDated[], address: string): string {
  const calendar = ical({ name, prodId: { company: 'Emery', product: 'Due', language: 'EN' } });
  for (const due of dues) {
    const start = new Date(`${due.expected}T00:00:00Z`);
    const drive = `${address}/drives/${due.driveId}`;
    const summary = `${due.vehicleName}: ${due.text}`;
    calendar.createEvent({
      id: `${encodeURIComponent(due.key)}.${due.driveId}@emery`,
      start,
      end: new Date(start.getTime() + DAY_MS),
      allDay: true,
      timezone: 'UTC',
      summary,
      description: [due.plate, due.driveName, dueBy(due, due.odometerUnit), drive].filter(Boolean).join('\n'),
      url: drive,
      stamp: due.changedAt,
      lastModified: due.changedAt,
      alarms: [{ type: ICalAlarmType.display, trigger: REMIND_S, description: summary }],
    });
  }
  return calendar.toString();
}
