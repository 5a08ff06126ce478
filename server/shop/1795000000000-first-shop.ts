import type { MigrationInterface, QueryRunner } from 'typeorm';

export class FirstShop1795000000000 implements MigrationInterface {
  name = 'FirstShop1795000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'CREATE TABLE IF NOT EXISTS shop (id INT PRIMARY KEY, name VARCHAR(120) NOT NULL, unit VARCHAR(2) NOT NULL) ENGINE=InnoDB',
    );
    await runner.query(`CREATE TABLE IF NOT EXISTS vehicle (
      id CHAR(36) PRIMARY KEY, name VARCHAR(120) NOT NULL, plate VARCHAR(40) NOT NULL, odometer INT NULL, odometerUnit VARCHAR(2) NOT NULL,
      notes TEXT NOT NULL, revision INT NOT NULL, saveId VARCHAR(36) NOT NULL, updatedAt DATETIME(3) NOT NULL, deletedAt DATETIME(3) NULL,
      INDEX vehicle_recent (deletedAt, updatedAt)) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS drive (
      id CHAR(36) PRIMARY KEY, vehicleId CHAR(36) NOT NULL, name VARCHAR(200) NOT NULL,
      revision INT NOT NULL, saveId VARCHAR(36) NOT NULL, updatedAt DATETIME(3) NOT NULL, deletedAt DATETIME(3) NULL,
      INDEX drive_recent (deletedAt, updatedAt), INDEX drive_vehicle (vehicleId, deletedAt),
      CONSTRAINT drive_of_vehicle FOREIGN KEY (vehicleId) REFERENCES vehicle (id)) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE IF NOT EXISTS drive_document (
      driveId CHAR(36) PRIMARY KEY, document LONGTEXT NOT NULL, sketch MEDIUMTEXT NOT NULL,
      CONSTRAINT document_of_drive FOREIGN KEY (driveId) REFERENCES drive (id) ON DELETE CASCADE) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['drive_document', 'drive', 'vehicle', 'shop'])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
