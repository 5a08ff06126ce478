import { useRef } from 'react';
import { useBench } from '../../state/bench';
import { useSizeOf } from '../../ui/use-size-of';
import { WearLines } from './WearLines';
import './inspect.css';
import type { InspectItem } from '@emery/core/inspect';

/** How a belt wears: its readings over the odometer, the line through them, and where that meets the limit. */
export default function WearChart({ item }: { item: InspectItem }) {
  const { drive } = useBench('drive');
  const holder = useRef<HTMLElement>(null);
  const { width, height } = useSizeOf(holder);
  return (
    <section className="unrolled sheet wear-chart" aria-label="Wear over the distance" ref={holder}>
      {width >= 120 && (
        <WearLines wear={item.wear!} unit={drive.inspect?.odometerUnit ?? 'km'} width={width} height={height} />
      )}
    </section>
  );
}
