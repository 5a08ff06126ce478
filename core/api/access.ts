/**
 * Who may reach the shop from other devices, as server and interface exchange it. `When` is as beside: a `Date` on the
 * server, ISO 8601 text over the wire.
 */

/** What the people of a shop may do: all; all but people and sharing; read, ask the counter and tick. */
export const STAFF_ROLES = ['owner', 'bench', 'counter'] as const;
export type StaffRole = (typeof STAFF_ROLES)[number];

/** Whoever asks: one of the people, a device that one job was lent to, or nobody that is known. */
export type Role = StaffRole | 'lent' | 'nobody';

/** Why a session ended. */
export type EndedWhy = 'signed-out' | 'shut-out' | 'idle' | 'final' | 'job-signed' | 'removed' | 'passphrase';

/** What the list of what was done tells. */
export const AUDIT_KINDS = [
  ...(['sign-in', 'sign-out', 'wrong-passphrase', 'wrong-code', 'refused', 'slowed', 'lent'] as const),
  ...(['delete', 'export', 'import', 'restore', 'people', 'sharing', 'device', 'feed', 'backup'] as const),
] as const;
export type AuditKind = (typeof AUDIT_KINDS)[number];

/** Whom the server takes the asking device for. */
export interface Me {
  role: Role;
  /** Who works at it; null at the machine itself, and for nobody. */
  name: string | null;
  /** True on the machine that Emery runs on. */
  machine: boolean;
  /** The one job that is lent to it. */
  job: string | null;
  /** Whether there is an owner yet. */
  owned: boolean;
}

export interface PersonListed<When = string> {
  id: string;
  name: string;
  role: StaffRole;
  createdAt: When;
}

export interface DeviceListed<When = string> {
  id: string;
  /** Whose it is, or who it was lent to. */
  name: string;
  role: Role;
  /** The job that was lent. */
  job: string | null;
  agent: string;
  address: string;
  createdAt: When;
  lastSeenAt: When;
  /** The one that asks. */
  here: boolean;
}

export interface FeedListed<When = string> {
  id: string;
  label: string;
  madeBy: string;
  createdAt: When;
  lastAskedAt: When | null;
}

export interface AuditEntry<When = string> {
  id: number;
  at: When;
  kind: AuditKind;
  who: string;
  address: string;
  what: string;
  times: number;
}

/** How the shop is reached from other devices. */
export interface SharingState<When = string> {
  on: boolean;
  /** Addresses of the interface, the likeliest to work first; the shop's own origin where it has a proxy. */
  addresses: string[];
  /** The plain page that gives a new device the authority's certificate; null where the shop has its own. */
  trustPage: string | null;
  /** SHA-256 of the authority's certificate, in pairs of hex digits. */
  fingerprint: string | null;
  /** When the certificate of this machine ends; it is renewed before. */
  certificateEnds: When | null;
  /** The name that is announced on the network. */
  announced: string | null;
  /** Why it is off although it was asked for. */
  problem: string | null;
  /** Addresses of this machine that its authority does not vouch for. */
  left: string[];
}

/** A code that brings one more device in. */
export interface BringCode<When = string> {
  id: string;
  /** The address that the QR code holds. */
  link: string;
  /** Six digits, to be typed in place of it at `typeAt`. */
  digits: string;
  typeAt: string;
  expiresAt: When;
}

export type CodeState = 'open' | 'used' | 'over' | 'withdrawn';
