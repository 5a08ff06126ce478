import { sameDocument } from './same-document';
import { signedOut } from '../access/here';
import { ask } from '../api/client';
import { onceBack } from '../offline/away';
import { sendBegun } from '../offline/begun';
import { keepAnswer } from '../offline/kept-answers';
import { newSaveId } from '../api/shop';
import { createDriveStore, type DriveStore } from './drive-history';
import { DriveSaver, type SaveRequest } from './drive-saver';
import { forgetDraft, holdPageName, leftDrafts, openDraftStore, type DraftStore, type LeftDraft } from './draft-store';
import { Listeners } from './listeners';
import type { DriveOpened } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';

let page: string | null = null;

/** This page's name among those that keep drafts; held from the first drive on. */
function pageName(): string {
  if (page === null) holdPageName((page = newSaveId()));
  return page;
}

/** Saves; one that was begun with the server away is made first. What this device keeps of the drive goes along. */
async function send(opened: DriveOpened, request: SaveRequest): Promise<{ revision: number; updatedAt: string }> {
  await sendBegun(opened.id);
  const path = `/drives/${opened.id}`;
  const saved = await ask<{ revision: number; updatedAt: string }>(
    'PUT',
    path,
    request,
    AbortSignal.timeout(LONGEST_SAVE),
  );
  const { document } = request;
  void keepAnswer(path, JSON.stringify({ ...opened, ...saved, name: document.name || opened.name, document }));
  return saved;
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

/** Drafts that wait for a decision. */
export class LeftDrafts {
  private readonly listeners = new Listeners();
  readonly subscribe = this.listeners.add;

  constructor(private drafts: readonly LeftDraft[]) {}

  get = (): readonly LeftDraft[] => this.drafts;

  /** Lets one go: it has been taken over, made a copy of, or thrown away. */
  forget(draft: LeftDraft): void {
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
 * Puts a drive on the bench that was read from the server: takes up a draft left behind, and saves every change from
 * here on.
 */
export async function openDrive(opened: DriveOpened): Promise<OpenDrive> {
  const left = await leftDrafts(opened.id);
  const there = held.get(opened.id);
  if (there) return there;
  // What the server has is no draft any more.
  const [sent, unsent] = [
    left.filter(({ document }) => sameDocument(document, opened.document)),
    left.filter(({ document }) => !sameDocument(document, opened.document)),
  ];
  for (const { key } of sent) forgetDraft(key);
  // Drawn over what the server still has: nobody else has saved, so it goes on from there. Any other is for somebody to
  // look at.
  const newest = unsent.find(({ revision }) => revision === opened.revision);
  const store = createDriveStore(opened.document);
  const own = openDraftStore(opened.id, pageName());
  const saver = new DriveSaver({
    revision: opened.revision,
    draft: newest ? takingOver(newest.key, own) : own,
    send: (request) => send(opened, request),
  });
  let last: Drive = opened.document;
  store.subscribe(() => {
    const { present } = store.get();
    const changed = present !== last;
    last = present;
    if (changed) saver.change(present);
  });
  if (newest) {
    last = newest.document;
    store.dispatch({ type: 'replace', drive: newest.document });
    saver.change(newest.document);
  }
  const open: Held = {
    opened,
    store,
    saver,
    left: new LeftDrafts(unsent.filter((draft) => draft !== newest)),
    benches: 0,
  };
  held.set(opened.id, open);
  saver.subscribe(() => {
    letGoWhenSent(opened.id);
    unsentTold.tell();
  });
  return open;
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
  if (open && open.benches === 0 && !open.saver.isDirty()) held.delete(id);
}

/** A draft store that answers for another page's draft as well, until its own holds the same or the server does. */
function takingOver(key: string, own: DraftStore): DraftStore {
  return {
    write: (draft) => {
      const kept = own.write(draft);
      if (kept) forgetDraft(key);
      return kept;
    },
    clear: () => {
      own.clear();
      forgetDraft(key);
    },
  };
}

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
