import { ApiProblem } from '../api/client';
import { newSaveId } from '../api/shop';
import type { DraftStore } from './draft-store';
import { Listeners } from './listeners';
import type { DriveOpened } from '@emery/core/api';
import type { Drive } from '@emery/core/drive';

export type SaveState =
  | { kind: 'saved'; at: Date | null }
  | { kind: 'saving' }
  /** The server or its database is away, or has no room; tried again by itself. */
  | { kind: 'waiting'; why: string; for: 'server' | 'room' | 'sign-in' }
  | { kind: 'conflict'; theirs: DriveOpened }
  /** The server answers and does not take it; tried again by itself all the same, at the longest pause. */
  | { kind: 'refused'; why: string }
  /** Deleted meanwhile: the drive, or the vehicle it belongs to. */
  | { kind: 'gone'; why: string; deleted: 'drive' | 'vehicle' };

export interface SaveRequest {
  revision: number;
  saveId: string;
  document: Drive;
}

export interface SaverOptions {
  revision: number;
  draft: DraftStore;
  send: (request: SaveRequest) => Promise<{ revision: number; updatedAt: string }>;
  /** Time to gather edits before a save, ms. */
  gather?: number;
  /** First and longest pause before another try, ms. */
  retry?: { first: number; max: number };
}

/** One and the same, so that a drag, which says it with every frame, draws nothing anew. */
const SAVING: SaveState = { kind: 'saving' };

/** What a save that may go through later waits for. */
function waitedFor(error: unknown): 'server' | 'room' | 'sign-in' {
  if (!(error instanceof ApiProblem)) return 'server';
  if (error.needsSignIn) return 'sign-in';
  return error.status === 507 ? 'room' : 'server';
}

/** Edits that follow one another within this are one save, ms. */
const GATHER_MS = 350;

/**
 * Saves one drive, one request at a time. Every change is in the browser's draft before `change` returns, where the
 * browser can keep one, and stays there until the server has acknowledged it. A request whose answer was lost is sent
 * again as it was, same id and same document, before anything newer, so the server can tell it from a stranger's save.
 */
export class DriveSaver {
  private state: SaveState = { kind: 'saved', at: null };
  private readonly listeners = new Listeners();
  private kept = true;
  private revision: number;
  private latest: Drive | null = null;
  private attempt: SaveRequest | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending = false;
  private pause: number;

  constructor(private readonly options: SaverOptions) {
    this.revision = options.revision;
    this.pause = this.retry.first;
  }

  private get retry() {
    return this.options.retry ?? { first: 800, max: 10_000 };
  }

  getState = (): SaveState => this.state;
  getRevision = (): number => this.revision;
  /** True while something is not acknowledged yet. */
  isDirty = (): boolean => this.latest !== null || this.attempt !== null;

  /** False while what is not acknowledged is in this page alone: the browser has no room for a draft, or forbids it. */
  isKept = (): boolean => this.kept || !this.isDirty();
  /** True while closing the page would lose something, or leave it behind where its owner may not look for it. */
  isAtRisk = (): boolean =>
    this.isDirty() && (!this.kept || (this.state.kind !== 'saving' && this.state.kind !== 'saved'));

  readonly subscribe = this.listeners.add;

  /** Takes a changed drive, and keeps it in this browser where that can be done. */
  change(document: Drive): void {
    this.latest = document;
    this.keep(document);
    if (this.state.kind === 'conflict' || this.state.kind === 'gone') return;
    if (this.state.kind !== 'waiting') {
      this.set(SAVING);
      this.schedule(this.options.gather ?? GATHER_MS);
    }
  }

  /** Tries now: the network is back, or the page is about to go. */
  nudge(): void {
    if (this.isDirty() && this.state.kind !== 'conflict' && this.state.kind !== 'gone') this.schedule(0);
  }

  /** After a conflict: saves `document` over the newer revision, which the user has seen. */
  keepMine(document: Drive): void {
    if (this.state.kind !== 'conflict') return;
    this.revision = this.state.theirs.revision;
    this.attempt = null;
    this.set(SAVING);
    this.change(document);
  }

  /** After a conflict: the newer revision stands, and what was drawn here is let go. */
  takeTheirs(): void {
    if (this.state.kind !== 'conflict') return;
    this.revision = this.state.theirs.revision;
    this.attempt = null;
    this.latest = null;
    this.options.draft.clear();
    this.set({ kind: 'saved', at: new Date(this.state.theirs.updatedAt) });
  }

  /** After the drive was deleted elsewhere and brought back: carries on saving. */
  revive(): void {
    if (this.state.kind !== 'gone') return;
    this.set(SAVING);
    this.schedule(0);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.listeners.clear();
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), ms);
  }

  private async send(): Promise<void> {
    if (this.sending) return;
    if (!this.attempt) {
      if (!this.latest) return;
      this.attempt = { revision: this.revision, saveId: newSaveId(), document: this.latest };
    }
    const { attempt } = this;
    if (this.latest === attempt.document) this.latest = null;
    this.sending = true;
    try {
      this.acknowledged(attempt, await this.options.send(attempt));
    } catch (error) {
      this.failed(attempt, error);
    } finally {
      this.sending = false;
    }
  }

  private acknowledged(attempt: SaveRequest, { revision, updatedAt }: { revision: number; updatedAt: string }): void {
    this.revision = revision;
    this.attempt = null;
    this.pause = this.retry.first;
    if (this.latest && this.latest !== attempt.document) {
      this.keep(this.latest);
      this.set(SAVING);
      // What is still being dragged goes once it rests, as the first of it did; until then the draft has it.
      this.schedule(this.options.gather ?? GATHER_MS);
    } else {
      this.latest = null;
      this.options.draft.clear();
      this.set({ kind: 'saved', at: new Date(updatedAt) });
    }
  }

  private failed(attempt: SaveRequest, error: unknown): void {
    // What is no answer at all, such as one that took too long, may have been taken: the same request again finds out.
    if (!(error instanceof ApiProblem) || error.passing || error.needsSignIn) {
      this.set({
        kind: 'waiting',
        why: error instanceof Error ? error.message : String(error),
        for: waitedFor(error),
      });
      this.schedule(this.pause);
      this.pause = Math.min(this.retry.max, this.pause * 1.7);
      return;
    }
    this.latest ??= attempt.document;
    this.attempt = null;
    if (error.status === 409) this.set({ kind: 'conflict', theirs: error.body['current'] as DriveOpened });
    else if (error.status === 404)
      this.set({
        kind: 'gone',
        why: error.message,
        deleted: error.body['deleted'] === 'vehicle' ? 'vehicle' : 'drive',
      });
    else {
      this.set({ kind: 'refused', why: error.message });
      this.schedule(this.retry.max);
    }
  }

  private keep(document: Drive): void {
    this.kept = this.options.draft.write({ revision: this.revision, document, at: new Date().toISOString() });
  }

  private set(state: SaveState): void {
    this.state = state;
    this.listeners.tell();
  }
}
