import { memo } from 'react';
import type { Surface } from '@emery/core/section';

interface Props {
  /** Radius, mm. */
  r: number;
  surface: Surface;
  /** Screen px per mm. */
  scale: number;
}

/**
 * One pulley's metal about 0, 0, in mm. The rim shows the surface: dots for grooves, a second ring for a V, dashes for
 * teeth.
 */
export const PulleyDrawing = memo(function PulleyDrawing({ r, surface, scale }: Props) {
  const px = 1 / scale;
  return (
    <>
      <circle className="pulley-disc" r={r} />
      {surface === 'ribbed' && <circle className="pulley-rim" r={r - 3.5} strokeDasharray={`${1.5 * px} ${3 * px}`} />}
      {surface === 'vee' && <circle className="pulley-rim" r={Math.max(1, r - 9)} />}
      {surface === 'toothed' && (
        <circle className="pulley-rim" r={Math.max(1, r - 2)} strokeWidth={4} strokeDasharray="5 5" />
      )}
      <circle className="pulley-hub" r={Math.min(5 * px, r / 3)} />
    </>
  );
});
