import { ApiProblem } from '../api/client';
import { newSaveId } from '../api/shop';
import type { DraftStore } from './draft-store';
import { Listeners } from './listeners';
import type { Drive } from '@emery/core/drive';
import {
  answered,
  caughtUp,
  type Device,
  hears,
  isUnsent,
  keptOf,
  overUnseen,
  type Patch,
  type PatchAnswer,
  type Question,
  refused,
  sending,
  type Version,
  withMine,
} from '@emery/core/together';

export type SaveState =
  | { kind: 'saved'; at: Date | null }
  | { kind: 'saving' }
  /** The server or its database is away, or has no room; tried again by itself. */
  | { kind: 'waiting'; why: string; for: 'server' | 'room' | 'sign-in' }
  /** The server answers and does not take it; tried again by itself all the same, at the longest pause. */
  | { kind: 'refused'; why: string }
  /** Deleted meanwhile: the drive, or the vehicle it belongs to. */
  | { kind: 'gone'; why: string; deleted: 'drive' | 'vehicle' };

/** Versions of a drive since a revision, or the drive as it is. */
export type Versions = Omit<PatchAnswer, 'clashes'>;

export interface SaverOptions {
  device: Device;
  draft: DraftStore;
  send: (patch: Patch) => Promise<PatchAnswer>;
  /** Reads what was done since a revision. */
  read: (after: number) => Promise<Versions>;
  /** Told what the drive is once others' changes are in it, and which versions these came by. */
  merged: (drive: Drive, versions: readonly Version[]) => void;
  /** Makes the drive this one as an edit of its own: a question was decided. */
  decided: (drive: Drive) => void;
  /** Since when somebody is at a field; null while nobody is. What others changed since they have not seen. */
  atFieldSince?: () => number | null;
  /** Told of each version that the server is known to have. */
  based?: (device: Device) => void;
  /** Time to gather edits before a save, ms. */
  gather?: number;
  /** Time after an edit in which nothing of others comes in, ms. */
  still?: number;
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
/** So many versions of others are looked at for what somebody at a field has not seen. */
const MOST_CAME = 100;
/** Nothing moves under hands that are at work: others' changes come in once an edit is so long ago, ms. */
const STILL_MS = 250;

/**
 * Saves one drive and takes in what others save, one request at a time. Every change is in the browser's draft before
 * `change` returns, where the browser can keep one, and stays there until the server has acknowledged it. A request
 * whose answer was lost is sent again as it was, before anything newer, so the server can tell it from another.
 */
export class DriveSaver {
  private state: SaveState = { kind: 'saved', at: null };
  private readonly listeners = new Listeners();
  private kept = true;
  private device: Device;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private hearing: ReturnType<typeof setTimeout> | undefined;
  private heard: Version[] = [];
  private came: { at: number; version: Version }[] = [];
  private underWay = false;
  private reading = false;
  private behind = false;
  private whole = false;
  private changedAt = -Infinity;
  private pause: number;

  constructor(private readonly options: SaverOptions) {
    this.device = options.device;
    this.pause = this.retry.first;
    if (isUnsent(this.device) || this.device.questions.length > 0) this.keep();
    if (isUnsent(this.device)) {
      this.state = SAVING;
      this.schedule(this.options.gather ?? GATHER_MS);
    }
  }

  private get retry() {
    return this.options.retry ?? { first: 800, max: 10_000 };
  }

  getState = (): SaveState => this.state;
  /** What two people changed and somebody has to decide, one and the same while nothing of it is another. */
  getQuestions = (): readonly Question[] => this.device.questions;
  /** True while something is not acknowledged yet. */
  isDirty = (): boolean => isUnsent(this.device);

  /** False while what is not acknowledged is in this page alone: the browser has no room for a draft, or forbids it. */
  isKept = (): boolean => this.kept || !this.isDirty();
  /** True while closing the page would lose something, or leave it behind where its owner may not look for it. */
  isAtRisk = (): boolean =>
    this.isDirty() && (!this.kept || (this.state.kind !== 'saving' && this.state.kind !== 'saved'));

  readonly subscribe = this.listeners.add;

  /** Takes a changed drive, and keeps it in this browser where that can be done. */
  change(document: Drive): void {
    this.changedAt = Date.now();
    const unseen = this.unseenBy(document);
    this.device = { ...this.device, present: document };
    if (unseen) this.becomes(unseen, []);
    this.keep();
    if (this.state.kind === 'gone') return;
    if (this.state.kind !== 'waiting') {
      this.set(SAVING);
      this.schedule(this.options.gather ?? GATHER_MS);
    }
  }

  /** What others changed under a field while somebody wrote in it is asked about, and stands until then. */
  private unseenBy(document: Drive): Device | null {
    const since = this.options.atFieldSince?.() ?? null;
    if (since === null) return null;
    const unseen = this.came.filter(({ at }) => at > since).map(({ version }) => version);
    return unseen.length === 0 ? null : overUnseen(this.device, document, unseen);
  }

  /** Tries now: the network is back, or the page is about to go. */
  nudge(): void {
    if (this.isDirty() && this.state.kind !== 'gone') this.schedule(0);
  }

  /** A version that somebody made, as it is told. */
  hear(version: Version): void {
    this.heard.push(version);
    this.listen();
  }

  /** Versions may have been missed: asks for what there is since. */
  catchUp(): void {
    this.behind = true;
    this.listen();
  }

  /** What the server lays over every drive may be another: the drive is read as it is now. */
  readAnew(): void {
    this.whole = true;
    this.catchUp();
  }

  /** Decides a question: mine stands, as a change of its own, or theirs does. */
  answer(id: string, whose: 'mine' | 'theirs'): void {
    const question = this.device.questions.find((open) => open.id === id);
    if (!question) return;
    const questions = this.device.questions.filter((open) => open !== question);
    this.device = { ...this.device, questions };
    // The question has shown what others made of it.
    this.came = [];
    if (whose === 'mine') this.options.decided(withMine(this.device.present, question.changes));
    this.keepOrClear();
    this.listeners.tell();
  }

  /** After the drive was deleted elsewhere and brought back: carries on saving. */
  revive(): void {
    if (this.state.kind !== 'gone') return;
    this.set(SAVING);
    this.schedule(0);
  }

  stop(): void {
    clearTimeout(this.timer);
    clearTimeout(this.hearing);
    this.listeners.clear();
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), ms);
  }

  private async send(): Promise<void> {
    if (this.underWay) return;
    const next = sending(this.device, newSaveId);
    if (!next?.sent) {
      if (!this.isDirty()) this.rest(null);
      return;
    }
    this.device = next;
    const { revision, saveId, changes } = next.sent;
    // Its name is kept before it goes: sent again by another page, it is the same save.
    this.keep();
    this.underWay = true;
    try {
      this.acknowledged(saveId, await this.options.send({ revision, saveId, changes }));
    } catch (error) {
      this.failed(error);
    } finally {
      this.underWay = false;
      this.listen();
    }
  }

  private acknowledged(saveId: string, answer: PatchAnswer): void {
    this.pause = this.retry.first;
    const after = answered(this.device, answer);
    if (!after) {
      // A version is missing, which the server is asked for; what went is acknowledged all the same.
      this.device = { ...this.device, sent: null };
      this.behind = true;
    } else
      this.becomes(
        after,
        (answer.since ?? []).filter((version) => version.saveId !== saveId),
      );
    if (this.isDirty()) {
      this.keep();
      this.set(SAVING);
      // What is still being dragged goes once it rests, as the first of it did; until then the draft has it.
      this.schedule(this.options.gather ?? GATHER_MS);
    } else this.rest(new Date(answer.updatedAt));
  }

  private rest(at: Date | null): void {
    this.keepOrClear();
    this.set({ kind: 'saved', at: at ?? (this.state.kind === 'saved' ? this.state.at : null) });
  }

  private failed(error: unknown): void {
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
    this.becomes(refused(this.device), []);
    if (error.status === 404)
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

  /** Takes in what was heard, once hands are still and nothing is under way. */
  private listen(): void {
    if (this.heard.length === 0 && !this.behind) return;
    const wait = this.changedAt + (this.options.still ?? STILL_MS) - Date.now();
    if (this.underWay || this.reading) return;
    clearTimeout(this.hearing);
    if (wait > 0) {
      this.hearing = setTimeout(() => this.listen(), wait);
      return;
    }
    // One that was sent and not answered is told first what became of it.
    if (this.device.sent) return;
    const versions = this.heard.sort((a, b) => a.revision - b.revision);
    this.heard = [];
    const taken: Version[] = [];
    let device = this.device;
    for (const version of versions) {
      const next = hears(device, version);
      if (!next) this.behind = true;
      else {
        if (next !== device) taken.push(version);
        device = next;
      }
    }
    if (device !== this.device) this.becomes(device, taken);
    if (this.behind) void this.read();
  }

  private async read(): Promise<void> {
    this.reading = true;
    this.behind = false;
    try {
      // No revision is as new as this: the drive itself is the answer.
      const { revision, since, document } = await this.options.read(this.whole ? 0 : this.device.revision);
      this.whole = false;
      if (document) this.becomes(caughtUp(this.device, revision, document), []);
      else this.heard.push(...(since ?? []));
    } catch {
      // Told again with the next version, or when the server is back.
    } finally {
      this.reading = false;
      this.listen();
    }
  }

  private becomes(device: Device, versions: readonly Version[]): void {
    const before = this.device;
    this.device = device;
    if (device.present !== before.present) this.options.merged(device.present, versions);
    if (device.base !== before.base) this.options.based?.(device);
    const now = Date.now();
    this.came = [...this.came, ...versions.map((version) => ({ at: now, version }))].slice(-MOST_CAME);
    if (device.questions !== before.questions || this.isDirty()) this.keep();
    if (device.questions !== before.questions) this.listeners.tell();
    if (isUnsent(device) && this.state.kind === 'saved') {
      this.set(SAVING);
      this.schedule(this.options.gather ?? GATHER_MS);
    }
  }

  /** A question is kept until it has an answer: mine is nowhere else. */
  private keepOrClear(): void {
    if (this.isDirty() || this.device.questions.length > 0) this.keep();
    else this.options.draft.clear();
  }

  private keep(): void {
    this.kept = this.options.draft.write({ kept: keptOf(this.device), at: new Date().toISOString() });
  }

  private set(state: SaveState): void {
    this.state = state;
    this.listeners.tell();
  }
}
