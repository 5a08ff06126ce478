import type { EndedWhy } from '@emery/core/api';
import type { Least } from './route-table';

/** What a device that is not signed in is told, by why its session ended. */
export const ENDED_WORDS: Readonly<Record<EndedWhy | 'none', string>> = {
  none: 'This device is not signed in.',
  'signed-out': 'This device was signed out.',
  'shut-out': 'This device was shut out on the page Devices.',
  idle: 'This device was signed out because nobody had used it for three days.',
  final: 'This device was signed out because its 30 days are over.',
  'job-signed': 'The job that was lent to this device is finished.',
  removed: 'The person who was signed in here is no longer on the list of people.',
  passphrase: 'The passphrase was changed, which signs out every other device.',
};

/** What somebody is told who may not do what they asked for. */
export const MAY_WORDS: Readonly<Record<Least, string>> = {
  anybody: 'This is not for a device that one job was lent to.',
  counter: 'This is not for a device that one job was lent to.',
  bench: 'Your role, counter, reads and ticks. Ask somebody with the role bench or owner.',
  owner: 'Only the owner may do this.',
  machine: 'Only the owner may do this, on the machine that Emery runs on.',
};

/** What somebody is told who asks for what cannot be done. */
export const REFUSED = {
  machineNeedsNone: 'The machine that Emery runs on needs no sign-in.',
  notOverHttps:
    'The proxy before Emery does not say that the request came over HTTPS (X-Forwarded-Proto), or is not named in EMERY_PROXY.',
  firstAtMachine: 'The first owner is made at the machine that Emery runs on, or by the address it prints.',
  ownerThere: 'There is an owner already: sign in.',
  wrongPassphrase: 'Name and passphrase do not belong together.',
  nobodySignedIn: 'Change it in the list of people.',
  presentWrong: 'The present passphrase is another.',
  codeNotGood: 'This code is not good, or no longer: each is good for one device and two minutes. Show a new one.',
  showerGone: 'Whoever showed this code is no longer on the list.',
  notShared: 'Emery is not shared yet, so no other device can reach it. Share it on the page Devices first.',
  tooManyCodes: 'Too many codes are open.',
  noOwner: 'There is no owner yet. Say who it is on the page Devices first.',
  ownerFirst: 'Say first who the owner is: whoever may let devices in and shut them out.',
  counterLends: 'Your role, counter, does not lend jobs. Ask somebody with the role bench or owner.',
  jobSigned: 'This job is signed off: there is nothing left to lend.',
  nameToLend: 'needs a name, which every tick then has',
  lastOwner: 'must stay owner: there is no other one. Make somebody else an owner first',
  busy: 'Many are signing in right now. Try again in a moment.',
  guessed: 'guessed too often: the digits of all open codes were withdrawn',
  tooMuch: 'This device asks for more than Emery gives one device.',
  wrongFromDevice: 'There were too many wrong tries from this device.',
  wrongForName: 'There were too many wrong tries for this name.',
  lentTicksOnly: 'A device that a job was lent to ticks steps and adds pictures.',
  ownersSettings: 'Name, rate and limits of the shop are for its owner to change.',
} as const;

export const mostPeople = (count: number): string =>
  `The shop has ${count} people, as many as it can. Remove some first.`;
export const mostFeeds = (count: number): string =>
  `There are ${count} addresses of the calendar. Withdraw some first.`;
export const nameTaken = (name: string): string => `is taken: there is somebody called ${name} already`;
export const underWay = (count: number): string => `This device has ${count} large requests under way.`;
export const shownBy = (name: string | null): string =>
  name === null ? 'by a code shown at the machine' : `by a code of ${name}`;
export const againWords = (minutes: number): string =>
  `Try again in ${minutes === 1 ? 'a minute' : `${minutes} minutes`}.`;

/** What a name or a passphrase is refused with. */
export const FIELD = {
  space: 'must not begin or end with a space',
  long: (count: number) => `must be ${count} characters at most`,
  short: (count: number) => `must be ${count} characters or more; three or four words are good`,
  missing: 'is missing',
  whoIsIt: 'is missing: who is it?',
  whoseCalendar: 'is missing: whose calendar?',
  role: (roles: readonly string[]) => `must be one of ${roles.join(', ')}`,
  place: 'must be a page of Emery, such as /drives/…',
} as const;
