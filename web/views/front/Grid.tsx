import { memo } from 'react';

interface Props {
  k: number;
  tx: number;
  ty: number;
  width: number;
  height: number;
}

/** Lines every 50 mm (every 2 inches looks the same at this weight), and heavier ones through the crank's place. */
export const Grid = memo(function Grid({ k, tx, ty, width, height }: Props) {
  const every = k > 0.35 ? 50 : 200;
  const lines = (offset: number, length: number) => {
    const first = Math.ceil(-offset / (every * k));
    const count = Math.min(200, Math.max(0, Math.floor(length / (every * k)) + 1));
    return Array.from({ length: count }, (_, n) => (first + n) * every * k + offset);
  };
  const across = lines(tx, width).map((x) => `M${x} 0V${height}`);
  const down = lines(ty, height).map((y) => `M0 ${y}H${width}`);
  return (
    <g className="grid" aria-hidden>
      <path d={[...across, ...down].join('')} />
      <path className="grid-axis" d={`M${tx} 0V${height}M0 ${ty}H${width}`} />
    </g>
  );
});
