import type { Role } from '@emery/core/api';

export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'owner',
  bench: 'bench',
  counter: 'counter',
  lent: 'one job',
  nobody: 'nobody',
};

export const ROLE_HELP =
  'Owner: everything. Bench: everything but people and sharing. Counter: reads, counter and ticks.';

/** How far a clock is off, in words. */
export function clockWords(minutes: number): string {
  const off = Math.abs(minutes);
  const amount = off >= 90 ? `${Math.round(off / 60)} hours` : `${off} minutes`;
  return `The clock of this device is ${amount} ${minutes > 0 ? 'ahead of' : 'behind'} Emery's.`;
}

/** Six digits as they are read aloud. */
export const digitsWords = (digits: string): string => `${digits.slice(0, 3)} ${digits.slice(3)}`;

/** How long ago something was, as lists tell it. */
export function agoWords(at: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(at)) / 60_000);
  if (minutes < 2) return 'now';
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)} h ago`;
  return `${Math.floor(minutes / 1440)} days ago`;
}

/** What the pages say about bringing devices in. */
export const IN = {
  digits: 'Six digits from another screen: “On my phone”',
  whoOwns: 'Who owns this shop? The owner lets devices in and shuts them out.',
  stillHere: 'What was typed is still here, beneath this.',
  updated: 'Emery was updated. Reload this page to use the new version.',
  setClock: 'Ticks and readings carry its time: set it.',
  machine: 'This is the machine that Emery runs on: it needs no sign-in. Open this address on the other device.',
  pointCamera: 'Point the camera of the other device at the square. Or open',
  lent: 'The other device gets this job alone: it ticks steps and adds pictures, and is out once the job is signed off.',
  lentFor: ': this job alone, to tick steps and add pictures, until it is signed off.',
  readsOnly: 'You are signed in as counter, which reads and ticks: changes here are not saved.',
  lentHere: 'This job was lent to this device: tick steps and add pictures. Whoever lent it signs it off.',
} as const;
