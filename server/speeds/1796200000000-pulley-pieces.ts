import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How many there are of each pulley at hand: one of those that were written in before. */
export class PulleyPieces1796200000000 implements MigrationInterface {
  name = 'PulleyPieces1796200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE pulley_at_hand ADD COLUMN IF NOT EXISTS pieces INT NOT NULL DEFAULT 1');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE pulley_at_hand DROP COLUMN IF EXISTS pieces');
  }
}
