import { formatInches, formatMm, inchParts, type LengthUnit } from '@emery/core/quantity';

interface Props {
  mm: number;
  unit: LengthUnit;
  /** Decimals in mm. */
  places?: number;
  /** `tspan` inside an SVG text. */
  as?: 'span' | 'tspan';
}

/** A length to be read at a glance: inches with a true fraction, or mm. A screen reader hears the same as one text. */
export function LengthFigure({ mm, unit, places = 1, as: Part = 'span' }: Props) {
  if (unit === 'mm') return <Part className="length">{formatMm(mm, places)}</Part>;
  const { negative, inches, numerator, denominator } = inchParts(mm);
  return (
    <Part className="length" aria-label={formatInches(mm)} role={Part === 'span' ? 'text' : undefined}>
      {negative && '−'}
      {(inches > 0 || numerator === 0) && inches}
      {numerator > 0 && (
        <>
          {inches > 0 && '\u2009'}
          <Part className="fraction">
            {numerator}/{denominator}
          </Part>
        </>
      )}
      ″
    </Part>
  );
}
