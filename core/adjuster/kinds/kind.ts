import { type Adjuster, type Belt, type Drive, moveStation, type Point, type Station } from '../../drive';

/**
 * How a shaft is moved to tighten a belt. A fraction of the travel runs from 0, the end where the belt is slackest to
 * slip on (a sprung arm's `fullAngle`), to 1, the end the belt is tightened toward (its `freeAngle`).
 */
export interface Travel {
  station: string;
  kind: Adjuster['kind'];
  /** The drive with the shaft (or the split sheave) at that fraction of the travel. */
  at: (fraction: number) => Drive;
  /** What a mechanic reads there: the arm's angle in degrees, or mm of travel from the slack end. */
  readingAt: (fraction: number) => number;
  reads: 'armAngle' | 'travel';
  /** Shares of a sprung arm's marks. */
  marks: { short: number; long: number } | null;
  /** Where the shaft stands now. */
  now: number;
}

/** Fields of an adjuster that hold a value of one type. */
type FieldsOf<A, Value> = { [K in keyof A]-?: Required<A>[K] extends Value ? K : never }[keyof A] & string;

/** What is asked of one kind, in the order in which a mechanic measures it. */
export interface Asked<A> {
  places?: readonly (readonly [field: FieldsOf<A, Point>, label: string])[];
  lengths?: readonly (readonly [field: FieldsOf<A, number>, label: string])[];
  angles?: readonly (readonly [field: FieldsOf<A, number>, label: string])[];
  figures?: readonly (readonly [field: FieldsOf<A, number>, label: string, unit: string])[];
  /** Lists of thicknesses: the label of the n-th, and the button that adds one. */
  thicknesses?: readonly (readonly [
    field: FieldsOf<A, readonly number[]>,
    label: (n: number) => string,
    more: string,
  ])[];
  /** Whether pivot and arm can be found from three places of the shaft. */
  fromThreePlaces?: boolean;
}

/** How a hand gets a belt from one tension to another by it. */
export interface HandSetting<A> {
  /** Of its threads, mm a turn each; none where it has no thread. `given`: read off the part, not a default. */
  pitches: (adjuster: A) => { mm: readonly number[]; given: boolean } | null;
  /** The same adjuster with threads of these pitches. */
  withPitches: (adjuster: A, pitches: readonly number[]) => A;
  /** Whether a pry bar holds it while it is set. */
  barred: boolean;
  /** Whether it is counted in turns of its thread first, and in mm beside that. */
  inTurns: boolean;
  /** What a mm of it is called: `A mm of travel changes the tension by 30 N`. */
  mmOf: string;
  /** Thicknesses that are taken out one by one, mm. */
  shims: (adjuster: A) => readonly number[] | null;
}

/** What a job card says of it. `station` is the name of the shaft that it moves. */
export interface AdjusterSteps {
  /** `arm`: turned and held while the belt goes on or off. `halves`: taken apart. `move`: slackened, moved, set. */
  way: 'arm' | 'halves' | 'move';
  /** The bolts that hold it where none is written down: as they are slackened, and as they are tightened. */
  boltsOff: (station: string) => string;
  boltsOn: (station: string) => string;
  /** What is moved where the drawing shows the way it goes, and where it does not. */
  moves: { verb: 'Swing' | 'Move' | 'Turn the link of'; what: (station: string) => string } | null;
}

/**
 * All that Emery knows of one kind of adjuster, besides its fields in the file (`drive/station.ts`). A kind that says
 * less does not compile, and none is asked for by name where one of these answers.
 */
export interface AdjusterKind<A extends Adjuster> {
  /** As it is chosen. */
  label: string;
  /** Said beside its fields. */
  caution: string | null;
  /** One with starting figures about where the shaft stands, to be measured over. */
  start: (shaft: Point) => A;
  /** Null where its figures leave it no way to go, or where nothing moves. */
  travel: (drive: Drive, station: Station, adjuster: A, belt: Belt) => Travel | null;
  /** Whether the file says which end is the slack one; else it is the one with the shorter path. */
  slackEndGiven: boolean;
  /**
   * What moves on the drawing: the shaft; the shaft, whose travel begins where it stands, so that moving it for good
   * would move its ends; the belt alone; or nothing.
   */
  moves: 'shaft' | 'shaft-from-here' | 'belt' | 'nothing';
  asked: Asked<A>;
  /** Null for one that is not set by hand. */
  setting: HandSetting<A> | null;
  /** Null for one that tightens nothing. */
  steps: AdjusterSteps | null;
}

/** The travel of a shaft over a way of so many mm, read from its slack end. */
export const shaftTravel = (
  { id }: Station,
  { kind }: Adjuster,
  lengthMm: number,
  more: Pick<Travel, 'at' | 'now'>,
): Travel => ({
  station: id,
  kind,
  reads: 'travel',
  readingAt: (fraction) => lengthMm * fraction,
  marks: null,
  ...more,
});

/** The drive with the shaft at another place. */
export const shaftAt = (drive: Drive, { id }: Station, { x, y }: Point): Drive => moveStation(drive, id, x, y);

export const lerp = (from: number, to: number, fraction: number) => from + (to - from) * fraction;
/** Starting figures are round. */
export const roundTenth = (value: number) => Math.round(value * 10) / 10;
/** A pivot below a shaft, to start from. */
export const pivotBelow = ({ x, y }: Point): Point => ({ x: roundTenth(x), y: roundTenth(y - 80) });

/** Of a screw M10 and of a link with an M10 at either end, mm a turn. A default. */
export const DEFAULT_PITCH_MM = 1.5;
/** The setting of one that a screw moves, where it has one, and a bar holds. */
export const byScrewOrBar = <A extends { readonly pitches?: readonly number[] }>(): HandSetting<A> => ({
  pitches: ({ pitches }) => ({ mm: pitches ?? [DEFAULT_PITCH_MM], given: pitches !== undefined }),
  withPitches: (adjuster, pitches) => ({ ...adjuster, pitches }),
  barred: true,
  inTurns: false,
  mmOf: 'travel',
  shims: () => null,
});
