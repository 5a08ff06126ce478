import { type Drive, same } from '../drive';
import { forced } from './apply';
import type { Change } from './change';
import { changesBetween } from './changes-between';
import { type Clash, merged, withMine } from './merge';
import { joined, meet, type Question, questionsOf, stillOpen, type Version } from './question';

/** What a device sends: what it did to the version of that revision. The same `saveId` again is the same save. */
export interface Patch {
  revision: number;
  saveId: string;
  changes: readonly Change[];
  /** Who works at the device, where it says so; who is signed in is taken in place of it. */
  by?: string;
}

/** What the server answers to a patch: all versions since the one that it was made from, or the drive as it is. */
export interface PatchAnswer {
  revision: number;
  updatedAt: string;
  since: readonly Version[] | null;
  document?: Drive;
  clashes: readonly Clash[];
}

/** A drive on one device: the last version that the server is known to have, and what was made of it here. */
export interface Device {
  readonly revision: number;
  readonly base: Drive;
  readonly present: Drive;
  /** Under way, with the drive as it was when it went. */
  readonly sent: (Patch & { readonly document: Drive }) | null;
  /** Versions that came while a patch was under way. */
  readonly heard: readonly Version[];
  readonly questions: readonly Question[];
}

/** What a device keeps of what the server does not have, so that it goes on with it after it was shut. */
export interface Kept {
  revision: number;
  sent: Patch | null;
  changes: readonly Change[];
  questions: readonly Question[];
}

export const startDevice = (revision: number, drive: Drive): Device => ({
  ...{ revision, base: drive, present: drive, sent: null, heard: [], questions: [] },
});

export const isUnsent = ({ sent, base, present }: Device): boolean => sent !== null || !same(base, present);

/** What goes next: what is under way again, as it was, or all that was done since. Null where there is nothing. */
export function sending(device: Device, saveId: () => string): Device | null {
  if (device.sent) return device;
  const { revision, base, present } = device;
  const changes = changesBetween(base, present);
  return changes.length === 0 ? null : { ...device, sent: { revision, saveId: saveId(), changes, document: present } };
}

/** Something was sent that the server does not take; it stays here, and others are heard again. */
export const refused = (device: Device): Device => drained({ ...device, sent: null });

/** Null where versions are missing: the drive is then to be read anew (`caughtUp`). */
export function answered(device: Device, answer: PatchAnswer): Device | null {
  const { sent } = device;
  if (!sent) return device;
  const next = versionsOnto(device, answer);
  if (!next) return null;
  const since = answer.since ?? [];
  const { revision } = next;
  // What went as it was is that one object from here on, so that nothing is drawn anew for having been saved.
  const base = same(next.base, sent.document) ? sent.document : next.base;
  const { drive, clashes } =
    base === sent.document
      ? { drive: device.present, clashes: [] }
      : merged(base, changesBetween(sent.document, device.present));
  const asked = [
    ...questionsOf(answer.clashes, sent.document, drive, since),
    ...questionsOf(clashes, device.present, drive, since),
  ];
  return drained({
    ...{ ...device, revision, base, present: drive, sent: null },
    questions: stillOpen(joined(device.questions, asked), drive),
  });
}

function versionsOnto({ revision, base }: Device, answer: PatchAnswer): Pick<Device, 'base' | 'revision'> | null {
  // Of an earlier revision than this it is where the shop was brought back from a backup: the drive is what it says.
  if (answer.document) return { base: answer.document, revision: answer.revision };
  if (answer.revision <= revision) return { base, revision };
  let [drive, at] = [base, revision];
  for (const version of answer.since ?? []) {
    if (version.revision <= at) continue;
    if (version.revision !== at + 1) return null;
    drive = forced(drive, version.changes);
    at = version.revision;
  }
  return at === answer.revision ? { base: drive, revision: at } : null;
}

/** Takes in a version that somebody made; null where one before it is missing. */
export function hears(device: Device, version: Version): Device | null {
  if (version.revision <= device.revision) return device;
  if (device.sent) return { ...device, heard: [...device.heard, version] };
  if (version.revision !== device.revision + 1) return null;
  return onto(device, forced(device.base, version.changes), version.revision, [version]);
}

/** Takes in the drive as the server has it now. */
export function caughtUp(device: Device, revision: number, drive: Drive, versions: readonly Version[] = []): Device {
  return onto(device, drive, revision, versions);
}

/** What was done here, over a version that others made. */
function onto(device: Device, base: Drive, revision: number, versions: readonly Version[]): Device {
  const mine = changesBetween(device.base, device.present);
  if (mine.length === 0) {
    // What both have as one object is to stay one, so that nothing is drawn anew for it.
    const present = same(base, device.present) ? device.present : base;
    return { ...device, base, revision, present, questions: stillOpen(device.questions, base) };
  }
  const { drive, clashes } = merged(base, mine);
  const asked = questionsOf(clashes, device.present, drive, versions);
  return { ...device, base, revision, present: drive, questions: stillOpen(joined(device.questions, asked), drive) };
}

/**
 * An edit by somebody who has not seen these versions, as by who was writing in a field when they came: what both
 * changed is asked about, and all else of it is in. Null where they changed nothing of the same.
 */
export function overUnseen(device: Device, edited: Drive, unseen: readonly Version[]): Device | null {
  const mine = changesBetween(device.present, edited);
  const others = unseen.flatMap(({ changes }) => changes.map(({ at }) => at));
  const [clashing, free] = [
    mine.filter(({ at }) => others.some((way) => meet(way, at))),
    mine.filter(({ at }) => !others.some((way) => meet(way, at))),
  ];
  if (clashing.length === 0) return null;
  const { drive } = merged(device.present, free);
  const asked = questionsOf([{ why: 'changed', changes: clashing }], edited, drive, unseen);
  return { ...device, present: drive, questions: stillOpen(joined(device.questions, asked), drive) };
}

/** What was heard while a patch was under way. A gap is found with the next version that comes. */
function drained(device: Device): Device {
  const heard = [...device.heard].sort((a, b) => a.revision - b.revision);
  return heard.reduce<Device>((now, version) => hears(now, version) ?? now, { ...device, heard: [] });
}

/** What a device writes down with every change. */
export function keptOf({ revision, base, present, sent, questions }: Device): Kept {
  return {
    ...{ revision, questions, changes: changesBetween(sent?.document ?? base, present) },
    sent: sent && { revision: sent.revision, saveId: sent.saveId, changes: sent.changes },
  };
}

/** Goes on with what was kept, over the drive as it is now. What was under way goes again first. */
export function resumed(revision: number, drive: Drive, { sent, changes, questions }: Kept): Device {
  const start = startDevice(revision, drive);
  const before = sent ? { ...sent, document: withMine(drive, sent.changes) } : null;
  const { drive: present, clashes } = merged(before?.document ?? drive, changes);
  const mine = withMine(before?.document ?? drive, changes);
  const asked = questionsOf(clashes, mine, present, []);
  return { ...start, present, sent: before, questions: stillOpen(joined(questions, asked), present) };
}
