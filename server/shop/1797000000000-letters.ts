import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What points from one table at another. */
const TIES = [
  {
    untie: 'ALTER TABLE drive DROP FOREIGN KEY IF EXISTS drive_of_vehicle',
    tie: `ALTER TABLE drive ADD CONSTRAINT drive_of_vehicle
      FOREIGN KEY IF NOT EXISTS (vehicleId) REFERENCES vehicle (id)`,
  },
  {
    untie: 'ALTER TABLE drive_document DROP FOREIGN KEY IF EXISTS document_of_drive',
    tie: `ALTER TABLE drive_document ADD CONSTRAINT document_of_drive
      FOREIGN KEY IF NOT EXISTS (driveId) REFERENCES drive (id) ON DELETE CASCADE`,
  },
] as const;

/**
 * Every table holds every letter, whatever the database was made for: a table takes after its database, and one of
 * Latin letters would keep a name in others as question marks.
 */
export class Letters1797000000000 implements MigrationInterface {
  name = 'Letters1797000000000';

  async up(runner: QueryRunner): Promise<void> {
    const tables = (await runner.query(
      `SELECT DISTINCT t.TABLE_NAME AS name FROM information_schema.TABLES t
       WHERE t.TABLE_SCHEMA = DATABASE() AND t.TABLE_TYPE = 'BASE TABLE' AND t.TABLE_COLLATION <> 'utf8mb4_unicode_ci'`,
    )) as { name: string }[];
    // A column that is pointed at cannot be changed; each is tied again below, also after a start that was cut off.
    if (tables.length > 0) for (const { untie } of TIES) await runner.query(untie);
    for (const { name } of tables)
      await runner.query(`ALTER TABLE \`${name}\` CONVERT TO CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    for (const { tie } of TIES) await runner.query(tie);
    await runner.query('ALTER DATABASE CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci');
  }

  /** What holds every letter also holds those it held before. */
  async down(): Promise<void> {}
}
