import { type RefObject, useEffect, useEffectEvent, useMemo, useRef } from 'react';
import { strip } from '../../state/strip';
import { useSelected } from '../../state/bench';
import type { Mark } from '../../state/mark';
import { useStore } from '../../state/store';
import { useNarrow } from '../../ui/use-narrow';
import type { Drive } from '@emery/core/drive';
import { beltBounds, type Bounds, type DriveSolution } from '@emery/core/path';

/** What is asked about is drawn no larger than this share of the whole: what lies around it says where it is. */
const LEAST_SHARE = 0.6;

/** The part of the drawing that a mark is about, with what lies around it; null where that is the whole. */
export function frameOf(drive: Drive, solution: DriveSolution, mark: Mark | null): Bounds | null {
  const places = placesOf(drive, solution, mark);
  if (places.length === 0) return null;
  const all = beltBounds(drive);
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  const side = (low: number, high: number, values: readonly number[]) => {
    const span = Math.max(LEAST_SHARE * (high - low), Math.max(...values) - Math.min(...values) + 80);
    const middle = (Math.max(...values) + Math.min(...values)) / 2;
    // Nothing is gained by empty ground beyond the drive.
    const from = Math.max(low, Math.min(high - span, middle - span / 2));
    return [from, Math.min(high, from + span)] as const;
  };
  const [minX, maxX] = side(all.minX, all.maxX, xs);
  const [minY, maxY] = side(all.minY, all.maxY, ys);
  return { minX, minY, maxX, maxY };
}

function placesOf(
  { stations }: Drive,
  { belts }: DriveSolution,
  mark: Mark | null,
): readonly { x: number; y: number }[] {
  if (mark?.kind === 'pulley') return stations.filter(({ id }) => id === mark.station);
  if (mark?.kind !== 'span') return [];
  const span = belts.find(({ id }) => id === mark.belt)?.spans[mark.index];
  return span ? [span.start, span.end] : [];
}

/**
 * What the drawing is fitted to: all of the drive, and in the strip on a phone what is asked about. `fit` is called
 * when that is another thing.
 */
export function useFrame(drive: Drive, solution: DriveSolution): () => Bounds {
  const [narrow, mark] = [useNarrow(), useSelected()];
  const framing = useStore(strip) === 'drawing' && narrow;
  const frame = useMemo(() => (framing ? frameOf(drive, solution, mark) : null), [framing, drive, solution, mark]);
  return () => frame ?? beltBounds(drive);
}

/** On a phone a route is tapped on the whole screen, and the strip comes back once that is done. */
export function useLargeWhile(tapping: boolean): void {
  const narrow = useNarrow();
  useEffect(() => {
    if (!narrow || !tapping) return;
    strip.set('full');
    return () => strip.set('drawing');
  }, [narrow, tapping]);
}

/** So long after a touch of the drawing what is taken in hand was taken there, ms. */
const TOUCHED_MS = 700;

/**
 * Fits the strip on a phone when something else is asked about. What is touched on the drawing itself stays where it
 * is: moved away from under the finger, the touch would end on something else.
 */
export function useRefit(svg: RefObject<SVGSVGElement | null>, fit: () => void): void {
  const [narrow, mark, shown] = [useNarrow(), useSelected(), useStore(strip)];
  const touched = useRef(-Infinity);
  const refit = useEffectEvent(fit);
  useEffect(() => {
    const drawing = svg.current;
    const touch = () => void (touched.current = performance.now());
    drawing?.addEventListener('pointerdown', touch, true);
    return () => drawing?.removeEventListener('pointerdown', touch, true);
  }, [svg]);
  useEffect(() => {
    if (narrow && shown === 'drawing' && performance.now() - touched.current > TOUCHED_MS) refit();
  }, [narrow, mark, shown]);
}
