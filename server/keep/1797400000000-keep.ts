import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Versions of drives are kept whole, packed, so that a drive can be shown as it was on a day: from now on, and the
 * last of those before. `lasting` are those that have been looked through and stay. And where backups are made, and how
 * full the disk was on a day.
 */
export class Keep1797400000000 implements MigrationInterface {
  name = 'Keep1797400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE drive_version ADD COLUMN IF NOT EXISTS past MEDIUMBLOB NULL,
      ADD COLUMN IF NOT EXISTS lasting TINYINT NOT NULL DEFAULT 0,
      ADD INDEX IF NOT EXISTS drive_version_to_thin (lasting, at, driveId)`);
    await runner.query(`INSERT INTO drive_version (driveId, revision, saveId, at, savedBy, asked, past)
      SELECT drive.id, drive.revision, drive.saveId, drive.updatedAt, drive.savedBy, '', COMPRESS(document)
      FROM drive JOIN drive_document ON driveId = drive.id
      ON DUPLICATE KEY UPDATE past = IFNULL(past, VALUES(past))`);
    await runner.query(`CREATE TABLE IF NOT EXISTS keep_setting (
      id INT NOT NULL PRIMARY KEY, folder VARCHAR(500) NULL)`);
    await runner.query(`CREATE TABLE IF NOT EXISTS keep_sample (
      day CHAR(10) NOT NULL PRIMARY KEY, freeBytes BIGINT NOT NULL, shopBytes BIGINT NOT NULL)`);
    for (const table of ['keep_setting', 'keep_sample'])
      await runner.query(`ALTER TABLE ${table} CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS keep_sample');
    await runner.query('DROP TABLE IF EXISTS keep_setting');
    await runner.query(`ALTER TABLE drive_version DROP INDEX IF EXISTS drive_version_to_thin,
      DROP COLUMN IF EXISTS lasting, DROP COLUMN IF EXISTS past`);
  }
}
