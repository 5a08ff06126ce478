import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What the shop holds for every drive: limits of an inspection, a list as JSON. */
export class ShopLimits1796900000000 implements MigrationInterface {
  name = 'ShopLimits1796900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN IF NOT EXISTS limits TEXT NULL');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop DROP COLUMN IF EXISTS limits');
  }
}
