import type { MigrationInterface, QueryRunner } from 'typeorm';
import { rememberAll } from '../records/remember';

/**
 * Something due keeps its name, and when it last changed, so that a calendar can follow it. The shop says what an hour
 * of its work costs, for the estimate on a job card.
 */
export class JobCard1796700000000 implements MigrationInterface {
  name = 'JobCard1796700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN IF NOT EXISTS hourRate DOUBLE NULL');
    await runner.query(`ALTER TABLE due ADD COLUMN IF NOT EXISTS name VARCHAR(240) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS changedAt DATETIME(3) NULL`);
    await rememberAll(runner.manager);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE due DROP COLUMN IF EXISTS name, DROP COLUMN IF EXISTS changedAt');
    await runner.query('ALTER TABLE shop DROP COLUMN IF EXISTS hourRate');
  }
}
