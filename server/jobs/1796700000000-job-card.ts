import type { MigrationInterface, QueryRunner } from 'typeorm';
import { dueNames, sittingColumns } from '../records/1796600000000-records';
import { rememberAll } from '../records/remember';

/** Names of what is due, for calendars; and what an hour of the shop's work costs, for the estimate on a job card. */
export class JobCard1796700000000 implements MigrationInterface {
  name = 'JobCard1796700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN IF NOT EXISTS hourRate DOUBLE NULL');
    await dueNames(runner);
    await sittingColumns(runner);
    await rememberAll(runner.manager);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE due DROP COLUMN IF EXISTS name, DROP COLUMN IF EXISTS changedAt');
    await runner.query('ALTER TABLE shop DROP COLUMN IF EXISTS hourRate');
  }
}
