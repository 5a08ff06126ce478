import type { EntityManager } from 'typeorm';
import type { DueListed } from '@emery/core/api';
import { listedUntil } from '@emery/core/records';
import { NO_DAY } from './remember';

/** The day it is, as dues are listed by. */
export const today = () => new Date().toISOString().slice(0, 10);

/** A row of what is due. */
export type DueRow = Omit<DueListed, 'from' | 'odometer' | 'id' | 'key'> & {
  id: string;
  name: string;
  changedAt: Date;
  source: DueListed['from'];
  dueOdometer: number | null;
  expected: string;
};

/** Something due out of its row. */
export function dueOf({ name, kind, text, belt, day, dueOdometer, unit, source, plusMinus, expected }: DueRow) {
  return {
    ...{ key: name, kind, text, belt, day, odometer: dueOdometer, unit, from: source, plusMinus },
    expected: expected === NO_DAY ? null : expected,
  };
}

/** What is due on some drives, the first to come first. */
export async function duesOfDrives(manager: EntityManager, ids: readonly string[]) {
  if (ids.length === 0) return [];
  const rows = await manager.query<DueRow[]>(
    `SELECT driveId, name, kind, text, belt, day, odometer AS dueOdometer, unit, source, plusMinus, expected
     FROM due FORCE INDEX (due_of_drive) WHERE driveId IN (?) AND (expected <= ? OR expected = ?) ORDER BY expected, id`,
    [ids, listedUntil(today()), NO_DAY],
  );
  return rows.map((row) => ({ driveId: row.driveId, due: dueOf(row) }));
}
