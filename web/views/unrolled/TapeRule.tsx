import { type LengthUnit, MM_PER_INCH } from '@emery/core/quantity';

const RULES: Record<LengthUnit, { step: number; name: (mm: number) => string; choices: number[] }> = {
  in: {
    step: MM_PER_INCH,
    name: (mm) => `${Math.round(mm / MM_PER_INCH)}″`,
    choices: [6, 12, 24, 48].map((n) => n * MM_PER_INCH),
  },
  mm: { step: 20, name: (mm) => `${Math.round(mm)}`, choices: [100, 200, 500, 1000] },
};

/** A tape along the belt: short ticks every inch or 20 mm, figures at round steps far enough apart to read. */
export function TapeRule({
  x,
  y,
  length,
  unit,
}: {
  x: (mm: number) => number;
  y: number;
  length: number;
  unit: LengthUnit;
}) {
  const { step, name, choices } = RULES[unit];
  const every = choices.find((choice) => x(choice) - x(0) > 56) ?? choices[choices.length - 1]!;
  const dense = x(step) - x(0) > 3;
  const ticks = dense ? Array.from({ length: Math.min(2000, Math.floor(length / step) + 1) }, (_, n) => n * step) : [];
  const figures = Array.from({ length: Math.floor(length / every) + 1 }, (_, n) => n * every);
  return (
    <g className="tape" aria-hidden>
      <path
        d={[
          `M${x(0)} ${y}H${x(length)}`,
          ...ticks.map((mm) => `M${x(mm)} ${y}v-4`),
          ...figures.map((mm) => `M${x(mm)} ${y}v-9`),
        ].join('')}
      />
      {figures.map((mm) => (
        <text key={mm} x={mm === 0 ? x(0) - 8 : x(mm)} y={y + 16} textAnchor={mm === 0 ? 'start' : 'middle'}>
          {name(mm)}
          {mm === 0 && unit === 'mm' ? ' mm' : ''}
        </text>
      ))}
    </g>
  );
}
