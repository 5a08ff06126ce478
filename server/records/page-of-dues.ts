import type { EntityManager } from 'typeorm';
import type { DueDated } from './calendar';
import { dueOf, type DueRow } from './dues';
import { NO_DAY } from './remember';
import { allWords, WHOSE, whoseOf, wordsIn } from './whose';
import type { Page } from '../http/listing';
import { foldedAnywhere } from '../vehicles/folded';
import type { DuePage } from '@emery/core/api';
import { listedUntil, soonFrom } from '@emery/core/records';

/** A page of what is due, with when each last changed. */
export type DuesDated = Omit<DuePage, 'dues'> & { dues: DueDated[] };

/** What is due by a day's reckoning, the first to come first. */
export async function pageOfDues(
  manager: EntityManager,
  { search, limit, offset }: Page,
  day: string,
): Promise<DuesDated> {
  const words = allWords(wordsIn(search), foldedAnywhere, 'due.search');
  // Of two in the same order the one that holds no more than the order is the quicker to go down.
  const from = `due FORCE INDEX (${words.values.length === 0 ? 'due_by_day' : 'due_listed'}) WHERE ${['(due.expected <= ? OR due.expected = ?)', ...words.conditions].join(' AND ')}`;
  const values = [listedUntil(day), NO_DAY, ...words.values];
  const [counted] = await manager.query<{ total: string; due: string | null; soon: string | null }[]>(
    `SELECT COUNT(*) AS total, SUM(due.expected <= ?) AS due, SUM(due.expected > ? AND due.expected <= ?) AS soon
     FROM ${from}`,
    [day, day, soonFrom(day), ...values],
  );
  const rows = await manager.query<DueRow[]>(
    `SELECT page.*, ${WHOSE} FROM (
       SELECT due.id, due.kind, due.text, due.belt, due.day, due.odometer AS dueOdometer, due.unit, due.source,
         due.plusMinus, due.expected, due.name, due.changedAt, due.vehicleId AS ofVehicle, due.driveId AS ofDrive
       FROM ${from} ORDER BY due.expected, due.id LIMIT ? OFFSET ?) AS page
     STRAIGHT_JOIN vehicle ON vehicle.id = page.ofVehicle STRAIGHT_JOIN drive ON drive.id = page.ofDrive
     ORDER BY page.expected, page.id`,
    [...values, limit, offset],
  );
  return {
    dues: rows.map((row) => ({ ...dueOf(row), ...whoseOf(row), id: Number(row.id), changedAt: row.changedAt })),
    total: Number(counted!.total),
    due: Number(counted!.due ?? 0),
    soon: Number(counted!.soon ?? 0),
  };
}
