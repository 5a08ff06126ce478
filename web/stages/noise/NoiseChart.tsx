import { useRef } from 'react';
import { useSizeOf } from '../../ui/use-size-of';
import { useNoise } from './NoiseProvider';
import { RateScale } from './RateScale';
import { SoundPicture } from './SoundPicture';
import { useListening, useRates } from './sums';
import './noise.css';

/** Of the height the picture of the sound gets this, where there is one. */
const PICTURE = 0.5;

/** The main picture of Noise: the sound as time and pitch, and how often everything in the drive comes round. */
export default function NoiseChart() {
  const { inHand } = useNoise();
  const listening = useListening();
  const known = useRates();
  // Result is held against the speed as the sound itself sharpened it.
  const rates = listening?.rates ?? known;
  const holder = useRef<HTMLElement>(null);
  const { width, height } = useSizeOf(holder);
  const top = inHand ? Math.round(height * PICTURE) : 0;
  return (
    <section
      className={`unrolled sheet noise-chart${inHand ? '' : ' is-quiet'}`}
      aria-label="Sound and repeat rates"
      ref={holder}
    >
      {rates.length <= 1 ? (
        <p className="unrolled-empty">Repeat rates appear here once the crank drives a belt.</p>
      ) : (
        width >= 120 && (
          <>
            {inHand && listening && (
              <SoundPicture width={width} height={top} picture={inHand.picture} listening={listening} />
            )}
            <RateScale width={width} height={height - top} rates={rates} listening={listening} />
          </>
        )
      )}
    </section>
  );
}
