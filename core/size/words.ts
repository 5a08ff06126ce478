import { type Drive, LAY_WORDS, stationLabel } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
import type { Candidate, PuttingOn, SizeFinding, Verdict } from '../seating';
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
      title: `${formatLength(eitherWay.groove, unit)} or ${formatLength(eitherWay.rim, unit)}: nobody said how it lay.`,
      why: `The first if it lay ${LAY_WORDS.groove}, the second if ${LAY_WORDS.rim}. The ± covers both.`,
      todo: 'Say which it was.',
    };
  if (!layTold || lay === null) return null;
  const other = lay === 'groove' ? 'rim' : 'groove';
  return said
    ? {
        title: `You said it lay ${LAY_WORDS[lay]}.`,
        why: `The drawing and any other measurement speak for ${LAY_WORDS[other]}.`,
        todo: 'Lay it once more and look.',
      }
    : {
        title: `Taken to have lain ${LAY_WORDS[lay]}.`,
        why: 'Only that way does it agree with the drawing and any other measurement.',
        todo: 'Say which it was.',
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
      return adjuster === 'none'
        ? `Goes on stretched by ${length(reserveMm)}.`
        : adjuster === 'arm'
          ? `Sits ${fraction} of the way from the short mark; ${length(reserveMm)} left to the long mark.`
          : `Taut at ${fraction} of the travel; ${length(reserveMm)} left to tighten.`;
    case 'tight':
      return adjuster === 'none'
        ? `Too tight on fixed centres.${newtons} Take the next size up.`
        : 'Goes on, but the arm stands short of the short mark. Take the next size up.';
    case 'slack':
      if (adjuster === 'none') return `Too loose on fixed centres.${newtons} Take the next size down.`;
      return `Sits ${length(reserveMm)} past the long mark. Take the next size down.`;
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
  return `Release: turn the arm of ${name} ${turn === 'ccw' ? 'counter-clockwise' : 'clockwise'}. It bites: keep fingers out, let it down slowly.`;
}

/** Tells what sizing found, in the shop's unit. */
export function sizeWords({ code, figures }: SizeFinding, unit: LengthUnit = 'mm'): FindingWords {
  const length = (key: string) => formatLength(figures?.[key] ?? 0, unit);
  const newtons = (key: string) => `${Math.round(figures?.[key] ?? 0)} N`;
  const setTo = figures?.['byLoads']
    ? `This drive's loads ask for ${newtons('setN')} on a new belt (defaults where none were given).`
    : `A new belt like this is set to ${newtons('setN')}, a default.`;
  switch (code) {
    case 'no-adjuster':
      return {
        title: 'No adjuster given yet, so no length can be chosen.',
        why: `${(figures?.['lengthMm'] ?? 0) > 0 ? `The drawn length is ${length('lengthMm')}. ` : ''}No pulley on this belt has an adjuster.`,
        todo: 'Give the shaft that tightens it an adjuster, or mark the centres as fixed.',
      };
    case 'no-path':
      return {
        title: 'A length is missing.',
        why: 'As drawn, or at an end of the travel, the belt has no path: the route cannot be run there, or the adjuster swings clear of it.',
        todo: 'Put route, pivot and angles right first.',
      };
    case 'past-best-push':
      return {
        title: 'The adjuster passes its best push.',
        why: `The path is longest at ${(figures?.['at'] ?? 0).toFixed(1)}, inside the travel: ${length('lengthMm')}. Beyond it, moving on slackens the belt.`,
        todo: 'Belts are placed on the near side of it. Check pivot, arm and angles.',
      };
    case 'lets-go':
      return {
        title: 'The roller swings past the belt.',
        why: `From ${(figures?.['at'] ?? 0).toFixed(0)}° on it holds the belt no longer; ${length('lengthMm')} is the longest it keeps taut.`,
        todo: 'Check pivot, arm length and angles; the arm must stop before that.',
      };
    case 'window-outside':
      return {
        title: 'The marks lie outside the travel.',
        why: 'The pointer cannot come there.',
        todo: 'Measure the angles of marks and stops again.',
      };
    case 'marks-swapped':
      return {
        title: 'The marks are the wrong way round.',
        why: 'The short mark lies nearer the end the arm is pulled back to.',
        todo: 'Exchange their angles, or measure them again.',
      };
    case 'past-end':
      return {
        title: 'The adjuster is drawn past the end of its travel.',
        why: 'A stop, the slot or the safe thread ends before that.',
        todo: 'Measure its place and its ends again.',
      };
    case 'past-mark':
      return {
        title: `The pointer is drawn past the ${figures?.['long'] ? 'long' : 'short'} mark.`,
        why: figures?.['long'] ? 'The belt on it is too long, or worn out.' : 'The belt on it is too short.',
        todo: 'See which length below sits between the marks.',
      };
    case 'little-reserve':
      return {
        title: `Only ${length('reserveMm')} is left for seating and stretch.`,
        why: `Emery looks for ${length('wantedMm')}, a default.`,
        todo: 'A size down would last longer.',
      };
    case 'over-shaft':
      return {
        title: `${newtons('tensionN')} at rest is more than a bearing on this belt carries.`,
        why: `Its hub load would pass ${newtons('limitN')}, the bearing load limit written or a default.`,
        todo: 'Take the next size up.',
      };
    case 'over-setting':
      return {
        title: `${newtons('tensionN')} at rest is too tight.`,
        why: `${setTo} Half again the load leaves a third of the bearing life.`,
        todo: 'Take the next size up.',
      };
    case 'under-setting':
      return {
        title: `${newtons('tensionN')} at rest is too loose.`,
        why: `${setTo} Fixed centres cannot be set again.`,
        todo: 'Take the next size down.',
      };
    case 'two-adjusters':
      return {
        title: 'Two shafts could tighten this belt.',
        why: 'Both have an adjuster and no other belt needs either.',
        todo: 'Say which one tightens it, under the adjuster.',
      };
    case 'uses-most':
      return {
        title: `It is taut only at ${Math.round(100 * (figures?.['share'] ?? 0))} % of the travel.`,
        why: 'More than half is used before it carries anything.',
        todo: 'Take a size down if one goes on.',
      };
  }
}

/** The same on one line, in mm. */
export function sizeMessage(finding: SizeFinding): string {
  return inOneLine(sizeWords(finding));
}
