import type { MigrationInterface, QueryRunner } from 'typeorm';
import { rememberAll } from './remember';

/**
 * Something due keeps its name, and when it last changed, so that a calendar can follow it. All that remembers wants
 * them: a shop that comes by this migration has them at once, one that has passed it by a later one.
 */
export const dueNames = (runner: QueryRunner): Promise<unknown> =>
  runner.query(`ALTER TABLE due ADD COLUMN IF NOT EXISTS name VARCHAR(240) NOT NULL DEFAULT '',
    ADD COLUMN IF NOT EXISTS changedAt DATETIME(3) NULL`);

/** A belt that is on holds how it, and those before it in its place, sat and grew; by section, for those who ask. */
export const sittingColumns = (runner: QueryRunner): Promise<unknown> =>
  runner.query(`ALTER TABLE belt_life ADD COLUMN IF NOT EXISTS sat VARCHAR(40) NULL,
    ADD COLUMN IF NOT EXISTS sitting TEXT NULL, ADD INDEX IF NOT EXISTS life_sat (sat, id)`);

/** What is due, how long belts lasted and what happened, out of every drive; jobs, and what happens at them. */
export class Records1796600000000 implements MigrationInterface {
  name = 'Records1796600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE vehicle ADD COLUMN IF NOT EXISTS odometerAt DATETIME(3) NULL');
    await runner.query(`CREATE TABLE IF NOT EXISTS drive_memory (
      driveId CHAR(36) PRIMARY KEY, memory MEDIUMTEXT NOT NULL) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS due (
      id BIGINT AUTO_INCREMENT PRIMARY KEY, vehicleId CHAR(36) NOT NULL, driveId CHAR(36) NOT NULL,
      kind VARCHAR(20) NOT NULL, text VARCHAR(300) NOT NULL, belt VARCHAR(80) NULL, day CHAR(10) NULL,
      odometer DOUBLE NULL, unit VARCHAR(2) NULL, source VARCHAR(10) NOT NULL, plusMinus DOUBLE NULL,
      expected CHAR(10) NOT NULL, search VARBINARY(1000) NOT NULL, INDEX due_by_day (expected, id), INDEX due_of_vehicle (vehicleId)) ENGINE=InnoDB`);
    await dueNames(runner);
    await runner.query(`CREATE TABLE IF NOT EXISTS belt_life (
      id BIGINT AUTO_INCREMENT PRIMARY KEY, vehicleId CHAR(36) NOT NULL, driveId CHAR(36) NOT NULL,
      belt VARCHAR(80) NOT NULL, section VARCHAR(40) NOT NULL, ribs INT NULL, kind VARCHAR(60) NOT NULL,
      lengthMm DOUBLE NULL, number VARCHAR(60) NULL, fromAt DATETIME(3) NULL, fromOdometer DOUBLE NULL,
      toAt DATETIME(3) NULL, toOdometer DOUBLE NULL, isOn TINYINT NOT NULL, why VARCHAR(12) NULL, unit VARCHAR(2) NULL,
      ranKm DOUBLE NULL, text VARBINARY(1000) NOT NULL,
      INDEX life_of_vehicle (vehicleId), INDEX life_on (isOn, ranKm, id), INDEX life_of_kind (kind, ranKm)) ENGINE=InnoDB`);
    await sittingColumns(runner);
    await runner.query(`CREATE TABLE IF NOT EXISTS record (
      id BIGINT AUTO_INCREMENT PRIMARY KEY, vehicleId CHAR(36) NOT NULL, driveId CHAR(36) NOT NULL, jobId CHAR(36) NULL,
      kind VARCHAR(20) NOT NULL, at DATETIME(3) NULL, odometer DOUBLE NULL, unit VARCHAR(2) NULL, belt VARCHAR(80) NULL,
      title VARCHAR(300) NOT NULL, detail VARCHAR(600) NOT NULL, pictures TEXT NULL, text VARBINARY(1600) NOT NULL,
      INDEX record_of_vehicle (vehicleId), INDEX record_recent (at, id)) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS job (
      id CHAR(36) PRIMARY KEY, vehicleId CHAR(36) NOT NULL, driveId CHAR(36) NOT NULL, name VARCHAR(200) NOT NULL,
      startedAt DATETIME(3) NOT NULL, startedBy VARCHAR(80) NOT NULL, signedAt DATETIME(3) NULL, signedBy VARCHAR(80) NULL,
      sheet MEDIUMTEXT NOT NULL, record TEXT NULL,
      INDEX job_of_drive (driveId, startedAt), INDEX job_of_vehicle (vehicleId, startedAt)) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS job_event (
      seq BIGINT AUTO_INCREMENT PRIMARY KEY, id CHAR(36) NOT NULL, jobId CHAR(36) NOT NULL, body TEXT NOT NULL,
      UNIQUE INDEX event_once (jobId, id), INDEX event_in_order (jobId, seq)) ENGINE=InnoDB`);
    await rememberAll(runner.manager);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['job_event', 'job', 'record', 'belt_life', 'due', 'drive_memory'])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
    await runner.query('ALTER TABLE vehicle DROP COLUMN IF EXISTS odometerAt');
  }
}
