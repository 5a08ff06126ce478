import { type Drive, LAY_WORDS, stationLabel } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
import type { Candidate, PuttingOn, SizeFinding, Verdict } from '../seating';
import type { MeasuredLength } from './measured';
import type { RuleOfThumb } from './told';

/** What each verdict is called. */
export const VERDICT_WORDS: Record<Verdict, string> = {
  fits: 'fits',
  tight: 'tight',
  slack: 'slack',
  'will-not-go-on': 'will not go on',
  'out-of-travel': 'out of travel',
  rubs: 'rubs',
};

/** What the other witnesses say of how a string lay; null where they say nothing. */
export function layNote({ lay, layTold }: MeasuredLength, said: boolean): FindingWords | null {
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

export const RULE_WORDS: Record<RuleOfThumb, string> = {
  'as-read': 'As read, nothing added',
  'less-half-inch': 'Less half an inch',
  'plus-inch': 'Plus an inch',
  'less-one-percent': 'Less one percent',
};

/** One sentence on how a belt would sit. */
export function candidateSentence(
  candidate: Candidate,
  adjuster: 'arm' | 'other' | 'none',
  unit: LengthUnit = 'mm',
): string {
  const { verdict, position, reserveMm } = candidate;
  const length = (mm: number) => formatLength(Math.abs(mm), unit);
  const fraction = `${Math.round(100 * (position ?? 0))} %`;
  switch (verdict) {
    case 'fits':
      return adjuster === 'none'
        ? `Goes on stretched by ${length(reserveMm)}.`
        : adjuster === 'arm'
          ? `Sits ${fraction} of the way from the short mark; ${length(reserveMm)} left to the long mark.`
          : `Taut at ${fraction} of the travel; ${length(reserveMm)} left to tighten.`;
    case 'tight':
      return 'Goes on, but the arm stands short of the short mark. Take the next size up.';
    case 'slack':
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
  switch (code) {
    case 'no-adjuster':
      return {
        title: 'Nothing tightens this belt.',
        why: 'No pulley on it has an adjuster.',
        todo: 'Say how it is tightened, or that its centres are fixed.',
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
