import type { TriedOutcome, TriedReading } from '../drive';
import { fixed, formatLength, type LengthUnit } from '../quantity';
import type { ServiceForecast } from './forecast';
import type { ShownTried } from './shown-tried';

/** What happened, as a mechanic says it. */
export const TRIED_WORDS: Record<TriedOutcome, string> = {
  'will-not-go-on': 'Would not go on',
  forced: 'Only by force',
  on: 'Went on',
};

/** What stands beside the fields and buttons of a belt that was tried on. */
export const TRIED_LABELS = {
  heading: 'Tried on',
  first: 'Record a belt tried on',
  another: 'Another belt',
  slips: ', slips',
  kept: ', kept',
  back: ', returned',
  belt: 'belt tried on',
  accepted: (marking: string) => `Belt: a marking such as ${marking}, or a length, is accepted.`,
  noOutcome: 'Outcome: choose what happened.',
  caution: 'Key out and battery off. Let a sprung arm down slowly, with fingers out of the way.',
  which: 'Which belt',
  written: 'Or its marking or length',
  happened: 'What happened',
  isOld: 'This is the old belt',
  isSlipping: 'It slips at the tight end',
  keep: 'Kept',
  takeBack: 'Returned',
  open: 'Not decided',
  cancel: 'Cancel',
  pointer: 'Pointer',
  adjuster: 'Adjuster',
} as const;

/** Where a pointer or a slot stood, by a look. */
export const PLACE_WORDS = {
  'before-short': 'a finger before the short mark',
  'short-mark': 'at the short mark',
  'past-short': 'a finger past the short mark',
  middle: 'in the middle of the marks',
  'before-long': 'a finger before the long mark',
  'long-mark': 'at the long mark',
  'past-long': 'a finger past the long mark',
  'slack-end': 'at the slack end',
  'first-quarter': 'a quarter along',
  'half-way': 'half way along',
  'last-quarter': 'three quarters along',
  'tight-end': 'at the tight end',
} as const;
export type PlaceName = keyof typeof PLACE_WORDS;

/** What is read exactly, with its unit. */
export const TRIED_READING_WORDS: Record<TriedReading, { label: string; unit: string }> = {
  pointerDeg: { label: 'Pointer angle', unit: '°' },
  travelMm: { label: 'From the slack end', unit: 'mm' },
  turns: { label: 'Turns left on the link', unit: 'turns' },
  shims: { label: 'Shims left between the halves', unit: 'shims' },
};

const percent = (chance: number) => `${Math.round(100 * Math.min(0.99, Math.max(0.01, chance)))} %`;

/** What one belt that was tried on shows, in a sentence. */
export function triedSentence(tried: ShownTried, unit: LengthUnit): string {
  if (tried.mislabelled > 0.5) return `Its label is likely wrong (${percent(tried.mislabelled)}). Lay a tape round it.`;
  const own =
    Math.abs(tried.ownMm) < Math.max(0.5, tried.ownPlusMinusMm)
      ? ''
      : ` This one is likely ${formatLength(Math.abs(tried.ownMm), unit)} ${tried.ownMm > 0 ? 'longer' : 'shorter'} than marked.`;
  if (tried.chance === null || tried.outcome === 'will-not-go-on') return own.trim();
  return `This very belt fits: ${percent(tried.chance)} likely.${own}`;
}

/** What all tries together make of the layout. */
export function layoutSentence(
  { offsetMm, plusMinusMm }: { offsetMm: number; plusMinusMm: number },
  unit: LengthUnit,
): string {
  const by =
    Math.abs(offsetMm) < 0.5
      ? 'as drawn'
      : `${formatLength(Math.abs(offsetMm), unit)} ${offsetMm > 0 ? 'longer' : 'shorter'} than drawn`;
  return `By all evidence the path is ${by}, ± ${formatLength(plusMinusMm, unit)}. All lengths here include this.`;
}

/** When the belt that was kept reaches the end of its window. */
export function serviceSentence({ reachesKm: { likely, from, to }, readings, sittings }: ServiceForecast): string {
  const km = (distance: number) => `${(Math.round(distance / 1000) * 1000).toLocaleString('en')} km`;
  const grows =
    sittings === 0
      ? 'default growth'
      : `the growth of ${sittings === 1 ? 'one belt' : `${fixed(sittings, 0)} belts`} of this section in the shop`;
  const by =
    readings === 0
      ? `by ${grows}`
      : `by ${readings === 1 ? 'one later reading' : `${fixed(readings, 0)} later readings`} and ${grows}`;
  if (likely === null)
    return `The kept belt does not reach the end of its window in 500,000 km, ${by}.${from === null ? '' : ` One in six do by ${km(from)}.`}`;
  return `The kept belt reaches the end of its window at about ${km(likely)} from fitting, likely ${from === null ? 'later' : km(from)} to ${to === null ? 'never' : km(to)}, ${by}.`;
}
