import type { Drive } from '@emery/core/drive';
import { type Kept, readChanges } from '@emery/core/together';

/** What was done but not yet acknowledged by the server. */
export interface Draft {
  kept: Kept;
  /** When, ISO 8601. */
  at: string;
}

/** As an older Emery wrote it: the drive as it was drawn, with the revision that it was drawn over. */
export interface OldDraft {
  revision: number;
  document: Drive;
  at: string;
}

/** A draft whose page is gone, under the name the browser keeps it by. */
export type LeftDraft = (Draft | OldDraft) & { key: string };
/** One of an older Emery, which holds no more than how the drive looked. */
export type LeftOldDraft = OldDraft & { key: string };
export const isOldDraft = (draft: LeftDraft): draft is LeftOldDraft => 'document' in draft;

export interface DraftStore {
  /** Keeps the draft in this browser. False where the browser has no room for it or forbids it. */
  write: (draft: Draft) => boolean;
  clear: () => void;
}

const PREFIX = 'emery-draft';

/** The browser's storage; null where it is forbidden, as in a page whose site data is blocked. */
export function browserStorage(kind: 'localStorage' | 'sessionStorage' = 'localStorage'): Storage | null {
  try {
    return globalThis[kind];
  } catch {
    return null;
  }
}

/**
 * The drafts of one drive in this browser. Every page keeps its own, under a name it holds as a Web Lock while it
 * lives, so that two tabs never write over each other and a page can tell which drafts were left behind.
 */
export function openDraftStore(driveId: string, page: string, storage = browserStorage()): DraftStore {
  const key = `${PREFIX}:${driveId}:${page}`;
  return {
    write: (draft) => {
      try {
        storage?.setItem(key, JSON.stringify(draft));
        return storage !== null;
      } catch {
        // Full: what was kept before stays, which is better than nothing.
        return false;
      }
    },
    clear: () => storage?.removeItem(key),
  };
}

/** Holds this page's name for as long as the page lives. */
export function holdPageName(page: string): void {
  navigator.locks?.request(`${PREFIX}:${page}`, () => new Promise(() => undefined)).catch(() => undefined);
}

/**
 * The drafts of a drive whose pages are gone, newest first. None is removed: that is for whoever has sent it, or thrown
 * it away.
 */
export async function leftDrafts(driveId: string, storage = browserStorage()): Promise<LeftDraft[]> {
  if (!storage) return [];
  const query = await navigator.locks?.query().catch(() => undefined);
  const held = new Set((query?.held ?? []).map(({ name }) => name));
  return Array.from({ length: storage.length }, (_, k) => storage.key(k)!)
    .filter((key) => {
      const [prefix, drive, page] = key.split(':');
      return prefix === PREFIX && drive === driveId && !held.has(`${PREFIX}:${page}`);
    })
    .flatMap((key) => {
      const draft = readDraft(storage.getItem(key));
      return draft ? [{ ...draft, key }] : [];
    })
    .sort((a, b) => b.at.localeCompare(a.at));
}

/** Removes a draft that has been sent, or that a person who saw it has thrown away. */
export function forgetDraft(key: string, storage = browserStorage()): void {
  storage?.removeItem(key);
}

function readDraft(text: string | null): Draft | OldDraft | null {
  try {
    const draft = JSON.parse(text ?? '') as Draft | OldDraft;
    const isGood =
      'kept' in draft
        ? typeof draft.kept.revision === 'number' && readChanges(draft.kept.changes).ok
        : typeof draft.revision === 'number' && draft.document.format === 'emery-drive';
    return isGood && typeof draft.at === 'string' ? draft : null;
  } catch {
    return null;
  }
}
