import { signedOut } from '../access/here';
import { ask } from '../api/client';
import { onceBack } from '../offline/away';
import { sendBegun } from '../offline/begun';
import { keepAnswer } from '../offline/kept-answers';
import { newSaveId } from '../api/shop';
import { whoIsThere } from '../jobs/who';
import { createDriveStore, type DriveStore } from './drive-history';
import { DriveSaver, type Versions } from './drive-saver';
import {
  forgetDraft,
  holdPageName,
  isOldDraft,
  leftDrafts,
  openDraftStore,
  type DraftStore,
  type LeftDraft,
  type LeftOldDraft,
} from './draft-store';
import { atFieldSince } from './at-field';
import { Listeners } from './listeners';
import type { DriveOpened } from '@emery/core/api';
import { type Drive, same } from '@emery/core/drive';
import {
  type Device,
  isUnsent,
  type Kept,
  keptOf,
  type Patch,
  type PatchAnswer,
  resumed,
  startDevice,
  type Version,
} from '@emery/core/together';

let page: string | null = null;

/** This page's name among those that keep drafts; held from the first drive on. */
function pageName(): string {
  if (page === null) holdPageName((page = newSaveId()));
  return page;
}

/** Saves; one that was begun with the server away is made first. */
async function send({ id }: DriveOpened, patch: Patch): Promise<PatchAnswer> {
  await sendBegun(id);
  const by = whoIsThere();
  const named = { ...patch, ...(by && { by }) };
  return ask<PatchAnswer>('PATCH', `/drives/${id}`, named, AbortSignal.timeout(LONGEST_SAVE));
}

/** What this device keeps of a drive goes along with what the server is known to have. */
function keepBase(opened: DriveOpened, { revision, base }: Device): void {
  const kept = { ...opened, revision, name: base.name || opened.name, document: base };
  void keepAnswer(`/drives/${opened.id}`, JSON.stringify(kept));
}

const unsentTold = new Listeners();
export const unsentListeners = unsentTold.add;

/** How many drives have something that the server does not have yet. */
export const unsentDrives = (): number => [...held.values()].filter(({ saver }) => saver.isDirty()).length;

/** A save without an answer for this long is sent again, the same, ms. */
const LONGEST_SAVE = 20_000;

/**
 * A drive that is open in this page, or was and has something unsent: its history, and the saver that follows every
 * change of it.
 */
export interface OpenDrive {
  /** As it was read from the server; the document in hand is the store's. */
  opened: DriveOpened;
  store: DriveStore;
  saver: DriveSaver;
  /**
   * Drafts of other pages that are gone, besides the one that was taken up: each waits until somebody who saw it
   * decides.
   */
  left: LeftDrafts;
}

/** Drafts of an older Emery that wait for a decision. */
export class LeftDrafts {
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.add;

  constructor(private drafts: readonly LeftOldDraft[]) {}

  get = (): readonly LeftOldDraft[] => this.drafts;

  /** Lets one go: it has been taken over, made a copy of, or thrown away. */
  forget(draft: LeftOldDraft): void {
    forgetDraft(draft.key);
    this.drafts = this.drafts.filter((other) => other !== draft);
    this.listeners.tell();
  }
}

interface Held extends OpenDrive {
  benches: number;
}

/** One saver a drive, for as long as it has something unsent or is on a bench. */
const held = new Map<string, Held>();

/** The drive as this page has it; null where the server has all of it and it has to be read. */
export const openDriveOf = (id: string): OpenDrive | null => held.get(id) ?? null;

/**
 * Puts a drive on the bench that was read from the server: goes on with what other pages left, and saves every change
 * from here on.
 */
export async function openDrive(opened: DriveOpened): Promise<OpenDrive> {
  const left = await leftDrafts(opened.id);
  const there = held.get(opened.id);
  if (there) return there;
  const { device, taken, old } = takenUp(opened, left);
  const own = openDraftStore(opened.id, pageName());
  const store = createDriveStore(opened.document);
  let last: Drive = opened.document;
  const merged = (drive: Drive, versions: readonly Version[]) => {
    const from = last;
    last = drive;
    store.dispatch({ type: 'merge', from, to: drive });
    if (versions.length > 0) tellChanged({ id: opened.id, from, to: drive, versions });
  };
  const saver = new DriveSaver({
    device,
    draft: taken.length > 0 ? takingOver(taken, own) : own,
    send: (patch) => send(opened, patch),
    read: (after) => ask<Versions>('GET', `/drives/${opened.id}/versions?after=${after}`),
    merged,
    decided: (drive) => store.dispatch({ type: 'edit', change: () => drive }),
    atFieldSince,
    based: (now) => keepBase(opened, now),
  });
  if (device.present !== opened.document) {
    last = device.present;
    store.dispatch({ type: 'replace', drive: device.present });
  }
  store.subscribe(() => {
    const { present } = store.get();
    const changed = present !== last;
    last = present;
    if (changed) saver.change(present);
  });
  if (!isUnsent(device) && device.questions.length === 0) taken.forEach((key) => forgetDraft(key));
  const open: Held = { opened, store, saver, left: new LeftDrafts(old), benches: 0 };
  held.set(opened.id, open);
  saver.subscribe(() => {
    letGoWhenSent(opened.id);
    unsentTold.tell();
  });
  return open;
}

/** What other pages left of a drive, all of it in one; what an older Emery left over an older version waits. */
function takenUp(opened: DriveOpened, left: readonly LeftDraft[]) {
  let device = startDevice(opened.revision, opened.document);
  const taken: string[] = [];
  const old: LeftOldDraft[] = [];
  // The newest goes last and first on the screen.
  for (const draft of [...left].reverse()) {
    if (!isOldDraft(draft)) device = resumedOnto(device, draft.kept);
    else if (same(draft.document, opened.document)) {
      // What the server has is no draft any more.
      forgetDraft(draft.key);
      continue;
    } else if (draft.revision === opened.revision && draft === left.find(isOldDraft))
      device = resumedOnto(
        device,
        keptOf({ ...startDevice(opened.revision, opened.document), present: draft.document }),
      );
    else {
      old.unshift(draft);
      continue;
    }
    taken.push(draft.key);
  }
  return { device, taken, old };
}

/** With what one more page left: a save of it that was under way is made anew where another is under way. */
function resumedOnto(device: Device, kept: Kept): Device {
  if (device.present === device.base && !device.sent) return resumed(device.revision, device.base, kept);
  const more = resumed(device.revision, device.present, {
    ...kept,
    sent: null,
    changes: [...(kept.sent?.changes ?? []), ...kept.changes],
  });
  return { ...device, present: more.present, questions: [...device.questions, ...more.questions] };
}

/** Says that a bench shows the drive. Returns what says that it no longer does. */
export function onBench(shown: OpenDrive): () => void {
  const open = shown as Held;
  const { id } = open.opened;
  held.set(id, open);
  open.benches += 1;
  return () => {
    open.benches -= 1;
    open.saver.nudge();
    letGoWhenSent(id);
  };
}

function letGoWhenSent(id: string): void {
  const open = held.get(id);
  if (open && open.benches === 0 && !open.saver.isDirty() && open.saver.getQuestions().length === 0) held.delete(id);
}

/** A draft store that answers for other pages' drafts as well, until its own holds the same or the server does. */
function takingOver(keys: readonly string[], own: DraftStore): DraftStore {
  const forget = () => keys.forEach((key) => forgetDraft(key));
  return {
    write: (draft) => {
      const kept = own.write(draft);
      if (kept) forget();
      return kept;
    },
    clear: () => {
      own.clear();
      forget();
    },
  };
}

/** What others changed of a drive that is on a bench here. */
export interface Changed {
  id: string;
  from: Drive;
  to: Drive;
  versions: readonly Version[];
}
const changedListeners = new Set<(changed: Changed) => void>();
/** Calls back with what others change. Returns what ends that. */
export function onChanged(listener: (changed: Changed) => void): () => void {
  changedListeners.add(listener);
  return () => void changedListeners.delete(listener);
}
const tellChanged = (changed: Changed) => changedListeners.forEach((listener) => listener(changed));

/** The drives that a bench shows here, or that have something unsent. */
export const heldDrives = (): readonly OpenDrive[] => [...held.values()];

const nudgeAll = () => {
  for (const { saver } of held.values()) saver.nudge();
};
if (typeof window !== 'undefined') {
  window.addEventListener('online', nudgeAll);
  onceBack(nudgeAll);
  signedOut.subscribe(() => signedOut.get() === null && nudgeAll());
  window.addEventListener('pagehide', nudgeAll);
  document.addEventListener('visibilitychange', nudgeAll);
  window.addEventListener('beforeunload', (event) => {
    if ([...held.values()].some(({ saver }) => saver.isAtRisk())) event.preventDefault();
  });
}
