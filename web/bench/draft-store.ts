import type { Drive } from '@emery/core/drive';

/** What was drawn but not yet acknowledged by the server, with the revision it was drawn over. */
export interface Draft {
  revision: number;
  document: Drive;
  /** When, ISO 8601. */
  at: string;
}

export interface DraftStore {
  write: (draft: Draft) => void;
  clear: () => void;
}

const PREFIX = 'emery-draft';

/**
 * The drafts of one drive in this browser. Every page keeps its own, under a name it holds as a Web Lock while it lives, so that two tabs never
 * write over each other and a page can tell which drafts were left behind.
 */
export function openDraftStore(driveId: string, page: string, storage: Storage = localStorage): DraftStore {
  const key = `${PREFIX}:${driveId}:${page}`;
  return {
    write: (draft) => storage.setItem(key, JSON.stringify(draft)),
    clear: () => storage.removeItem(key),
  };
}

/** Holds this page's name for as long as the page lives. */
export function holdPageName(page: string): void {
  void navigator.locks?.request(`${PREFIX}:${page}`, () => new Promise(() => undefined));
}

/** Takes the newest draft of a drive whose page is gone, and clears it and older ones away. Null where there is none. */
export async function takeLeftDraft(driveId: string, storage: Storage = localStorage): Promise<Draft | null> {
  const held = new Set(((await navigator.locks?.query())?.held ?? []).map(({ name }) => name));
  const keys = Array.from({ length: storage.length }, (_, k) => storage.key(k)!).filter((key) => {
    const [prefix, drive, page] = key.split(':');
    return prefix === PREFIX && drive === driveId && !held.has(`${PREFIX}:${page}`);
  });
  const drafts = keys.flatMap((key) => readDraft(storage.getItem(key)) ?? []).sort((a, b) => b.at.localeCompare(a.at));
  for (const key of keys) storage.removeItem(key);
  return drafts[0] ?? null;
}

function readDraft(text: string | null): Draft | null {
  try {
    const draft = JSON.parse(text ?? '') as Draft;
    return typeof draft.revision === 'number' && draft.document.format === 'emery-drive' ? draft : null;
  } catch {
    return null;
  }
}
