import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Stock1795600000000 implements MigrationInterface {
  name = 'Stock1795600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS stock_belt (
      id INT AUTO_INCREMENT PRIMARY KEY, section VARCHAR(40) NOT NULL, ribs INT NULL, lengthMm DOUBLE NOT NULL, code VARCHAR(60) NOT NULL, price DOUBLE NULL, shelf INT NOT NULL,
      INDEX stock_by_size (section, ribs, lengthMm), INDEX stock_by_length (lengthMm)) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS stock_belt');
  }
}
