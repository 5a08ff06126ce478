import type { MigrationInterface, QueryRunner } from 'typeorm';
import { sittingColumns } from './1796600000000-records';

/** How the shop's own belts sat and grew. What was remembered before is remembered anew beside the requests. */
export class Sittings1797300000000 implements MigrationInterface {
  name = 'Sittings1797300000000';

  async up(runner: QueryRunner): Promise<void> {
    await sittingColumns(runner);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE belt_life DROP INDEX IF EXISTS life_sat, DROP COLUMN IF EXISTS sat,
      DROP COLUMN IF EXISTS sitting`);
  }
}
