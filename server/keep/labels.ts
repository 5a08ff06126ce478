import packageFile from '../package.json';

/*
 * A backup is a ZIP that any program opens, sealed by a passphrase or not:
 *   backup.json          format, version, what wrote it and when, the shop's name, the migrations that its tables have
 *                        passed, and of each table its columns, how many rows it has and the next number it gives
 *   tables/NAME.jsonl    the rows of a table in the order of its key, a list of values each; bytes as {"base64": …}
 *   pictures/HASH.jpg    the shop's pictures, named by the SHA-256 of their bytes
 *   SHA256SUMS           the SHA-256 of every other part, as `sha256sum -c` reads it
 * A sealed one is that ZIP in the age format (age-encryption.org/v1) with a passphrase: `age -d` opens it as well.
 */
export const BACKUP_FORMAT = 'emery-backup';
export const BACKUP_VERSION = 1;
export const BACKUP_FILE = 'backup.json';
export const tableFile = (table: string): string => `tables/${table}.jsonl`;
export const pictureFile = (hash: string): string => `pictures/${hash}.jpg`;

/** The file of a backup that is made on a schedule. */
export const backupFile = (at: string, isSealed: boolean): string => `emery-${at}Z.zip${isSealed ? '.age' : ''}`;

export const EMERY_VERSION: string = packageFile.version;

/** What a sealed file begins with. */
export const SEALED_START = 'age-encryption.org/v1\n';

/** The table whose bytes are parts of their own, and what TypeORM keeps of the migrations. */
export const PICTURES = { table: 'photo', key: 'hash', bytes: 'bytes' } as const;
export const MIGRATIONS_TABLE = 'migrations';

/** A table as a backup has it. */
export interface TableKept {
  name: string;
  columns: string[];
  rows: number;
  /** The next number that it gives a row by itself; null where it gives none. */
  next: number | null;
}

/** What stands in `backup.json`. */
export interface BackupHead {
  format: typeof BACKUP_FORMAT;
  version: number;
  /** The version of Emery that wrote it. */
  emery: string;
  writtenAt: string;
  shop: string;
  migrations: string[];
  tables: TableKept[];
}
