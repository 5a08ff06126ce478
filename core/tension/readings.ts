import { armTension, armTorque, type Travel, travelOf } from '../adjuster';
import type { Belt, Drive, TensionReading, TensionWay } from '../drive';
import { againstTheOthers, type Figure, weightedMean, besideAngle } from '../numeric';
import { N_PER_KGF, N_PER_LBF } from '../quantity';
import { massOf, type StaticBelt } from '../loads';
import { DEFAULT_HAND, type Hand, type SpanFigures, spanFigures, tensionOfPluck } from './ways';

/** Why a school tells nothing on this drive or span. */
export type CannotTell = 'arm-yields' | 'no-arm' | 'no-span' | 'span-short' | 'no-figure' | 'too-slack';

/** One standard deviation of what is read, by way, where the reading does not say. Defaults. */
const READ = {
  pushMm: 0.5,
  pushShare: 0.05,
  freePlayMm: 0.7,
  twistDegrees: 7,
  gaugeShare: 0.08,
  pluckShare: 0.01,
  pointerDegrees: 1.5,
} as const;
/** Of a metre of belt nobody weighed, and of a weighed one; as a fraction. Defaults. */
const MASS_SHARE = { default: 0.08, weighed: 0.02 } as const;
/** Stiffness of the cords against the default, as a fraction. A default. */
const STIFFNESS_SHARE = 0.2;
/** Friction holds so much of an arm's spring back, either way. A default. */
export const ARM_FRICTION = 0.12;
/** A span shorter than this is too short to push, twist or hear well, mm. */
const SHORT_SPAN_MM = 60;

/** What a reading means. */
export interface Meaning {
  tensionN: number;
  /** One standard deviation, N: what the reading scatters by, and what all of its school share on this belt. */
  scatterN: number;
  sharedN: number;
}

/** Whether a school tells the tension of a span at all; null where it does. */
export function cannotTell({ arm }: StaticBelt, way: TensionWay, lengthMm: number | null): CannotTell | null {
  if (way === 'pointer') return arm === null ? 'no-arm' : null;
  return lengthMm === null ? 'no-span' : spanCannotTell(way, lengthMm, arm !== null);
}

/** The same of a span whose belt a sprung arm holds, or does not. */
function spanCannotTell(way: TensionWay, lengthMm: number, armHolds: boolean): CannotTell | null {
  if (armHolds && (way === 'push' || way === 'free-play')) return 'arm-yields';
  return lengthMm < SHORT_SPAN_MM && way !== 'gauge' ? 'span-short' : null;
}

/** A reading on a span; a pointer tells of an arm, not of a span. */
export type SpanReading = Exclude<TensionReading, { way: 'pointer' }>;

/** What a reading on a span means, whatever drive it is on; or why it tells nothing. */
export function meaningOnSpan(
  belt: Belt,
  span: SpanFigures,
  armHolds: boolean,
  reading: SpanReading,
  hand: Hand = DEFAULT_HAND,
): Meaning | CannotTell {
  const why = spanCannotTell(reading.way, span.lengthMm, armHolds);
  if (why) return why;
  const means = READERS[reading.way](span, reading as never, hand, belt);
  if (!means) return 'no-figure';
  return means.tensionN > 0 ? means : 'too-slack';
}

/** What a reading of a belt's tension means, N, with ±; or why it tells nothing. */
export function meaningOf(
  drive: Drive,
  standing: StaticBelt,
  reading: TensionReading,
  hand: Hand = DEFAULT_HAND,
): Meaning | CannotTell {
  const index = standing.spans.findIndex(({ from, to }) => from === reading.span?.from && to === reading.span.to);
  const span = index < 0 ? null : spanFigures(standing, index);
  const why = cannotTell(standing, reading.way, span?.lengthMm ?? null);
  if (why) return why;
  if (reading.way === 'pointer') return byPointer(drive, standing, reading);
  return meaningOnSpan(standing.belt, span!, standing.arm !== null, reading, hand);
}

type Reader<W extends TensionWay> = (
  span: SpanFigures,
  reading: Extract<TensionReading, { way: W }>,
  hand: Hand,
  belt: Belt,
) => Meaning | null;

/** The tension behind a push, and what a mm, and a newton, of it are worth. */
function ofPush({ lengthMm, stiffness }: SpanFigures, newtons: number, mm: number) {
  const lean = mm / lengthMm;
  const stretch = 2 * stiffness * lean ** 2;
  const tensionN = newtons / (4 * lean) - stretch;
  return { tensionN, perMm: (newtons / (4 * lean) + 2 * stretch) / mm, perN: 1 / (4 * lean), stretch };
}

const READERS: { [W in Exclude<TensionWay, 'pointer'>]: Reader<W> } = {
  push: (span, { newtons, mm, plusMinus = READ.pushMm }) => {
    if (newtons === undefined || mm === undefined) return null;
    const { tensionN, perMm, perN, stretch } = ofPush(span, newtons, mm);
    return {
      tensionN,
      scatterN: Math.hypot(perMm * plusMinus, perN * newtons * READ.pushShare),
      sharedN: STIFFNESS_SHARE * stretch,
    };
  },
  'free-play': (span, { mm, newtons, plusMinus = READ.freePlayMm }, hand) => {
    if (mm === undefined) return null;
    const { tensionN, perMm, perN, stretch } = ofPush(span, newtons ?? hand.thumbN, mm);
    const thumb = newtons === undefined ? hand.thumbPlusMinusN : newtons * READ.pushShare;
    return { tensionN, scatterN: perMm * plusMinus, sharedN: Math.hypot(perN * thumb, STIFFNESS_SHARE * stretch) };
  },
  twist: ({ lengthMm, widthMm, twistStiffness }, { degrees, nm, plusMinus = READ.twistDegrees }, hand) => {
    if (degrees === undefined) return null;
    // M = (T·b²/12 + G·J)·(2φ)/(L/2), solved for T.
    const stiffness = ((nm ?? hand.twistNm) * 1000 * (lengthMm / 2)) / ((2 * degrees * Math.PI) / 180);
    const perWhole = 12 / widthMm ** 2;
    const doubt = nm === undefined ? hand.twistPlusMinusNm / hand.twistNm : READ.pushShare;
    return {
      tensionN: (stiffness - twistStiffness) * perWhole,
      scatterN: (stiffness * perWhole * plusMinus) / degrees,
      sharedN: Math.hypot(stiffness * perWhole * doubt, 0.5 * twistStiffness * perWhole),
    };
  },
  gauge: (_span, { newtons, kgf, lbf, plusMinus }) => {
    const scale = kgf !== undefined ? N_PER_KGF : N_PER_LBF;
    const unit = newtons !== undefined ? 1 : scale;
    const shown = newtons ?? kgf ?? lbf;
    if (shown === undefined) return null;
    const tensionN = shown * unit;
    return { tensionN, scatterN: plusMinus === undefined ? READ.gaugeShare * tensionN : plusMinus * unit, sharedN: 0 };
  },
  pluck: (span, { hz, plusMinus }, _hand, belt) => {
    if (hz === undefined) return null;
    const tensionN = tensionOfPluck(span, hz);
    const share = massOf(belt).weighed ? MASS_SHARE.weighed : MASS_SHARE.default;
    return { tensionN, scatterN: (2 * tensionN * (plusMinus ?? READ.pluckShare * hz)) / hz, sharedN: share * tensionN };
  },
};

/** What the arm's spring holds where its pointer stands; its friction is shared by all readings of it. */
function byPointer(drive: Drive, { belt }: StaticBelt, reading: Extract<TensionReading, { way: 'pointer' }>) {
  const { degrees, plusMinus = READ.pointerDegrees, turned } = reading;
  if (degrees === undefined) return 'no-figure';
  const at = (angle: number) => pointerTension(drive, belt, angle);
  const tensionN = at(degrees);
  if (tensionN === null) return 'no-arm';
  const step = (at(degrees + plusMinus) ?? tensionN) - (at(degrees - plusMinus) ?? tensionN);
  return {
    tensionN,
    scatterN: Math.max(Math.abs(step) / 2, 0.005 * tensionN),
    // Turned both ways, half of each, friction is out of the mean; a single reading has all of it.
    sharedN: tensionN * (turned === undefined ? ARM_FRICTION : ARM_FRICTION / 2),
  };
}

/** A pointer's angle as the arm's travel counts it: 350° beside −12° is −10°. */
export function pointerAsSwung({ readingAt }: Pick<Travel, 'readingAt'>, degrees: number): number {
  return besideAngle(degrees, (readingAt(0) + readingAt(1)) / 2);
}

/** The fraction of an arm's travel at which its pointer stands at an angle, degrees. */
export function fractionOfPointer(travel: Pick<Travel, 'readingAt'>, degrees: number): number {
  const [full, free] = [travel.readingAt(0), travel.readingAt(1)];
  return (pointerAsSwung(travel, degrees) - full) / (free - full);
}

/** What an arm's spring holds its belt with at a pointer angle, degrees; null where it cannot be told. */
export function pointerTension(drive: Drive, belt: Belt, degrees: number): number | null {
  const travel = travelOf(drive, belt);
  const station = travel && drive.stations.find(({ id }) => id === travel.station);
  if (travel?.kind !== 'sprung-arm' || !station || armTorque(station, degrees) === null) return null;
  return armTension(drive, belt, { travel }, fractionOfPointer(travel, degrees));
}

/** All readings of a belt that tell something, as one figure. */
export interface CombinedTension extends Figure {
  /** What each school comes to, with its own doubt. */
  schools: (Figure & { way: TensionWay; readings: number; apart: number | null })[];
  /** True where the schools contradict one another by more than their doubt allows. */
  disagree: boolean;
}

/** Schools further apart than this from the others contradict them, in standard deviations. */
const APART = 2.5;

/**
 * One tension out of several readings. Readings of one school share its doubt (one thumb, one mass), so that many of
 * them are no surer than that; schools are independent of one another. Null where no reading tells anything.
 */
export function combineReadings(meanings: readonly { way: TensionWay; meaning: Meaning }[]): CombinedTension | null {
  const ways = [...new Set(meanings.map(({ way }) => way))];
  const schools = ways.map((way) => {
    const own = meanings.filter((meaning) => meaning.way === way).map(({ meaning }) => meaning);
    const { at, sigma } = weightedMean(
      own.map(({ tensionN, scatterN }) => ({ at: tensionN, sigma: Math.max(scatterN, 0.1) })),
    );
    const shared = Math.max(...own.map(({ sharedN }) => sharedN));
    // Readings that scatter by more than they should say so in their mean.
    const spread = own.reduce(
      (sum, { tensionN, scatterN }) => sum + ((tensionN - at) / Math.max(scatterN, 0.1)) ** 2,
      0,
    );
    const stretch = Math.max(1, Math.sqrt(spread / Math.max(1, own.length - 1)));
    return { way, at, sigma: Math.hypot(sigma * stretch, shared), readings: own.length };
  });
  if (schools.length === 0) return null;
  const apart = againstTheOthers(schools);
  const disagree = apart.some((sigmas) => sigmas !== null && Math.abs(sigmas) > APART);
  const mean = weightedMean(schools);
  // Contradicting schools make no surer figure than the gap between them.
  const chi = schools.reduce((sum, school) => sum + ((school.at - mean.at) / school.sigma) ** 2, 0);
  const stretch = schools.length > 1 ? Math.max(1, Math.sqrt(chi / (schools.length - 1))) : 1;
  return {
    at: mean.at,
    sigma: mean.sigma * stretch,
    schools: schools.map((school, k) => ({ ...school, apart: apart[k]! })),
    disagree,
  };
}

/** What a person's thumb or twist is, from a check on a belt of known tension; ± from the reading alone. */
export function calibrated(
  span: SpanFigures,
  knownN: number,
  check: { way: 'free-play'; mm: number } | { way: 'twist'; degrees: number },
): { value: number; plusMinus: number } {
  if (check.way === 'free-play') {
    const lean = check.mm / span.lengthMm;
    const value = 4 * knownN * lean + 8 * span.stiffness * lean ** 3;
    return { value, plusMinus: Math.hypot((value * READ.freePlayMm) / check.mm, 0.1 * value) };
  }
  const turn = (check.degrees * Math.PI) / 180;
  const value = (((knownN * span.widthMm ** 2) / 12 + span.twistStiffness) * 2 * turn) / (span.lengthMm / 2) / 1000;
  return { value, plusMinus: Math.hypot((value * READ.twistDegrees) / check.degrees, 0.1 * value) };
}
