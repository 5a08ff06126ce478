import type { DriveSketch } from '@emery/core/path';

/** A drive in small, to be known by its shape; without a label it is a picture of what stands beside it. */
export function Thumbnail({ sketch, label }: { sketch: DriveSketch; label?: string }) {
  const [, , width, height] = sketch.viewBox.split(' ').map(Number);
  const px = Math.max(width! / 180, height! / 120);
  return (
    <svg
      className="thumbnail"
      viewBox={sketch.viewBox}
      overflow="visible"
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      {sketch.circles.map(({ x, y, r }, index) => (
        <circle
          key={index}
          cx={x}
          cy={y}
          r={Math.max(r, 3 * px)}
          fill="var(--metal)"
          stroke="var(--metal-edge)"
          strokeWidth={px}
        />
      ))}
      {sketch.belts.map(({ id, path, closed }) => (
        <path
          key={id}
          d={path}
          fill="none"
          stroke={closed ? 'var(--rubber)' : 'var(--lead)'}
          strokeWidth={3 * px}
          strokeDasharray={closed ? undefined : `${6 * px} ${4 * px}`}
        />
      ))}
    </svg>
  );
}
