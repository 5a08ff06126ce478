import { KEEP_PAGE } from './page-words';
import { DAY_AND_TIME } from '../ui/day-and-time';
import { bytesText, DAY_MS } from '@emery/core/quantity';

export const agoText = (at: string, now = Date.now()): string => {
  const days = Math.floor((now - Date.parse(at)) / DAY_MS);
  // One of this hour may be ahead of this device's clock.
  if (days <= 0) return 'Less than a day ago';
  return days === 1 ? '1 day ago' : `${days} days ago`;
};

export const KEEP = {
  title: KEEP_PAGE,
  none: 'No backup yet',
  noFolder: 'No folder has been chosen, so no backups are made.',
  last: 'Last backup',
  sound: '● Nothing to look at',
  why: 'One a day is made while Emery runs: written, read back and verified. Of those made, the last of 7 days, 4 weeks and 12 months stay.',
  sealed: 'Each is sealed by the passphrase in EMERY_BACKUP_PASSPHRASE. Without it nobody opens them.',
  open: 'They are not sealed: whoever has the file has the shop, people and prices too.',
  restoring:
    'How a shop comes back from one is in docs/keeping.md: npm run restore -- FILE, on this machine or any other.',
  folder: 'Folder for backups',
  folderHint: 'A folder on another disk or a stick: one disk that dies takes all that is on it.',
  make: 'Back up now',
  making: (bytes: number) => `Backing up, ${bytesText(bytes)} …`,
  cancel: 'Cancel',
  files: 'Backups in this folder',
  section: 'Backups',
  use: 'Use this folder',
  saveCopy: 'Save a copy',
  ownerOnly: 'The owner of the shop looks after its backups.',
  old: (says: string) => `▲ ${says}`,
  lastLine: (at: string) => `Last backup ${DAY_AND_TIME.format(new Date(at))}`,
} as const;

export const HEALTH = {
  title: 'Health',
  free: 'Free on the disk',
  of: (bytes: number) => `of ${bytesText(bytes)}`,
  fullLabel: 'How full the disk is',
  full: (day: string) => `full on ${day}, going on as it did`,
  elsewhere: 'The database is on another machine, which knows its own disk.',
  shop: 'The shop takes',
  history: 'Versions of drives kept',
  certificate: 'Certificate until',
  connections: 'Connections to the database',
  used: ({ used, most, waiting }: { used: number; most: number; waiting: number }) =>
    `${used} of ${most}, ${waiting === 0 ? 'none' : waiting} waiting`,
  started: 'Running since',
  versions: 'Emery, Node, database, shop',
  took: (ms: number) => `${ms} ms`,
  slowest: 'Slowest answers of the last day',
  noSlow: 'Nothing was asked yet.',
} as const;

export const PAST = {
  title: 'As it was on …',
  open: 'Earlier versions',
  lead: 'Every saved version stays for 90 days, and the last of each day after that.',
  now: 'As it is now',
  then: (at: string) => `As it was on ${DAY_AND_TIME.format(new Date(at))}`,
  byNobody: 'at the machine',
  more: 'Show earlier versions',
  choose: 'Choose a version to see what differs.',
  back: 'Bring this version back',
  backHint: 'The drive becomes what it was then. What it is now stays among the versions, and Undo goes back to it.',
  newest: 'now',
  names: ['that version', 'the drive now'] as [string, string],
} as const;
