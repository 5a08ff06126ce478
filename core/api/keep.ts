import type { Drive } from '../drive';

/** A version of a drive that was saved, as lists show it. */
export interface PastListed<When = string> {
  revision: number;
  at: When;
  /** Who saved it; empty at the machine itself and where nobody is known. */
  by: string;
}

export interface PastPage<When = string> {
  /** The latest first. */
  versions: PastListed<When>[];
  /** Whether there are earlier ones. */
  more: boolean;
}

/** A drive as it was on a day. */
export interface PastOpened<When = string> extends PastListed<When> {
  document: Drive;
}

/** A backup in the folder that they are made in. */
export interface BackupListed<When = string> {
  name: string;
  at: When;
  bytes: number;
}

/** How a shop's backups stand. */
export interface BackupState<When = string> {
  /** Where they are made; null where none are made on a schedule. */
  folder: string | null;
  /** Whether that is the disk that the shop itself is on; null where nobody can tell. */
  sameDisk: boolean | null;
  /** Whether each is sealed by a passphrase. */
  isSealed: boolean;
  /** The latest first. */
  files: BackupListed<When>[];
  /** When the last one was made, and whether that is long ago. */
  lastAt: When | null;
  isOld: boolean;
  /** That it is, in a sentence; null where it is not. */
  says: string | null;
  /** How far one is that is being made, bytes; null where none is. */
  passed: number | null;
  /** What kept the last from being made; null where nothing did. */
  problem: string | null;
}

/** How old the last backup is, for whoever works in the shop. */
export type BackupAge<When = string> = Pick<BackupState<When>, 'lastAt' | 'isOld' | 'says'>;

/** An answer that took long. */
export interface SlowAnswer<When = string> {
  /** Method and kind of address, without what it was asked about. */
  what: string;
  ms: number;
  at: When;
}

/** What a shop runs on and how it fares. */
export interface Health<When = string> {
  /** What somebody is to look at, the worst first. */
  problems: string[];
  versions: { emery: string; node: string; database: string; shop: string };
  startedAt: When;
  /** What the shop takes on the disk, bytes. */
  shopBytes: number;
  /** The disk that the shop is on; null where it is on another machine. */
  disk: DiskState | null;
  /** When this machine's certificate ends; null where nothing is shared. */
  certificateEnds: When | null;
  /** Connections to the database in use, of how many, and what waits for one. */
  queue: { used: number; most: number; waiting: number };
  slowest: SlowAnswer<When>[];
  history: { versions: number; bytes: number };
  backups: BackupState<When>;
}

export interface DiskState {
  freeBytes: number;
  totalBytes: number;
  /** On which day it will be full, going on as it did; null where it does not fill, or nobody can tell yet. */
  fullOn: string | null;
}
