import { select } from 'd3-selection';
import { zoom, zoomIdentity, type ZoomBehavior, type ZoomTransform } from 'd3-zoom';
import { useCallback, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import type { Bounds } from '@emery/core/path';

export interface Viewport {
  /** Screen px = mm × k + x, mm × −k + y (y up). */
  transform: { k: number; x: number; y: number };
  size: { width: number; height: number };
  /** Shows all of `bounds`, from now on also when the window changes, until the user moves the view. */
  fit: () => void;
  zoomBy: (factor: number) => void;
}

/**
 * Pan by drag on empty ground, zoom by wheel and pinch; wheel and pinch work over pulleys too. Where one finger has
 * other work, Shift or the middle button pans.
 */
export function useViewport(
  ref: RefObject<SVGSVGElement | null>,
  bounds: () => Bounds,
  { oneFingerPans = true } = {},
): Viewport {
  const [transform, setTransform] = useState<ZoomTransform>(zoomIdentity);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const behaviour = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const fitted = useRef(true);
  const latestBounds = useRef(bounds);
  useEffect(() => {
    latestBounds.current = bounds;
  });

  const fitTo = useCallback(
    (width: number, height: number) => {
      const svg = ref.current;
      if (!svg || !behaviour.current || width < 10 || height < 10) return;
      const { minX, minY, maxX, maxY } = latestBounds.current();
      const k = Math.min((width - 24) / (maxX - minX), (height - 24) / (maxY - minY));
      const next = zoomIdentity
        .translate(width / 2 - (k * (minX + maxX)) / 2, height / 2 + (k * (minY + maxY)) / 2)
        .scale(k);
      behaviour.current.transform(select(svg), next);
      fitted.current = true;
    },
    [ref],
  );

  useEffect(() => {
    const svg = ref.current;
    if (!svg) return;
    behaviour.current = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.05, 20])
      .filter((event: Event) => {
        if (event.type === 'wheel' || event.type === 'dblclick') return event.type === 'wheel';
        const touches = (event as TouchEvent).touches;
        if (touches && touches.length > 1) return true;
        const { button, shiftKey } = event as MouseEvent;
        if (!oneFingerPans) return !touches && (button === 1 || shiftKey);
        return !(event.target as Element).closest('[data-grip]') && !button;
      })
      .on('zoom', (event: { transform: ZoomTransform; sourceEvent: unknown }) => {
        if (event.sourceEvent) fitted.current = false;
        setTransform(event.transform);
      });
    select(svg).call(behaviour.current).on('dblclick.zoom', null);
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setSize({ width, height });
      if (fitted.current) fitTo(width, height);
    });
    watch.observe(svg);
    return () => {
      watch.disconnect();
      select(svg).on('.zoom', null);
    };
  }, [ref, fitTo, oneFingerPans]);

  const fit = useCallback(() => fitTo(size.width, size.height), [fitTo, size]);
  const zoomBy = useCallback(
    (factor: number) => {
      if (ref.current) behaviour.current?.scaleBy(select(ref.current), factor);
      fitted.current = false;
    },
    [ref],
  );
  return useMemo(() => ({ transform, size, fit, zoomBy }), [transform, size, fit, zoomBy]);
}
