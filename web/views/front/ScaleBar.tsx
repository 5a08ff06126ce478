import { formatLength, type LengthUnit, MM_PER_INCH } from '@emery/core/quantity';

const STEPS: Record<LengthUnit, number[]> = {
  mm: [5, 10, 20, 50, 100, 200, 500, 1000],
  in: [0.25, 0.5, 1, 2, 4, 6, 12, 24, 48].map((inches) => inches * MM_PER_INCH),
};

/** A length to compare with, bottom left: the longest round one under 130 px. */
export function ScaleBar({ k, unit, height }: { k: number; unit: LengthUnit; height: number }) {
  const mm = STEPS[unit].findLast((step) => step * k <= 130) ?? STEPS[unit][0]!;
  const y = height - 14;
  return (
    <g className="scale-bar" aria-hidden>
      <path d={`M14 ${y - 5}V${y}H${14 + mm * k}V${y - 5}`} />
      <text x={14 + mm * k + 8} y={y + 1}>
        {formatLength(mm, unit, 0)}
      </text>
    </g>
  );
}
