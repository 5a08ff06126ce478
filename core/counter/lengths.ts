import { type AdjusterState, SURFACE_OF } from '../drive';
import { chanceBelow } from '../numeric';
import { lengthsAbout } from '../seating';
import { bodyRadiusMm, cordRadiusMm, facingDepthMm, type Section } from '../section';
import { DEFAULT_UNCERTAINTY } from '../size';
import { anyPulley, type LengthTold, type Riding, type StringAnswer } from './string';

/**
 * Where the adjuster stood when the length was taken: where it is to run, at an end of its travel, at a mark of a
 * sprung arm's window, or there is none.
 */
export const HELD = ['running', 'slack', 'short-mark', 'long-mark', 'tight', 'fixed'] as const;
export type Held = (typeof HELD)[number];

/** The same as Size has it of a measurement. */
export const STATE_OF_HELD: Record<Held, AdjusterState> = {
  running: 'as-drawn',
  slack: 'slack',
  'short-mark': 'short-mark',
  'long-mark': 'long-mark',
  tight: 'tight',
  fixed: 'as-drawn',
};

/** A length to ask for. */
export interface LengthToAsk {
  lengthMm: number;
  /** That it goes on and, where an end is known, can be tightened; null where nothing bounds it either way. */
  chance: number | null;
}

export interface LengthsToAsk {
  lengths: LengthToAsk[];
  /** By place in `lengths`: the one to ask for, and the one to take where there is none. */
  best: number | null;
  second: number | null;
}

/** What is known besides the length. */
export interface LengthsKnown {
  /** Length that the adjuster takes up from end to end, mm. */
  takesUpMm?: number | null;
  /** Lengths that can be had, mm. */
  stock?: readonly number[];
  /** The pulleys that its back, or its ribs on a smooth face, ride on: over such a one it slides on sideways. */
  riding?: readonly Riding[];
}

/** No shorter belt is sold. A default. */
const LEAST_BELT_MM = 100;
/** Surer than this a length is taken to go on. A default. */
const SURE = 0.9;
/**
 * A length further from the measured one than any adjuster makes up for is not worth asking for, as a share of it. A
 * default; where nobody said what the adjuster takes up, or where a list holds none that is near.
 */
const OUT_OF_REACH = 0.04;
/**
 * Where no drive is known the belt bends round the pulley it is slipped over last by anything between these, degrees:
 * of the pulleys the one with the least wrap. A default.
 */
const LAST_WRAP_DEG = { min: 80, max: 180 };

/** A measured length, and of a string that lay one way or the other both. */
export type LengthAsked = LengthTold & Partial<Pick<StringAnswer, 'eitherWay'>>;

/**
 * Which lengths to ask for about a measured one, mm with one standard deviation; of a string that lay one way or the
 * other, by both. Taken at the slack end it is the least that lies taut, and a belt has to climb over the rim of the
 * last pulley besides; taken at the tight end it is the most; between a sprung arm's marks the marks are the ends. Of
 * the lengths in `stock` where there are any, else of the common ones. The second is the one that, with the first,
 * covers most. On fixed centres ask `lengthsOnFixed`.
 */
export function lengthsToAsk(
  section: Section,
  answer: LengthAsked,
  held: Exclude<Held, 'fixed'>,
  known: LengthsKnown = {},
): LengthsToAsk {
  return rankedLengths(section, answer, known.stock, (markedMm) => [boundsOf(section, markedMm, held, known)]);
}

/**
 * The same by any bounds of a length: `boundsOf` gives those that a marked length may have, each as likely as the next.
 */
export function rankedLengths(
  section: Section,
  answer: LengthAsked,
  stock: readonly number[] = [],
  boundsOf: (markedMm: number) => readonly Bounds[],
): LengthsToAsk {
  if (!(answer.markedMm >= LEAST_BELT_MM)) return { lengths: [], best: null, second: null };
  const lain: LengthTold[] = answer.eitherWay ? [answer.eitherWay.groove, answer.eitherWay.rim] : [answer];
  const ways = lain.flatMap((length) => boundsOf(length.markedMm).map((bounds) => ({ told: length, bounds })));
  const [from, to] = [
    Math.min(
      ...ways.map(({ bounds: { min, max } }) => min?.mm ?? max ?? answer.markedMm),
      ...lain.map(({ markedMm }) => markedMm),
    ),
    Math.max(...ways.map(({ bounds: { min, max } }) => max ?? min?.mm ?? answer.markedMm)),
  ];
  const reach = OUT_OF_REACH * answer.markedMm;
  // A list that holds none within reach answers as no list does: the nearest of it would be no answer.
  const listed = stock.filter((mm) => mm >= from - reach && mm <= to + reach);
  const rows = lengthsAbout(section, from, Math.max(from, to), listed).map((lengthMm) => {
    const each = ways.map(({ told: length, bounds }) => chanceOf(section, lengthMm, length, bounds));
    const near = Math.min(...ways.map(({ bounds: { aim } }) => Math.abs(lengthMm - aim)));
    return { lengthMm, each, near, chance: each[0] === null ? null : mean(each) };
  });
  /** The surest; of those that are sure, or of which nothing is known, the nearest. */
  const worth = (chance: number | null, near: number) =>
    (chance === null ? 0 : Math.min(SURE, Math.round(chance * 200) / 200)) - near / 1e5;
  const best = max(rows.map(({ chance, near }) => worth(chance, near)));
  const first = best === null ? null : rows[best]!;
  const second = max(
    rows.map(({ lengthMm, each, near, chance }, k) => {
      if (k === best || first === null) return -Infinity;
      if (ways.length === 1) return worth(chance, near);
      // With several ways for it to be the second covers those that the first does not.
      if (chance === null)
        return -Math.max(
          ...ways.map(({ bounds: { aim } }) => Math.min(...[lengthMm, first.lengthMm].map((mm) => Math.abs(mm - aim)))),
        );
      return worth(mean(each.map((figure, w) => Math.max(figure!, first.each[w]!))), near);
    }),
  );
  return { lengths: rows.map(({ lengthMm, chance }) => ({ lengthMm, chance })), best, second };
}

const mean = (figures: readonly (number | null)[]) =>
  figures.reduce<number>((sum, figure) => sum + figure!, 0) / figures.length;

/** The place of the largest; null of none. */
function max(figures: readonly number[]): number | null {
  return figures.reduce<number | null>(
    (best, figure, k) => (figure > -Infinity && (best === null || figure > figures[best]!) ? k : best),
    null,
  );
}

/** The least and the most that go on and can be tightened, mm, null for an end that nothing tells; and the best. */
export interface Bounds {
  min: { mm: number; sigma: number } | null;
  max: number | null;
  aim: number;
}

function chanceOf(section: Section, lengthMm: number, { markedMm, plusMinus }: LengthTold, { min, max }: Bounds) {
  if (min === null && max === null) return null;
  const spread = Math.max(0.01, Math.hypot(plusMinus, DEFAULT_UNCERTAINTY.beltFraction[section.kind] * markedMm));
  const over = min === null ? 1 : chanceBelow((lengthMm - min.mm) / Math.hypot(spread, min.sigma));
  const past = max === null ? 0 : chanceBelow((lengthMm - max) / spread);
  return Math.max(0, over - past);
}

function boundsOf(
  section: Section,
  markedMm: number,
  held: Exclude<Held, 'fixed'>,
  { takesUpMm = null, riding = [] }: LengthsKnown,
): Bounds {
  const climb = climbOf(section, riding);
  const over = (mm: number) => ({ mm: mm + climb.mm, sigma: climb.sigma });
  const taken = (share: number) => (takesUpMm === null ? null : markedMm + share * takesUpMm);
  switch (held) {
    case 'slack': {
      const min = over(markedMm);
      return { min, max: taken(1), aim: min.mm };
    }
    case 'tight': {
      const slack = taken(-1);
      return { min: slack === null ? null : over(slack), max: markedMm, aim: markedMm };
    }
    case 'short-mark':
      return { min: { mm: markedMm, sigma: 0 }, max: taken(1), aim: markedMm };
    case 'long-mark': {
      const short = taken(-1);
      return { min: short === null ? null : { mm: short, sigma: 0 }, max: markedMm, aim: markedMm };
    }
    case 'running': {
      const slack = taken(-0.5);
      return { min: slack === null ? null : over(slack), max: taken(0.5), aim: markedMm };
    }
  }
}

/**
 * How much longer than the path at the slack end a belt is to be to climb over the rim of the last pulley, mm: its
 * inner face has to lie on the rim all round its wrap. Nothing where it slides on sideways, over a smooth face.
 */
function climbOf(section: Section, riding: readonly Riding[]): { mm: number; sigma: number } {
  if (riding.length > 0) return { mm: 0, sigma: 0 };
  const pulley = anyPulley(SURFACE_OF[section.kind]);
  const lift = Math.max(
    0,
    bodyRadiusMm(pulley, section) + facingDepthMm('drive', section) - cordRadiusMm(pulley, 'drive', section),
  );
  const { min, max: widest } = LAST_WRAP_DEG;
  const wrap = (degrees: number) => (degrees * Math.PI) / 180;
  return { mm: lift * wrap((min + widest) / 2), sigma: (lift * wrap(widest - min)) / Math.sqrt(12) };
}
