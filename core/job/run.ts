import type { ChangedWhy, KeptPicture } from '../drive';
import type { PlanChange } from './step';

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
  /** It came in after the sign-off, which stands as it was. */
  readonly late?: true;
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
/** What went on of a belt: a new one or the same again, its marking and number, why the old one came off. */
export interface BeltFitted {
  readonly fitted: 'new' | 'same';
  readonly why?: ChangedWhy;
  readonly number?: string;
  /** Its marking as read off it: what sort of belt it is. */
  readonly marking?: string;
}
/** Says something of it; what it leaves out stays as it was said before. */
export interface BeltEvent extends AnyEvent, Partial<BeltFitted> {
  readonly kind: 'belt';
  readonly belt: string;
}
/** So many more parts of that name used, or fewer, below zero. `stock`: the row of the shop's list. */
export interface PartEvent extends AnyEvent {
  readonly kind: 'part';
  readonly name: string;
  readonly count: number;
  readonly stock?: number;
}
/** Parts used, in all. */
export type PartUsed = Pick<PartEvent, 'name' | 'count' | 'stock'>;
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
/** A step of a plan that has changed since is taken over. */
export interface PlanEvent extends AnyEvent, PlanChange {
  readonly kind: 'plan';
}
export type JobEvent =
  TickEvent | NoteEvent | OdometerEvent | BeltEvent | PartEvent | PhotoEvent | TimerEvent | PlanEvent;

/** Where a job stands. */
export interface JobRun {
  /** Steps that are done, with when and by whom. */
  done: ReadonlyMap<string, { at: string; by: string }>;
  notes: NoteEvent[];
  odometer: number | null;
  belts: ReadonlyMap<string, BeltFitted>;
  parts: PartUsed[];
  photos: PhotoEvent[];
  /** What was taken over of a plan that changed, in order. */
  plan: PlanEvent[];
  /** Work so far, ms; and since when it runs now, where it does. */
  workedMs: number;
  runningSince: string | null;
  /** Ticks that came in after the sign-off. */
  late: TickEvent[];
  /** Everybody who had a hand in it, in the order in which they came. */
  people: string[];
}

/**
 * Where a job stands, from all that happened at it in the order in which it came in. One that came twice counts once;
 * of two that say different things of one step, reading or fact of a belt the later counts, and nothing else is
 * touched by it.
 */
export function runOf(events: readonly JobEvent[]): JobRun {
  const done = new Map<string, { at: string; by: string }>();
  const belts = new Map<string, BeltFitted>();
  const parts: PartUsed[] = [];
  const run = {
    late: [] as TickEvent[],
    notes: [] as NoteEvent[],
    photos: [] as PhotoEvent[],
    plan: [] as PlanEvent[],
    odometer: null as number | null,
  };
  let [workedMs, runningSince] = [0, null as string | null];
  const people = new Set<string>();
  const seen = new Set<string>();
  for (const event of events) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    if (event.by !== '') people.add(event.by);
    switch (event.kind) {
      case 'tick':
        if (event.late) run.late.push(event);
        else if (!event.done) done.delete(event.step);
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
        belts.set(event.belt, fittedNow(belts.get(event.belt), event));
        break;
      case 'part':
        use(parts, event);
        break;
      case 'photo':
        run.photos.push(event);
        break;
      case 'plan':
        run.plan.push(event);
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
  const used = parts.filter(({ count }) => count > 0);
  return { done, belts, parts: used, ...run, workedMs, runningSince, people: [...people] };
}

/** A belt of which nobody said otherwise is a new one. */
function fittedNow(before: BeltFitted | undefined, { fitted, why, number, marking }: BeltEvent): BeltFitted {
  return {
    fitted: 'new',
    ...before,
    ...(fitted !== undefined && { fitted }),
    ...(why !== undefined && { why }),
    ...(number !== undefined && { number }),
    ...(marking !== undefined && { marking }),
  };
}

/**
 * Two rows of the shop's list are two parts, though they have one name. One that nobody chose from the list goes with
 * the one of its name.
 */
function use(parts: PartUsed[], { name, count, stock }: PartEvent): void {
  const alike = parts.filter((part) => part.name === name);
  const same = alike.find((part) => part.stock === stock);
  const before = same ?? alike.find((part) => stock === undefined || part.stock === undefined);
  const shelf = stock ?? before?.stock;
  const now = { name, count: (before?.count ?? 0) + count, ...(shelf !== undefined && { stock: shelf }) };
  if (before) parts[parts.indexOf(before)] = now;
  else parts.push(now);
}
