import { useRef } from 'react';
import { useSizeOf } from '../../ui/use-size-of';
import { MarginChart } from './MarginChart';
import { ProfileChart } from './ProfileChart';
import { useTensionSums } from './sums';
import { useTension } from './TensionProvider';
import './tension.css';

/** The main picture of Tension: the pull along the belt laid flat, or the margin over engine speed and load. */
export default function TensionChart() {
  const { belt } = useTensionSums();
  const { view } = useTension();
  const holder = useRef<HTMLElement>(null);
  const size = useSizeOf(holder);
  const map = view === 'window' || view === 'loads';
  const drawn = map ? <MarginChart {...size} /> : <ProfileChart {...size} />;
  return (
    <section
      className="unrolled sheet tension-chart"
      aria-label={map ? 'Slip margin over engine speed and load' : 'Span tension along the belt'}
      ref={holder}
    >
      {!belt ? (
        <p className="unrolled-empty">The span tension along the belt appears here once a belt fits the route.</p>
      ) : (
        size.width >= 120 && drawn
      )}
    </section>
  );
}
