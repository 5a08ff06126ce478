import { bytesText } from '@emery/core/quantity';

/** What is said of backups, of bringing them back and of the health of a shop. */
export const KEEP = {
  wrongPassphrase: 'the passphrase is not the one that this backup was sealed with',
  otherSeal: 'it was not sealed by Emery with a passphrase',
  sealedOnly: 'this backup is sealed: its passphrase is needed',
  notABackup: (why: string) => `this is not a backup of Emery, or is damaged: ${why}`,
  noShop: 'there is no shop in this database yet',
  noHead: 'backup.json is missing',
  archive: 'it is an archive of a shop: bring that in at Import, on the page of the shop',
  newer: (emery: string) =>
    `this backup was written by a newer Emery (${emery}), which this one does not know. Restore it with that one`,
  field: (name: string, message: string) => `backup.json, ${name} ${message}`,
  noSums: 'SHA256SUMS is missing: the backup is incomplete',
  unsummed: (name: string) => `${name} has no checksum`,
  noTable: (name: string) => `the table ${name} is not one that Emery knows`,
  noColumn: (table: string, column: string) => `${table} has a column ${column} that Emery does not know`,
  line: (part: string, line: number, why: string) => `${part}, line ${line}: ${why}`,
  notAList: 'is not a list of values',
  width: (has: number, wanted: number) => `has ${has} values, not ${wanted}`,
  date: 'has something else where a date is to be',
  rows: (part: string, has: number, wanted: number) => `${part} has ${has} rows, not ${wanted}`,
  otherContent: (part: string) => `${part} did not come out of the database as it went in`,
  stopped: 'stopped; nothing was changed',
  notThere: (file: string) => `${file} is not there`,
  missing: (part: string) => `${part} is missing`,
  otherPicture: (name: string) => `${name} is not the picture its name says`,
  notVerified: 'what was read back from the disk is not what was written to it',
  taken: (database: string) =>
    `the database ${database} holds something already. A backup is restored into an empty one; nothing was changed`,
} as const;

const WRITE: Readonly<Record<string, string>> = {
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk is full',
  EFBIG: 'the disk takes no file of that size',
  EROFS: 'the disk is read-only',
  EACCES: 'it may not be written there',
  EPERM: 'it may not be written there',
  ENOENT: 'there is no such folder',
  ENOTDIR: 'there is no such folder',
  EIO: 'the disk does not answer',
};

/** What kept a backup from being written, with the file and no more of the machine than that. */
export function writeProblem(error: unknown, file: string): Error {
  const { code = '', syscall } = error as NodeJS.ErrnoException;
  const why = WRITE[code];
  return why === undefined || syscall === undefined
    ? (error as Error)
    : new Error(`${file} could not be written: ${why} (${code})`, { cause: error });
}

export const FETCH = {
  notOne: (kind: string, wanted: string, found: readonly { id: string; name: string }[]) => {
    const some = found.slice(0, 12).map(({ id, name }) => `\n  ${id}  ${name}`);
    return found.length === 0
      ? `the backup has no ${kind} called ${wanted}`
      : `the backup has ${found.length} of that name. Name one by its id:${some.join('')}${found.length > 12 ? '\n  …' : ''}`;
  },
} as const;

/** What the doctor finds, a line each; `n` is how many there are of it. */
export const DOCTOR = {
  more: (n: number) => `and ${n} more`,
  noAccessory: 'there is no such accessory',
  table: (name: string, says: string) => `the table ${name} is damaged: ${says}`,
  drive: (id: string, why: string) => `drive ${id} does not read: ${why}`,
  vehicle: (id: string, why: string) => `vehicle ${id} does not read: ${why}`,
  job: (id: string, why: string) => `job ${id} does not read: ${why}`,
  event: (id: string, why: string) => `an event of job ${id} does not read: ${why}`,
  band: (role: string, why: string) => `the speed band of ${role} does not read: ${why}`,
  pulley: (id: string, why: string) => `pulley at hand ${id} does not read: ${why}`,
  belt: (id: number) => `belt ${id} of the list has no length or fewer than none on the shelf`,
  pictureDamaged: (hash: string) => `picture ${hash.slice(0, 16)}… is damaged: it is not what its name says`,
  pictureMissing: (hash: string, where: string) => `picture ${hash.slice(0, 16)}… of ${where} is missing`,
  orphan: (table: string, n: number, what: string) => `${table}: ${n} without their ${what}`,
  noDocument: (id: string) => `drive ${id} has no document`,
  notListed: (n: number) => `${n} ${n === 1 ? 'drive is' : 'drives are'} not found by search or in the records`,
  unused: (n: number) => `${n} ${n === 1 ? 'picture is' : 'pictures are'} in no drive and no job; they stay`,
} as const;

export const BACKUPS = {
  notOpen: 'this shop is not open',
  stopped: 'the server stopped; the next backup is made when it runs again',
  cancelled: 'it was cancelled',
  absolute: 'must be a whole path, such as /media/stick/emery',
  noFolder: 'is not there: make it, or plug in what it is on',
  notWritable: (code: string) => `cannot be written${code === '' ? '' : ` (${code})`}`,
  noFolderTitle: 'No folder',
  folderMissing: 'is missing: a folder of this machine',
  noneChosen: 'No folder has been chosen for backups yet.',
} as const;

export const HEALTH = {
  backupFailed: (why: string) => `The last backup could not be made: ${why}`,
  noBackup: 'There is no backup yet.',
  backupOld: (days: number) => `The last backup is ${days} days old.`,
  diskLow: (bytes: number) => `The disk has ${bytesText(bytes)} left.`,
  diskFills: (day: string) => `The disk will be full on ${day}, going on as it did.`,
  certificate: (ends: Date) => `The certificate for other devices ends on ${ends.toISOString().slice(0, 10)}.`,
  sameDisk:
    'Backups are made on the disk that the shop is on: one that dies takes both. Choose a folder on another disk or a stick.',
} as const;
