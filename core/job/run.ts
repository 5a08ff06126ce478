import type { KeptPicture } from '../drive';

/** What everything that happens at a job says of itself. */
interface AnyEvent {
  /** Made where it happened; the same one sent twice is one. */
  readonly id: string;
  /** When, ISO 8601, by the clock of the device; and who. */
  readonly at: string;
  readonly by: string;
}
/** A step ticked off, or taken back. */
export interface TickEvent extends AnyEvent {
  readonly kind: 'tick';
  readonly step: string;
  readonly done: boolean;
}
/** A remark, on a step or on the whole job. */
export interface NoteEvent extends AnyEvent {
  readonly kind: 'note';
  readonly text: string;
  readonly step?: string;
}
export interface OdometerEvent extends AnyEvent {
  readonly kind: 'odometer';
  readonly odometer: number | null;
}
/** What went on of a belt: a new one with its number, or the same again. */
export interface BeltEvent extends AnyEvent {
  readonly kind: 'belt';
  readonly belt: string;
  readonly fitted: 'new' | 'same';
  readonly why?: 'worn' | 'broke' | 'in-passing';
  readonly number?: string;
}
/** Parts off the shelf, so many in all by that name; none takes them back. `stock`: the row of the shop's list. */
export interface PartEvent extends AnyEvent {
  readonly kind: 'part';
  readonly name: string;
  readonly count: number;
  readonly stock?: number;
}
export interface PhotoEvent extends AnyEvent {
  readonly kind: 'photo';
  readonly photo: KeptPicture;
  readonly step?: string;
}
/** The work goes on, or rests. */
export interface TimerEvent extends AnyEvent {
  readonly kind: 'timer';
  readonly running: boolean;
}
export type JobEvent = TickEvent | NoteEvent | OdometerEvent | BeltEvent | PartEvent | PhotoEvent | TimerEvent;

/** Where a job stands. */
export interface JobRun {
  /** Steps that are done, with when and by whom. */
  done: ReadonlyMap<string, { at: string; by: string }>;
  notes: NoteEvent[];
  odometer: number | null;
  belts: ReadonlyMap<string, BeltEvent>;
  parts: PartEvent[];
  photos: PhotoEvent[];
  /** Work so far, ms; and since when it runs now, where it does. */
  workedMs: number;
  runningSince: string | null;
  /** Everybody who had a hand in it, in the order in which they came. */
  people: string[];
}

/**
 * Where a job stands, from all that happened at it in the order in which it came in. One that came twice counts once;
 * of two that say different things of one step, belt or reading the later counts, and nothing else is touched by it.
 */
export function runOf(events: readonly JobEvent[]): JobRun {
  const done = new Map<string, { at: string; by: string }>();
  const belts = new Map<string, BeltEvent>();
  const parts = new Map<string, PartEvent>();
  const run = { notes: [] as NoteEvent[], photos: [] as PhotoEvent[], odometer: null as number | null };
  let [workedMs, runningSince] = [0, null as string | null];
  const people = new Set<string>();
  const seen = new Set<string>();
  for (const event of events) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    if (event.by !== '') people.add(event.by);
    switch (event.kind) {
      case 'tick':
        if (!event.done) done.delete(event.step);
        // Ticked by two, the first has done it.
        else if (!done.has(event.step)) done.set(event.step, { at: event.at, by: event.by });
        break;
      case 'note':
        run.notes.push(event);
        break;
      case 'odometer':
        run.odometer = event.odometer;
        break;
      case 'belt':
        belts.set(event.belt, event);
        break;
      case 'part':
        if (event.count > 0) parts.set(event.name, event);
        else parts.delete(event.name);
        break;
      case 'photo':
        run.photos.push(event);
        break;
      case 'timer':
        if (event.running) runningSince ??= event.at;
        else if (runningSince !== null) {
          workedMs += Math.max(0, Date.parse(event.at) - Date.parse(runningSince));
          runningSince = null;
        }
        break;
    }
  }
  return { done, belts, parts: [...parts.values()], ...run, workedMs, runningSince, people: [...people] };
}
