import { useRef } from 'react';
import { useSizeOf } from '../../ui/use-size-of';
import { EdgeView } from './EdgeView';
import { useAlignSums } from './sums';
import './align.css';

/** The main picture of Align: the unrolled belt seen from above, with its offsets magnified. */
export default function AlignChart() {
  const { alignment, after } = useAlignSums();
  const holder = useRef<HTMLElement>(null);
  const size = useSizeOf(holder);
  return (
    <section className="unrolled sheet" aria-label="The belt seen from above" ref={holder}>
      {!alignment ? (
        <p className="unrolled-empty">The view from above appears here once a belt fits the route.</p>
      ) : (
        size.width >= 120 && <EdgeView {...size} alignment={after ?? alignment} before={after ? alignment : null} />
      )}
    </section>
  );
}
