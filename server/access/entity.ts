import { EntitySchema } from 'typeorm';
import type { AuditKind, EndedWhy, StaffRole } from '@emery/core/api';

/** Somebody of the shop who signs in on devices other than the machine that Emery runs on. */
export interface PersonRow {
  id: string;
  name: string;
  role: StaffRole;
  /** As `hashed` writes it. */
  passphrase: string;
  createdAt: Date;
}

export const Person = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    name: { type: 'varchar', length: 80 },
    role: { type: 'varchar', length: 8 },
    passphrase: { type: 'varchar', length: 200 },
    createdAt: { type: 'datetime', precision: 3 },
  },
});

/** A session of one device, signed in as a person or lent for one job. */
export interface DeviceRow {
  id: string;
  /** SHA-256 of the session's name: who reads the table cannot sign in by it. */
  session: string;
  personId: string | null;
  jobId: string | null;
  name: string;
  /** What the browser says it is, in short. */
  agent: string;
  address: string;
  cameBy: 'passphrase' | 'code' | 'first';
  createdAt: Date;
  lastSeenAt: Date;
  /** It ends then, however much it is used. */
  endsAt: Date;
  endedAt: Date | null;
  endedWhy: EndedWhy | null;
}

export const Device = new EntitySchema<DeviceRow>({
  name: 'device',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    session: { type: 'char', length: 64 },
    personId: { type: 'char', length: 36, nullable: true },
    jobId: { type: 'char', length: 36, nullable: true },
    name: { type: 'varchar', length: 80 },
    agent: { type: 'varchar', length: 120 },
    address: { type: 'varchar', length: 45 },
    cameBy: { type: 'varchar', length: 12 },
    createdAt: { type: 'datetime', precision: 3 },
    lastSeenAt: { type: 'datetime', precision: 3 },
    endsAt: { type: 'datetime', precision: 3 },
    endedAt: { type: 'datetime', precision: 3, nullable: true },
    endedWhy: { type: 'varchar', length: 12, nullable: true },
  },
});

/** A secret address of the calendar. */
export interface FeedRow {
  id: string;
  /** SHA-256 of the secret. */
  token: string;
  label: string;
  madeBy: string;
  createdAt: Date;
  lastAskedAt: Date | null;
}

export const Feed = new EntitySchema<FeedRow>({
  name: 'feed',
  columns: {
    id: { type: 'char', length: 36, primary: true },
    token: { type: 'char', length: 64 },
    label: { type: 'varchar', length: 80 },
    madeBy: { type: 'varchar', length: 80 },
    createdAt: { type: 'datetime', precision: 3 },
    lastAskedAt: { type: 'datetime', precision: 3, nullable: true },
  },
});

export interface EntryRow {
  id: string;
  at: Date;
  kind: AuditKind;
  who: string;
  address: string;
  what: string;
  /** So many of the same within a minute stand as one. */
  times: number;
}

export const Entry = new EntitySchema<EntryRow>({
  name: 'access_entry',
  columns: {
    id: { type: 'bigint', primary: true, generated: true },
    at: { type: 'datetime', precision: 3 },
    kind: { type: 'varchar', length: 20 },
    who: { type: 'varchar', length: 80 },
    address: { type: 'varchar', length: 45 },
    what: { type: 'varchar', length: 200 },
    times: { type: 'int' },
  },
});

export interface SettingRow {
  id: number;
  /** Session cookies are signed with it. */
  secret: string;
  /** Whether the shop is shared when Emery starts. */
  sharing: boolean;
}

export const Setting = new EntitySchema<SettingRow>({
  name: 'access_setting',
  columns: {
    id: { type: 'int', primary: true },
    secret: { type: 'char', length: 64 },
    sharing: { type: 'boolean' },
  },
});
