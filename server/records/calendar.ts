import ical from 'ical-generator';
import { createHash } from 'node:crypto';
import type { DueListed } from '@emery/core/api';
import { dueBy } from '@emery/core/records';

/**
 * What is due as a calendar (RFC 5545): a day's entry each, those on no day that is known left out. An entry keeps its
 * name while the thing is due, so that a calendar that reads the feed again moves it and does not double it.
 */
export function calendarOf(dues: readonly DueListed[]): string {
  const calendar = ical({ name: 'Emery: what is due', prodId: { company: 'Emery', product: 'Due', language: 'EN' } });
  for (const due of dues) {
    if (due.expected === null) continue;
    const start = new Date(`${due.expected}T00:00:00Z`);
    calendar.createEvent({
      id: createHash('sha256')
        .update(JSON.stringify([due.driveId, due.kind, due.belt, due.text]))
        .digest('hex')
        .slice(0, 32),
      start,
      end: new Date(start.getTime() + 86_400_000),
      allDay: true,
      timezone: 'UTC',
      summary: `${due.vehicleName}: ${due.text}`,
      description: [due.plate, due.driveName, dueBy(due, due.odometerUnit)].filter(Boolean).join('\n'),
    });
  }
  return calendar.toString();
}
