import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What the shop holds for every drive: limits of an inspection, a list as JSON; and by which of them each drive is
 * remembered.
 */
export class ShopLimits1796900000000 implements MigrationInterface {
  name = 'ShopLimits1796900000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE shop ADD COLUMN IF NOT EXISTS limits TEXT NULL');
    await runner.query(`ALTER TABLE drive_memory ADD COLUMN IF NOT EXISTS byLimits CHAR(16)
      CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '', ADD INDEX IF NOT EXISTS drive_memory_limits (byLimits)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE drive_memory DROP COLUMN IF EXISTS byLimits');
    await runner.query('ALTER TABLE shop DROP COLUMN IF EXISTS limits');
  }
}
