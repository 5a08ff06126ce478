import type { MigrationInterface, QueryRunner } from 'typeorm';

/** People of the shop, the devices they are signed in on, secret addresses of the calendar, and who did what. */
export class Access1797100000000 implements MigrationInterface {
  name = 'Access1797100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS person (
      id CHAR(36) NOT NULL PRIMARY KEY, name VARCHAR(80) NOT NULL, role VARCHAR(8) NOT NULL,
      passphrase VARCHAR(200) NOT NULL, createdAt DATETIME(3) NOT NULL, UNIQUE KEY person_by_name (name))`);
    await runner.query(`CREATE TABLE IF NOT EXISTS device (
      id CHAR(36) NOT NULL PRIMARY KEY, session CHAR(64) NOT NULL, personId CHAR(36) NULL, jobId CHAR(36) NULL,
      name VARCHAR(80) NOT NULL, agent VARCHAR(120) NOT NULL, address VARCHAR(45) NOT NULL, cameBy VARCHAR(12) NOT NULL,
      createdAt DATETIME(3) NOT NULL, lastSeenAt DATETIME(3) NOT NULL, endsAt DATETIME(3) NOT NULL,
      endedAt DATETIME(3) NULL, endedWhy VARCHAR(12) NULL,
      UNIQUE KEY device_by_session (session), KEY device_recent (lastSeenAt), KEY device_of_person (personId))`);
    await runner.query(`CREATE TABLE IF NOT EXISTS feed (
      id CHAR(36) NOT NULL PRIMARY KEY, token CHAR(64) NOT NULL, label VARCHAR(80) NOT NULL, madeBy VARCHAR(80) NOT NULL,
      createdAt DATETIME(3) NOT NULL, lastAskedAt DATETIME(3) NULL, UNIQUE KEY feed_by_token (token))`);
    await runner.query(`CREATE TABLE IF NOT EXISTS access_entry (
      id BIGINT NOT NULL AUTO_INCREMENT PRIMARY KEY, at DATETIME(3) NOT NULL, kind VARCHAR(20) NOT NULL,
      who VARCHAR(80) NOT NULL, address VARCHAR(45) NOT NULL, what VARCHAR(200) NOT NULL, times INT NOT NULL)`);
    await runner.query(`CREATE TABLE IF NOT EXISTS access_setting (
      id INT NOT NULL PRIMARY KEY, secret CHAR(64) NOT NULL, sharing TINYINT NOT NULL)`);
    await runner.query("ALTER TABLE drive ADD COLUMN IF NOT EXISTS savedBy VARCHAR(80) NOT NULL DEFAULT ''");
    for (const table of ['person', 'device', 'feed', 'access_entry', 'access_setting'])
      await runner.query(`ALTER TABLE ${table} CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE drive DROP COLUMN IF EXISTS savedBy');
    for (const table of ['access_setting', 'access_entry', 'feed', 'device', 'person'])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
