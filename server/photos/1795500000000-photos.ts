import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Photos1795500000000 implements MigrationInterface {
  name = 'Photos1795500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE IF NOT EXISTS photo (hash CHAR(64) PRIMARY KEY, width INT NOT NULL, height INT NOT NULL, bytes LONGBLOB NOT NULL, createdAt DATETIME(3) NOT NULL) ENGINE=InnoDB',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS photo');
  }
}
