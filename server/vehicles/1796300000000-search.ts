import type { MigrationInterface, QueryRunner } from 'typeorm';
import { indexAllNames } from './search-index';

/**
 * What lists count and searches look through: of every vehicle and drive that is shown, its text folded to plain small
 * letters. And belts by their code.
 */
export class Search1796300000000 implements MigrationInterface {
  name = 'Search1796300000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS vehicle_search (
      vehicleId CHAR(36) PRIMARY KEY, text VARBINARY(20000) NOT NULL) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS drive_search (
      driveId CHAR(36) PRIMARY KEY, text VARBINARY(2000) NOT NULL) ENGINE=InnoDB`);
    await runner.query(
      'ALTER TABLE stock_belt ADD COLUMN IF NOT EXISTS codeKey VARBINARY(240) AS (CAST(LOWER(code) AS BINARY)) PERSISTENT',
    );
    await runner.query('ALTER TABLE stock_belt ADD INDEX IF NOT EXISTS stock_by_code (codeKey)');
    await indexAllNames(runner.manager);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE stock_belt DROP INDEX IF EXISTS stock_by_code');
    await runner.query('ALTER TABLE stock_belt DROP COLUMN IF EXISTS codeKey');
    for (const table of ['drive_search', 'vehicle_search']) await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
