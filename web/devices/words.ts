import type { AuditKind } from '@emery/core/api';

export const AUDIT_WORDS: Readonly<Record<AuditKind, string>> = {
  'sign-in': 'Signed in',
  'sign-out': 'Signed out',
  'wrong-passphrase': '▲ Wrong passphrase',
  'wrong-code': '▲ Wrong code',
  refused: '▲ Refused',
  slowed: '▲ Too many tries',
  lent: 'Job lent',
  delete: 'Deleted',
  export: 'Exported',
  import: 'Imported',
  restore: 'Restored',
  people: 'People',
  sharing: 'Sharing',
  device: 'Device',
  feed: 'Calendar address',
  backup: 'Backup',
};

/** What the page Devices says about sharing. */
export const SHARE = {
  on: '● Shared on the network',
  off: '○ Not shared',
  why: 'Only the machine that Emery runs on opens the shop. Share it, and a phone under the bonnet or a laptop at the counter opens it as well, over an encrypted connection, once it is signed in.',
  ownNetwork: 'On the shop’s own network only.',
  caution: 'Whoever is on the same network can open the sign-in page: do not share on one that customers use.',
  first: 'First: who is the owner?',
  newDevice: 'A new device first opens',
  renewed: ', renewed by itself',
  left: 'Not in the certificate',
} as const;

export const CALENDAR = {
  title: 'Calendar of what is due',
  why: 'A calendar program cannot sign in. Each gets a secret address of its own, which reads what is due and nothing else.',
  copy: 'Copy this address into the calendar now: it is not shown again.',
} as const;

export const PEOPLE = {
  none: 'Nobody yet. The first share makes the owner.',
  removing: 'Every device of theirs is signed out at once. What they did keeps their name.',
  othersOut: 'Every device of theirs is signed out.',
  ownOthersOut: 'Every other device of yours is signed out.',
  passphrase: '10 characters or more; three or four words are good.',
  noDevice: 'No other device is signed in.',
  signedOut: 'This device is signed out.',
} as const;
