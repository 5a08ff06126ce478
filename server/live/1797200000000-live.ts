import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * What happened in the last hour, with a number each; the versions of drives, by which a save that is sent again is
 * known; which devices are there; what one device asked another to take.
 */
export class Live1797200000000 implements MigrationInterface {
  name = 'Live1797200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS news (
      id BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY, seq BIGINT NULL, at DATETIME(3) NOT NULL, kind VARCHAR(12) NOT NULL,
      subject VARCHAR(36) NOT NULL, revision INT NULL, body MEDIUMTEXT NOT NULL,
      UNIQUE KEY news_by_seq (seq), KEY news_by_age (at))`);
    await runner.query('CREATE TABLE IF NOT EXISTS news_last (id INT NOT NULL PRIMARY KEY, seq BIGINT NOT NULL)');
    await runner.query('INSERT INTO news_last (id, seq) VALUES (1, 0) ON DUPLICATE KEY UPDATE seq = seq');
    await runner.query(`CREATE TABLE IF NOT EXISTS drive_version (
      driveId CHAR(36) NOT NULL, revision INT NOT NULL, saveId VARCHAR(36) NOT NULL, at DATETIME(3) NOT NULL,
      savedBy VARCHAR(80) NOT NULL, asked VARCHAR(32) NOT NULL, changes MEDIUMTEXT NULL, clashes MEDIUMTEXT NULL,
      PRIMARY KEY (driveId, revision), KEY drive_version_by_save (driveId, saveId), KEY drive_version_by_age (at))`);
    await runner.query(`CREATE TABLE IF NOT EXISTS presence (
      device VARCHAR(36) NOT NULL PRIMARY KEY, seenAt DATETIME(3) NOT NULL, body TEXT NOT NULL)`);
    await runner.query(`CREATE TABLE IF NOT EXISTS take (
      id CHAR(36) NOT NULL PRIMARY KEY, at DATETIME(3) NOT NULL, body TEXT NOT NULL, state VARCHAR(12) NOT NULL,
      part INT NOT NULL, result TEXT NULL, type VARCHAR(40) NULL, bytes LONGBLOB NULL, KEY take_by_age (at))`);
    for (const table of ['news', 'news_last', 'drive_version', 'presence', 'take'])
      await runner.query(`ALTER TABLE ${table} CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['take', 'presence', 'drive_version', 'news_last', 'news'])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
