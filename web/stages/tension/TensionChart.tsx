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
  return (
    <section
      className="unrolled sheet tension-chart"
      aria-label={map ? 'Margin over engine speed and load' : 'Span tension along the belt'}
      ref={holder}
    >
      {!belt ? (
        <p className="unrolled-empty">The pull along the belt shows here once a belt can lie on the route.</p>
      ) : size.width < 120 ? null : map ? (
        <MarginChart {...size} />
      ) : (
        <ProfileChart {...size} />
      )}
    </section>
  );
}
