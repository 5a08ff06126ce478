import type { Request, Response } from 'express';
import type { EntityManager } from 'typeorm';
import { calendarOf } from './calendar';
import { today } from './dues';
import { pageOfDues } from './page-of-dues';
import { attach } from '../http/send-file';

/** More than this of what is due goes into no calendar; it says so. */
const MOST_IN_CALENDAR = 600;

/** Answers with what is due as a calendar; its links lead back to the address it was asked for at. */
export async function sendCalendar(manager: EntityManager, request: Request, response: Response): Promise<void> {
  const { dues, total } = await pageOfDues(manager, { search: '', limit: MOST_IN_CALENDAR, offset: 0 }, today());
  const calendar = await calendarOf(dues, total, `${request.protocol}://${request.get('host') ?? ''}`);
  attach(response, 'emery-due.ics', 'text/calendar').send(calendar);
}
