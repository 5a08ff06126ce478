import { chanceBelow } from '../numeric';
import { lengthsAbout, shortestOnFixed } from '../seating';
import type { Section } from '../section';
import { DEFAULT_UNCERTAINTY } from '../size';

/** Where the adjuster stood when the length was taken: where it is to run, at an end, or there is none. */
export const HELD = ['running', 'slack', 'tight', 'fixed'] as const;
export type Held = (typeof HELD)[number];

/** A length to ask for. */
export interface LengthToAsk {
  lengthMm: number;
  /** That it goes on and can be tightened; null where nothing says what the adjuster takes up. */
  chance: number | null;
}

export interface LengthsToAsk {
  lengths: LengthToAsk[];
  /** By place in `lengths`: the one to ask for, and the one to take where there is none. */
  best: number | null;
  second: number | null;
}

/** No shorter belt is sold. A default. */
const LEAST_BELT_MM = 100;
/** Surer than this a length is taken to go on. A default. */
const SURE = 0.9;

/**
 * Which lengths to ask for about a measured one, mm with one standard deviation. Taken at the slack end it is the least
 * that goes on, at the tight end the most, and on fixed centres the most as well; `takesUpMm` is how much length the
 * adjuster takes up, where somebody knows. Of the lengths in `stock` where there are any, else of the common ones.
 */
export function lengthsToAsk(
  section: Section,
  { markedMm, plusMinus }: { markedMm: number; plusMinus: number },
  held: Held,
  { takesUpMm = null, stock = [] }: { takesUpMm?: number | null; stock?: readonly number[] } = {},
): LengthsToAsk {
  if (!(markedMm >= LEAST_BELT_MM)) return { lengths: [], best: null, second: null };
  const { least, most } = windowOf(section, markedMm, held, takesUpMm);
  const about = lengthsAbout(section, least ?? most ?? markedMm, most ?? least ?? markedMm, stock);
  const spread = Math.max(0.01, Math.hypot(plusMinus, DEFAULT_UNCERTAINTY.beltFraction[section.kind] * markedMm));
  const below = (length: number, end: number) => chanceBelow((length - end) / spread);
  const lengths = about.map((lengthMm): LengthToAsk => ({
    lengthMm,
    chance:
      least === null && most === null
        ? null
        : (least === null ? 1 : below(lengthMm, least)) - (most === null ? 0 : below(lengthMm, most)),
  }));
  const order = lengths.map((_, k) => k).sort((a, b) => worth(lengths[b]!) - worth(lengths[a]!));
  return { lengths, best: order[0] ?? null, second: order[1] ?? null };

  /** The surest; of those that are sure, or of which nothing is known, the nearest. */
  function worth({ lengthMm, chance }: LengthToAsk): number {
    const near = -Math.abs(lengthMm - markedMm) / 1e5;
    return chance === null ? near : Math.min(SURE, Math.round(chance * 200) / 200) + near;
  }
}

/** The least and the most that go on and can be tightened, mm; null for an end that nothing tells. */
function windowOf(
  section: Section,
  markedMm: number,
  held: Held,
  takesUpMm: number | null,
): { least: number | null; most: number | null } {
  switch (held) {
    case 'slack':
      return { least: markedMm, most: takesUpMm === null ? null : markedMm + takesUpMm };
    case 'tight':
      return { least: takesUpMm === null ? null : markedMm - takesUpMm, most: markedMm };
    case 'fixed':
      return { least: shortestOnFixed(markedMm, section), most: markedMm };
    case 'running':
      return takesUpMm === null
        ? { least: null, most: null }
        : { least: markedMm - takesUpMm / 2, most: markedMm + takesUpMm / 2 };
  }
}
