import type { TriedBelt } from '../drive';
import type { SizeFinding } from '../seating';
import type { KnownLayout } from './known-layout';
import type { Mistaken } from './layout';
import { triedLengthMm } from './tried';
import { triedFits } from './uncertainty';

/** As likely as not, or more. */
export const LIKELY = 0.5;

/** A belt that was tried on, and what all evidence makes of it. */
export interface ShownTried {
  id: string;
  outcome: TriedBelt['outcome'];
  /** As marked, mm. */
  lengthMm: number;
  /** Where it sat taut, as a fraction of the travel; null where nobody read that. */
  fraction: number | null;
  /** One standard deviation of the length that this says the path has there, mm; null as before. */
  plusMinusMm: number | null;
  /** That this very belt fits, by all evidence; null where no window is known. */
  chance: number | null;
  /** How much longer it is than marked, by all evidence, mm. */
  ownMm: number;
  ownPlusMinusMm: number;
  /** That it is not of the length that is marked. */
  mislabelled: number;
  kept: boolean | null;
}

export function shownTried({ tried, layout, edges }: KnownLayout): ShownTried[] {
  return tried.map(({ tried: belt, lengthMm, taut, sigmaMm }, k) => {
    const own = layout.figure(layout.ownPlace(k));
    return {
      id: belt.id,
      outcome: belt.outcome,
      lengthMm,
      fraction: taut?.fraction ?? null,
      plusMinusMm: taut ? Math.hypot(taut.sigmaMm, sigmaMm) : null,
      chance: edges ? chanceOf(belt, Math.min(1, triedFits(k, lengthMm, layout, edges))) : null,
      ownMm: own.mm,
      ownPlusMinusMm: own.sigma,
      mislabelled: chanceOfMistake(layout.mistaken, { what: 'label', id: belt.id }),
      kept: belt.kept ?? null,
    };
  });
}

/** One that did not go on does not fit, however near it came. */
const chanceOf = ({ outcome }: TriedBelt, chance: number) => (outcome === 'will-not-go-on' ? 0 : chance);

const sameMistake = (a: Mistaken, b: Mistaken) =>
  a.what === b.what && ('id' in a ? a.id : '') === ('id' in b ? b.id : '');
const chanceOfMistake = (mistaken: KnownLayout['layout']['mistaken'], sought: Mistaken) =>
  mistaken.find(({ mistake }) => sameMistake(mistake, sought))?.chance ?? 0;

/** What the belts that were tried on have against one another, the drawing or what was measured. */
export function triedFindings({ belt, tried, layout }: KnownLayout): SizeFinding[] {
  const unread = (belt.tried ?? []).filter((entry) => triedLengthMm(belt, entry) === null);
  return [
    ...unread.map((entry): SizeFinding => ({
      code: 'tried-unread',
      severity: 'watch',
      reading: entry.id,
      figures: { marking: entry.marking ?? '', section: belt.section },
    })),
    ...(tried.length > 0 && layout.sound < LIKELY ? contradiction(layout.mistaken, tried) : []),
  ];
}

function contradiction(mistaken: KnownLayout['layout']['mistaken'], tried: KnownLayout['tried']): SizeFinding[] {
  const figure = ({ mistake, chance }: (typeof mistaken)[number]) => ({
    what: mistake.what,
    lengthMm: (mistake.what === 'label' && tried.find((belt) => belt.tried.id === mistake.id)?.lengthMm) || 0,
    chance,
  });
  const [first, second] = mistaken;
  if (!first) return [];
  return [
    {
      code: 'tried-contradicts',
      severity: 'watch',
      ...(first.mistake.what !== 'drawing' && { reading: first.mistake.id }),
      figures: { ...figure(first), or: second ? figure(second) : null },
    },
  ];
}
