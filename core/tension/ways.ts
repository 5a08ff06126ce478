import { stiffnessN, widthOf } from '../adjuster';
import type { Belt } from '../drive';
import { N_PER_KGF, N_PER_LBF } from '../quantity';
import { massOf, type StaticBelt, twistStiffness } from '../loads';

/** How far a span is pushed, as a fraction of its length: 1.6 mm for 100 mm. A default. */
export const PUSH_FRACTION = 0.016;
/** What finger and thumb can do: a thumb's push, N, and the torque they twist with, N·m. Defaults, until calibrated. */
export interface Hand {
  thumbN: number;
  thumbPlusMinusN: number;
  twistNm: number;
  twistPlusMinusNm: number;
}
export const DEFAULT_HAND: Hand = { thumbN: 25, thumbPlusMinusN: 8, twistNm: 0.45, twistPlusMinusNm: 0.135 };

/** What a span's checks go by: its length, mm, and the belt's figures. */
export interface SpanFigures {
  lengthMm: number;
  kgPerMetre: number;
  /** N; 0 where a sprung arm yields to a push, so that the cord is not stretched by it. */
  stiffness: number;
  widthMm: number;
  twistStiffness: number;
}

/** The figures of one span of a belt as it stands. */
export function spanFigures({ belt, spans, arm, kgPerMetre }: StaticBelt, index: number): SpanFigures {
  return { ...spanOf(belt, spans[index]!.length, arm !== null), kgPerMetre };
}

/** The same of a span of any length, mm, whatever drive it is on; `yields` where a sprung arm gives way to a push. */
export function spanOf(belt: Belt, lengthMm: number, yields: boolean): SpanFigures {
  return {
    // Two faces that touch leave no span; its checks have an end all the same.
    lengthMm: Math.max(0.01, lengthMm),
    kgPerMetre: massOf(belt).kgPerMetre,
    stiffness: yields ? 0 : stiffnessN(belt),
    widthMm: widthOf(belt),
    twistStiffness: twistStiffness(belt),
  };
}

/** Push at mid-span that takes it in by `mm`, N: 4·T·δ/L, and 8·EA·(δ/L)³ where its ends stand still. */
export function pushFor({ lengthMm, stiffness }: SpanFigures, tensionN: number, mm: number): number {
  const lean = mm / lengthMm;
  return 4 * tensionN * lean + 8 * stiffness * lean ** 3;
}

/** How far a push takes the middle of a span in, mm: the above read backwards, by Newton's rule from above. */
export function pushedBy(span: SpanFigures, tensionN: number, newtons: number): number {
  const { lengthMm, stiffness } = span;
  if (stiffness === 0) return tensionN > 0 ? (newtons * lengthMm) / (4 * tensionN) : Infinity;
  // From a place above the answer the steps fall to it, for the curve bends upward.
  let lean = tensionN > 0 ? newtons / (4 * tensionN) : Infinity;
  lean = Math.min(lean, Math.cbrt(newtons / (8 * stiffness)));
  for (let round = 0; round < 60; round += 1) {
    const step =
      (4 * tensionN * lean + 8 * stiffness * lean ** 3 - newtons) / (4 * tensionN + 24 * stiffness * lean ** 2);
    lean -= step;
    if (Math.abs(step) < 1e-15) break;
  }
  return lean * lengthMm;
}

/** Torque that turns the middle of a span by so many degrees, N·m: (T·b²/12 + G·J)·(2φ)/(L/2). */
export function twistFor(
  { lengthMm, widthMm, twistStiffness: gj }: SpanFigures,
  tensionN: number,
  degrees = 90,
): number {
  const turn = (degrees * Math.PI) / 180;
  return (((tensionN * widthMm ** 2) / 12 + gj) * 2 * turn) / (lengthMm / 2) / 1000;
}

/** The note of a plucked span, Hz: T = 4·m·L²·f² (a stretched string). */
export function pluckFor({ lengthMm, kgPerMetre }: SpanFigures, tensionN: number): number {
  return Math.sqrt(Math.max(0, tensionN) / kgPerMetre) / (2 * (lengthMm / 1000));
}

/** The tension that a note means, N. */
export function tensionOfPluck(
  { lengthMm, kgPerMetre }: Pick<SpanFigures, 'lengthMm' | 'kgPerMetre'>,
  hz: number,
): number {
  return 4 * kgPerMetre * (lengthMm / 1000) ** 2 * hz ** 2;
}

/** What every school's check reads on a span at a tension. */
export interface SpanReads {
  lengthMm: number;
  pushN: number;
  pushMm: number;
  twistNm: number;
  freePlayMm: number;
  pluckHz: number;
  gaugeKgf: number;
  gaugeLbf: number;
}

/** The same of one span of a drive. */
export interface SpanChecks extends SpanReads {
  span: { from: string; to: string };
}

/** What each check reads on one span. A slack belt gives way without end; it is told as its span. */
export function readsOf(span: SpanFigures, tensionN: number, hand: Hand = DEFAULT_HAND): SpanReads {
  const { lengthMm } = span;
  const pushMm = PUSH_FRACTION * lengthMm;
  return {
    lengthMm,
    pushN: pushFor(span, tensionN, pushMm),
    pushMm,
    twistNm: twistFor(span, tensionN),
    freePlayMm: Math.min(lengthMm, pushedBy(span, tensionN, hand.thumbN)),
    pluckHz: pluckFor(span, tensionN),
    gaugeKgf: tensionN / N_PER_KGF,
    gaugeLbf: tensionN / N_PER_LBF,
  };
}

/** The same for every span of a belt that stands still. */
export function waysOf(standing: StaticBelt, tensionN: number, hand: Hand = DEFAULT_HAND): SpanChecks[] {
  return standing.spans.map(({ from, to, length }, index) => ({
    ...readsOf(spanFigures(standing, index), tensionN, hand),
    span: { from, to },
    lengthMm: length,
  }));
}
