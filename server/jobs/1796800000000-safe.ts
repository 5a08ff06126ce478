import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Room for all that a job says, however much was remarked. And lists that are found without a look at all that there
 * is: each has an index in its own order that holds what it is asked by.
 */
export class Safe1796800000000 implements MigrationInterface {
  name = 'Safe1796800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE job MODIFY record MEDIUMTEXT NULL');
    await runner.query('ALTER TABLE job_event MODIFY body MEDIUMTEXT NOT NULL');
    await runner.query('ALTER TABLE job ADD INDEX IF NOT EXISTS job_in_hand (signedAt, startedAt, id)');
    await runner.query(`ALTER TABLE due ADD INDEX IF NOT EXISTS due_of_drive (driveId, expected, id),
      ADD INDEX IF NOT EXISTS due_listed (expected, id, search)`);
    await runner.query(`ALTER TABLE belt_life
      ADD INDEX IF NOT EXISTS life_listed (isOn, ranKm, id, section, ribs, fromAt, text),
      ADD INDEX IF NOT EXISTS life_counted (kind, ranKm, isOn, why)`);
    await runner.query('ALTER TABLE record ADD INDEX IF NOT EXISTS record_listed (at, id, text)');
    await runner.query(`ALTER TABLE vehicle ADD INDEX IF NOT EXISTS vehicle_by_name (name, plate),
      ADD INDEX IF NOT EXISTS vehicle_by_plate (plate)`);
    await runner.query('ALTER TABLE belt_life DROP INDEX IF EXISTS life_of_kind');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE belt_life ADD INDEX IF NOT EXISTS life_of_kind (kind, ranKm)');
    await runner.query(
      'ALTER TABLE vehicle DROP INDEX IF EXISTS vehicle_by_name, DROP INDEX IF EXISTS vehicle_by_plate',
    );
    await runner.query('ALTER TABLE record DROP INDEX IF EXISTS record_listed');
    await runner.query('ALTER TABLE belt_life DROP INDEX IF EXISTS life_listed, DROP INDEX IF EXISTS life_counted');
    await runner.query('ALTER TABLE due DROP INDEX IF EXISTS due_of_drive, DROP INDEX IF EXISTS due_listed');
    await runner.query('ALTER TABLE job DROP INDEX IF EXISTS job_in_hand');
  }
}
