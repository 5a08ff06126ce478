import { type Drive, LAY_WORDS, stationLabel } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { formatLength, type LengthUnit, fixed } from '../quantity';
import type { Candidate, Contradicting, PuttingOn, SizeFinding, Verdict } from '../seating';
import type { MeasuredLength } from './measured';

/** What each verdict is called. */
export const VERDICT_WORDS: Record<Verdict, string> = {
  fits: 'fits',
  tight: 'tight',
  slack: 'slack',
  'will-not-go-on': 'will not go on',
  'out-of-travel': 'out of travel',
  rubs: 'rubs',
  'not-known': 'not known yet',
};

/** What is open about how a string lay, or what the other witnesses say of it; null where nothing is. */
export function layNote(
  { lay, layTold, eitherWay }: MeasuredLength,
  said: boolean,
  unit: LengthUnit,
): FindingWords | null {
  if (eitherWay !== null)
    return {
      title: `${formatLength(eitherWay.groove, unit)} or ${formatLength(eitherWay.rim, unit)}: how it lay is not known.`,
      why: `The first if it lay ${LAY_WORDS.groove}, the second if ${LAY_WORDS.rim}. The ± covers both.`,
      todo: 'Choose how it lay.',
    };
  if (!layTold || lay === null) return null;
  const other = lay === 'groove' ? 'rim' : 'groove';
  return said
    ? {
        title: `Entered as ${LAY_WORDS[lay]}.`,
        why: `The drawing and the other measurements fit ${LAY_WORDS[other]}.`,
        todo: 'Measure it once more and look.',
      }
    : {
        title: `Taken as ${LAY_WORDS[lay]}.`,
        why: 'Only that way does it agree with the drawing and any other measurement.',
        todo: 'Choose how it lay.',
      };
}

/** One sentence on how a belt would sit. */
export function candidateSentence(
  candidate: Candidate,
  adjuster: 'arm' | 'other' | 'none',
  unit: LengthUnit = 'mm',
): string {
  const { verdict, position, reserveMm, tensionN } = candidate;
  const length = (mm: number) => formatLength(Math.abs(mm), unit);
  const fraction = `${Math.round(100 * (position ?? 0))} %`;
  const newtons = tensionN === null ? '' : ` Static tension ${Math.round(tensionN)} N.`;
  switch (verdict) {
    case 'fits':
      if (adjuster === 'none') return `Goes on stretched by ${length(reserveMm)}.`;
      return adjuster === 'arm'
        ? `At ${fraction} of the way from the short mark; ${length(reserveMm)} left to the long mark.`
        : `Taut at ${fraction} of the travel; ${length(reserveMm)} left to tighten.`;
    case 'tight':
      return adjuster === 'none'
        ? `Too tight on fixed centres.${newtons} Take the next size up.`
        : 'Goes on, but the pointer is short of the short mark. Take the next size up.';
    case 'slack':
      if (adjuster === 'none') return `Too loose on fixed centres.${newtons} Take the next size down.`;
      return `${length(reserveMm)} past the long mark. Take the next size down.`;
    case 'will-not-go-on':
      return adjuster === 'none'
        ? 'Too short: it would have to stretch by more than such a belt does, a default.'
        : 'Too short to slip on with the adjuster at its slack end.';
    case 'out-of-travel':
      return adjuster === 'none'
        ? `${length(reserveMm)} too long, and nothing takes it up.`
        : `${length(reserveMm)} longer than the adjuster can take up.`;
    case 'rubs':
      return 'Would fit, but a span rubs there. See the clearance.';
    case 'not-known':
      return 'Not known until the drive says how this belt is tightened.';
  }
}

/** How a sprung arm is let go, with the caution that goes with it. */
export function releaseWords(drive: Drive, { station, turn }: NonNullable<PuttingOn['release']>): string {
  const name = stationLabel(drive.stations.find(({ id }) => id === station)!);
  return `Release: turn the arm of ${name} ${turn === 'ccw' ? 'counter-clockwise' : 'clockwise'}. It snaps back: keep fingers out, and let it return slowly.`;
}

type Length = (mm: number) => string;

const newtons = (force: number) => `${Math.round(force)} N`;
const setTo = ({ byLoads, setN }: { byLoads: number; setN: number }) =>
  byLoads
    ? `This drive’s loads need ${newtons(setN)} on a new belt (defaults where none were entered).`
    : `A new belt like this is set to ${newtons(setN)}, a default.`;

/** A chance as people say it, the figure beside it. */
const inWords = (chance: number) => `${Math.round(100 * Math.min(0.99, chance))} %`;
function contradicting({ what, lengthMm }: Contradicting, length: Length): string {
  if (what === 'label') return `the belt marked ${length(lengthMm)} is not of that length`;
  return what === 'drawing' ? 'the drawing is wrong' : 'a measured length is wrong';
}
function contradictingTitle(figures: Contradicting, length: Length): string {
  const text = contradicting(figures, length);
  return `${text[0]!.toUpperCase()}${text.slice(1)}, ${inWords(figures.chance)} likely.`;
}
const CONTRADICTING_TODO: Record<Contradicting['what'], string> = {
  label: 'Lay a tape round that belt before you try it again.',
  measurement: 'Measure the length again.',
  drawing: 'Check diameters and positions under Survey.',
};

const SIZE_WORDS: WordsByCode<SizeFinding, Length> = {
  'no-adjuster': ({ figures: { lengthMm } }, length) => ({
    title: 'No adjuster given yet, so no length can be chosen.',
    why: `${lengthMm > 0 ? `The drawn length is ${length(lengthMm)}. ` : ''}No pulley on this belt has an adjuster.`,
    todo: 'Give the shaft that tightens it an adjuster, or mark the centres as fixed.',
  }),
  'no-path': () => ({
    title: 'The belt has no path here.',
    why: 'As drawn, or at an end of the travel, the belt cannot run this route, or the adjuster swings clear of it.',
    todo: 'Correct the route, the pivot and the angles first.',
  }),
  'past-best-push': ({ figures: { at, lengthMm } }, length) => ({
    title: 'The adjuster passes its longest path.',
    why: `The path is longest at ${fixed(at, 1)}, inside the travel: ${length(lengthMm)}. Beyond it, moving on slackens the belt.`,
    todo: 'Belts are sized for the near side of it. Check pivot, arm and angles.',
  }),
  'lets-go': ({ figures: { at, lengthMm } }, length) => ({
    title: 'The roller swings past the belt.',
    why: `From ${fixed(at, 0)}° on it no longer holds the belt; ${length(lengthMm)} is the longest it keeps taut.`,
    todo: 'Check pivot, arm length and angles; the arm must stop before that.',
  }),
  'window-outside': () => ({
    title: 'The marks lie outside the travel.',
    why: 'The pointer cannot reach them.',
    todo: 'Measure the angles of marks and stops again.',
  }),
  'marks-swapped': () => ({
    title: 'The marks are the wrong way round.',
    why: 'The short mark lies nearer the end the arm is pulled back to.',
    todo: 'Swap their angles, or measure them again.',
  }),
  'past-end': () => ({
    title: 'The adjuster is drawn past the end of its travel.',
    why: 'A stop, the slot or the safe thread ends before that.',
    todo: 'Measure its position and its ends again.',
  }),
  'past-mark': ({ figures: { long } }) => ({
    title: `The pointer is drawn past the ${long ? 'long' : 'short'} mark.`,
    why: long ? 'The belt on it is too long, or worn out.' : 'The belt on it is too short.',
    todo: 'See which length below sits between the marks.',
  }),
  'little-reserve': ({ figures: { reserveMm, wantedMm } }, length) => ({
    title: `Only ${length(reserveMm)} is left for seating and stretch.`,
    why: `Emery looks for ${length(wantedMm)}, a default.`,
    todo: 'A size down would last longer.',
  }),
  'uses-most': ({ figures: { share } }) => ({
    title: `It is taut only at ${Math.round(100 * share)} % of the travel.`,
    why: 'More than half the travel is used before the belt is taut.',
    todo: 'Take a size down if one goes on.',
  }),
  'over-shaft': ({ figures: { tensionN, limitN } }) => ({
    title: `${newtons(tensionN)} static tension is more than a bearing on this belt carries.`,
    why: `The hub load would exceed ${newtons(limitN)}, the bearing load limit entered or a default.`,
    todo: 'Take the next size up.',
  }),
  'over-setting': ({ figures }) => ({
    title: `${newtons(figures.tensionN)} static tension is too tight.`,
    why: `${setTo(figures)} Half as much load again leaves a third of the bearing life.`,
    todo: 'Take the next size up.',
  }),
  'under-setting': ({ figures }) => ({
    title: `${newtons(figures.tensionN)} static tension is too loose.`,
    why: `${setTo(figures)} Fixed centres cannot be set again.`,
    todo: 'Take the next size down.',
  }),
  'two-adjusters': () => ({
    title: 'Two shafts could tighten this belt.',
    why: 'Both have an adjuster and no other belt needs either.',
    todo: 'Choose which one tightens it, under the adjuster.',
  }),
  'tried-unread': ({ figures: { marking, section } }) => ({
    title: `The marking “${marking}” of a belt tried on cannot be read.`,
    why: `It is no marking of a ${section} belt, so nothing is learned from it.`,
    todo: 'Enter the length of that belt instead.',
  }),
  'tried-contradicts': ({ figures }, length) => ({
    title: contradictingTitle(figures, length),
    why: `The belts tried on cannot all be right with the drawing and the measured lengths.${
      figures.or && figures.or.chance > 0.1
        ? ` Or else ${contradicting(figures.or, length)} (${inWords(figures.or.chance)}).`
        : ''
    }`,
    todo: CONTRADICTING_TODO[figures.what],
  }),
};

/** Tells what sizing found, in the shop's unit. */
export function sizeWords(finding: SizeFinding, unit: LengthUnit = 'mm'): FindingWords {
  return wordsOf(SIZE_WORDS, finding, (mm: number) => formatLength(mm, unit));
}

/** The same on one line, in mm. */
export function sizeMessage(finding: SizeFinding): string {
  return inOneLine(sizeWords(finding));
}
