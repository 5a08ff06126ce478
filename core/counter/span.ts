import { type Belt, newBelt, newDrive, type TensionWay } from '../drive';
import {
  type CannotTell,
  combineReadings,
  type CombinedTension,
  defaultSetting,
  type Meaning,
  meaningOnSpan,
  newBeltAt,
  type NewBeltFigures,
  readsOf,
  spanOf,
  type SpanReading,
  type SpanReads,
} from '../tension';

export interface SpanAsk {
  section: string;
  ribs?: number;
  spanMm: number;
  /** A sprung arm holds the belt: a push moves the arm, and tells nothing. */
  armHolds: boolean;
  readings: readonly SpanReading[];
  /** What the belt is to stand at once it has run in, N, where somebody knows. */
  aimN?: number;
}

export interface SpanAnswer {
  /** What each reading says, in their order: a tension with its doubt, or why it tells nothing. */
  meanings: { way: Exclude<TensionWay, 'pointer'>; meaning: Meaning | CannotTell }[];
  /** All of them together; null where none tells anything. */
  measured: CombinedTension | null;
  /** What the belt is to stand at, and whether that is Emery's default for its section. */
  settings: NewBeltFigures;
  defaultAim: boolean;
  /** What every check would read on this span: as it was measured, on a new belt, and once it has run in. */
  reads: { measured: SpanReads | null; fresh: SpanReads; runIn: SpanReads; again: SpanReads };
}

/** One span's tension by every school, and what each reads at the settings. */
export function spanTension({ section, ribs, spanMm, armHolds, readings, aimN }: SpanAsk): SpanAnswer {
  const belt: Belt = { ...newBelt(newDrive(''), section), ...(ribs !== undefined && { ribs }) };
  const span = spanOf(belt, spanMm, armHolds);
  const meanings = readings.map((reading) => ({
    way: reading.way,
    meaning: meaningOnSpan(belt, span, armHolds, reading),
  }));
  const measured = combineReadings(
    meanings.flatMap(({ way, meaning }) => (typeof meaning === 'string' ? [] : [{ way, meaning }])),
  );
  const settings = newBeltAt(aimN ?? defaultSetting(belt));
  const at = (newtons: number) => readsOf(span, newtons);
  return {
    meanings,
    measured,
    settings,
    defaultAim: aimN === undefined,
    reads: {
      measured: measured && at(measured.at),
      fresh: at(settings.setN),
      runIn: at(settings.runInN),
      again: at(settings.againBelowN),
    },
  };
}
