import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Parts1796500000000 implements MigrationInterface {
  name = 'Parts1796500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS part_at_hand (
      id CHAR(36) PRIMARY KEY, label VARCHAR(80) NOT NULL, kind VARCHAR(20) NOT NULL, mm DOUBLE NOT NULL, plusMinus DOUBLE NULL, price DOUBLE NULL,
      pieces INT NOT NULL DEFAULT 1, createdAt DATETIME(3) NOT NULL) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS part_at_hand');
  }
}
