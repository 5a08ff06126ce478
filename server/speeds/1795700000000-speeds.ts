import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Speeds1795700000000 implements MigrationInterface {
  name = 'Speeds1795700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE IF NOT EXISTS speed_band (role VARCHAR(40) PRIMARY KEY, least DOUBLE NULL, continuous DOUBLE NULL, burst DOUBLE NULL) ENGINE=InnoDB',
    );
    await runner.query(`CREATE TABLE IF NOT EXISTS pulley_at_hand (
      id CHAR(36) PRIMARY KEY, label VARCHAR(120) NOT NULL, role VARCHAR(40) NULL, surface VARCHAR(20) NOT NULL, diameter DOUBLE NULL, teeth INT NULL, \`grooves\` INT NULL,
      setName VARCHAR(80) NULL, createdAt DATETIME(3) NOT NULL) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['pulley_at_hand', 'speed_band']) await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
