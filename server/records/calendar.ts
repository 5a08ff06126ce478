import ical, { ICalAlarmType } from 'ical-generator';
import type { DueListed } from '@emery/core/api';
import { dueBy } from '@emery/core/records';

/** The reminder of a day's entry comes at eight in the morning of the day before, s ahead of its start. */
const REMIND_S = 16 * 3600;

/** Something due, with when its entry last changed. */
export type DueDated = DueListed & { changedAt: Date };

/**
 * What is due as a calendar (RFC 5545): a day's entry each with a reminder, those on no day that is known left out. An
 * entry keeps its name while the thing is due, so that a calendar that reads the feed again moves it and does not
 * double it; what it says of its last change moves with the entry alone. `address` is where this Emery is reached.
 */
export function calendarOf(dues: readonly DueDated[], address: string): string {
  const calendar = ical({ name: 'Emery: what is due', prodId: { company: 'Emery', product: 'Due', language: 'EN' } });
  for (const due of dues) {
    if (due.expected === null) continue;
    const start = new Date(`${due.expected}T00:00:00Z`);
    const drive = `${address}/drives/${due.driveId}`;
    const summary = `${due.vehicleName}: ${due.text}`;
    calendar.createEvent({
      id: `${encodeURIComponent(due.key)}.${due.driveId}@emery`,
      start,
      end: new Date(start.getTime() + 86_400_000),
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
