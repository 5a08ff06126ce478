import { array } from 'yup';
import * as is from './fields';

export const TAPE_KINDS = ['outer', 'gap', 'centre'] as const;
export type TapeKind = (typeof TAPE_KINDS)[number];
export type ReadingKind = TapeKind | 'angle' | 'x' | 'y';

interface AnyReading {
  readonly id: string;
  readonly to: string;
  /** One standard deviation in the reading's own unit, and the fit's ± means the same: one in, one out. */
  readonly plusMinus?: number;
  /** When it was read, ISO 8601. */
  readonly at?: string;
}
/** A tape: `outer` is far rim to far rim, `gap` near rim to near rim, `centre` centre to centre (bolt to bolt), mm. */
export interface TapeReading extends AnyReading {
  readonly kind: TapeKind;
  readonly from: string;
  readonly mm: number;
  readonly deg?: never;
}
/** The direction of the line from → to, degrees counter-clockwise from +x. */
export interface AngleReading extends AnyReading {
  readonly kind: 'angle';
  readonly from: string;
  readonly deg: number;
  readonly mm?: never;
}
/** How far `to` lies right of the crank, or above it, mm. */
export interface PlaceReading extends AnyReading {
  readonly kind: 'x' | 'y';
  readonly mm: number;
  readonly from?: never;
  readonly deg?: never;
}
/** One reading of the tape network. */
export type SurveyReading = TapeReading | AngleReading | PlaceReading;

const anyReading: is.Fields<AnyReading> = {
  id: is.named('id', is.id()),
  to: is.named('other end', is.id()),
  plusMinus: is.named('±', is.plusMinus()),
  at: is.named('date', is.text(40)),
};
const between = { ...anyReading, from: is.named('pulley it starts at', is.id()) };
const tape = { ...between, mm: is.named('reading', is.needed(is.size()), 'mm'), deg: is.ignored() };
const placed = {
  ...anyReading,
  mm: is.named('reading', is.needed(is.length()), 'mm'),
  from: is.ignored(),
  deg: is.ignored(),
};
const reading = is.variants<SurveyReading, 'kind'>(
  'kind',
  'kind',
  placed,
  {
    outer: tape,
    gap: tape,
    centre: tape,
    angle: { ...between, deg: is.named('reading', is.needed(is.angle()), '°'), mm: is.ignored() },
    x: placed,
    y: placed,
  },
  { order: ['id', 'kind', 'from', 'to'] },
);

export const DIAMETER_METHODS = ['calliper', 'across', 'around', 'step'] as const;
export type DiameterMethod = (typeof DIAMETER_METHODS)[number];

interface AnyDiameter {
  readonly id: string;
  readonly pulley: string;
  /** As it was read. */
  readonly mm: number;
  /** One standard deviation of the reading itself, mm. */
  readonly plusMinus?: number;
  readonly at?: string;
}
/** Read by calliper, by tape across the rim, or by tape around it (the circumference). */
export interface DirectDiameter extends AnyDiameter {
  readonly method: 'calliper' | 'across' | 'around';
  readonly of?: never;
}
/** The step from the rim of the sheave `of` down to this one, on one side. */
export interface SteppedDiameter extends AnyDiameter {
  readonly method: 'step';
  readonly of: string;
}
/** One reading of a pulley's diameter. */
export type DiameterReading = DirectDiameter | SteppedDiameter;

const anyDiameter: is.Fields<AnyDiameter> = {
  id: is.named('id', is.id()),
  pulley: is.named('pulley', is.id()),
  mm: is.named('reading', is.needed(is.size()), 'mm'),
  plusMinus: is.named('±', is.plusMinus(), 'mm'),
  at: is.named('date', is.text(40)),
};
const direct = { ...anyDiameter, of: is.ignored() };
const diameter = is.variants<DiameterReading, 'method'>(
  'method',
  'method',
  direct,
  {
    calliper: direct,
    across: direct,
    around: direct,
    step: { ...anyDiameter, of: is.named('sheave it steps down from', is.id()) },
  },
  { order: ['id', 'pulley', 'method', 'mm', 'plusMinus', 'of'] },
);

/** A point of a picture, px from its top left corner, y down. */
export type PicturePoint = readonly [x: number, y: number];

/** Points put round one pulley's rim. */
export interface PhotoRim {
  readonly pulley: string;
  readonly points: readonly PicturePoint[];
  /** The pulley's diameter is known and gives the scale; otherwise the picture tells it. */
  readonly known?: boolean;
}

/** Five times the widest picture. */
const MOST_PX = 100_000;
const isPoint = (value: unknown): value is PicturePoint =>
  Array.isArray(value) &&
  value.length === 2 &&
  value.every((part) => Number.isFinite(part) && Math.abs(part as number) <= MOST_PX);
/** By the thousand in a drive of many pictures, so each is looked at without a schema of its own. */
export const picturePoints = (max: number) =>
  array<object, PicturePoint>()
    .strict()
    .typeError('must be a list')
    .required('is missing: it must be a list')
    .max(max, `must have ${max} items at most`)
    .meta({ max, item: null } as object)
    .test('points', (value, { path, createError }) => {
      const wrong = value.length > max ? -1 : value.findIndex((point) => !isPoint(point));
      const bound = MOST_PX.toLocaleString('en');
      return (
        wrong < 0 ||
        createError({
          path: `${path}[${wrong}]`,
          message: `must be a point, [x, y] in px, each from −${bound} to ${bound}`,
        })
      );
    });
const rim = is.item<PhotoRim>({
  pulley: is.named('pulley', is.id()),
  points: is.named('points on the rim', picturePoints(200)),
  known: is.named('known diameter', is.yesOrNo()),
});

/** A picture that the server keeps. `hash` is the SHA-256 of the file. */
export interface KeptPicture {
  readonly hash: string;
  /** px. */
  readonly width: number;
  readonly height: number;
}
const side = () => is.needed(is.wholeNumber('a whole number of px', 20_000));
export const keptPicture: is.Fields<KeptPicture> = {
  hash: is.named(
    'picture itself',
    is.needed(is.text(64)).matches(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal'),
  ),
  width: is.named('width', side(), 'px'),
  height: is.named('height', side(), 'px'),
};

/** A picture of the drive. */
export interface SurveyPhoto extends KeptPicture {
  readonly id: string;
  /** From the lens to the crank's belt plane, mm, where it was measured. */
  readonly cameraDistance?: number;
  /**
   * The picture was cut down since it was taken, or was not; so its middle is not, or is, where the camera looked.
   */
  readonly cropped?: boolean;
  readonly rims?: readonly PhotoRim[];
}

const photo = is.item<SurveyPhoto>({
  id: is.named('id', is.id()),
  ...keptPicture,
  cameraDistance: is.named("camera's distance", is.length().moreThan(0, 'must be more than 0 mm'), 'mm'),
  cropped: is.named('cropped', is.yesOrNo()),
  rims: is.named('rims', is.optionalList(rim, 64)),
});

/** What was measured of a drive: tapes between pulleys, diameters, pictures. */
export interface Survey {
  readonly readings?: readonly SurveyReading[];
  readonly diameters?: readonly DiameterReading[];
  readonly photos?: readonly SurveyPhoto[];
}

export const survey = is.record<Survey>({
  readings: is.named('tapes', is.optionalList(reading, 400)),
  diameters: is.named('diameters', is.optionalList(diameter, 400)),
  photos: is.named('pictures', is.optionalList(photo, 24)),
});
