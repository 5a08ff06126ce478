import { defaultSetting } from '../adjuster';
import type { Belt, TensionWay } from '../drive';
import { newBeltAt, type NewBeltFigures } from '../loads';
import {
  type CannotTell,
  combineReadings,
  type CombinedTension,
  type Meaning,
  meaningOnSpan,
  readsOf,
  spanOf,
  type SpanReading,
  type SpanReads,
} from '../tension';
import { askedBelt } from './asked-belt';
import { type Drivable, settingFor, settingRange } from './what-it-drives';

export interface SpanAsk {
  section: string;
  ribs?: number;
  spanMm: number;
  /** A sprung arm holds the belt: a push moves the arm, and tells nothing. */
  armHolds: boolean;
  readings: readonly SpanReading[];
  /** What the belt is to stand at once it has run in, N, where somebody knows. */
  aimN?: number;
  /** What it drives, where somebody said. */
  drives?: readonly Drivable[];
}

export interface SpanAnswer {
  /** What each reading says, in their order: a tension with its doubt, or why it tells nothing. */
  meanings: { way: Exclude<TensionWay, 'pointer'>; meaning: Meaning | CannotTell }[];
  /** All of them together; null where none tells anything. */
  measured: CombinedTension | null;
  /**
   * What the belt is to stand at: by the figure that was given, else by default loads of what it drives; and where
   * nobody said that, the least that such a belt is set to, with the most of it in `most`.
   */
  settings: NewBeltFigures;
  most: NewBeltFigures | null;
  from: 'given' | 'drives' | 'range' | 'default';
  /** What every check would read on this span: as it was measured, on a new belt, and once it has run in. */
  reads: SpanSettingReads & { measured: SpanReads | null; most: SpanSettingReads | null };
}

/** What every check reads at the three settings of a new belt. */
export interface SpanSettingReads {
  fresh: SpanReads;
  runIn: SpanReads;
  again: SpanReads;
}

/** One span's tension by every school, and what each reads at the settings. */
export function spanTension({ section, ribs, spanMm, armHolds, readings, aimN, drives = [] }: SpanAsk): SpanAnswer {
  const belt = askedBelt(section, ribs);
  const span = spanOf(belt, spanMm, armHolds);
  const meanings = readings.map((reading) => ({
    way: reading.way,
    meaning: meaningOnSpan(belt, span, armHolds, reading),
  }));
  const measured = combineReadings(
    meanings.flatMap(({ way, meaning }) => (typeof meaning === 'string' ? [] : [{ way, meaning }])),
  );
  const { settings, most, from } = settingsOf(belt, aimN, drives);
  const at = ({ setN, runInN, againBelowN }: NewBeltFigures): SpanSettingReads => ({
    fresh: readsOf(span, setN),
    runIn: readsOf(span, runInN),
    again: readsOf(span, againBelowN),
  });
  return {
    meanings,
    measured,
    settings,
    most,
    from,
    reads: { measured: measured && readsOf(span, measured.at), ...at(settings), most: most && at(most) },
  };
}

/** The loads decide what a belt is set to. Where nobody said them there is a range, and not a figure. */
function settingsOf(
  belt: Belt,
  aimN: number | undefined,
  drives: readonly Drivable[],
): Pick<SpanAnswer, 'settings' | 'most' | 'from'> {
  if (aimN !== undefined) return { settings: newBeltAt(aimN), most: null, from: 'given' };
  const said = drives.length > 0 ? settingFor(belt, drives) : null;
  if (said) return { settings: said, most: null, from: 'drives' };
  const range = settingRange(belt);
  return range
    ? { settings: range.min, most: range.max, from: 'range' }
    : { settings: newBeltAt(defaultSetting(belt)), most: null, from: 'default' };
}
