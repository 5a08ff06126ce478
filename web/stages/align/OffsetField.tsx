import { type RefObject, useEffect, useId } from 'react';
import { FieldFrame } from '../../ui/FieldFrame';
import { LengthInput } from '../../ui/LengthInput';
import { useTyped } from '../../ui/typed-text';
import { offsetFigure, parseOffset } from '@emery/core/align';
import { formatInchesDecimal, formatMm, type LengthUnit } from '@emery/core/quantity';

/** How far a pulley stands off, the way it is said at the engine: `1.9`, `3/32`, `40 thou in`, `half a rib out`. */
export function OffsetField({
  label,
  pitch,
  unit,
  out,
  onOut,
  onEnter,
  goesOn,
}: {
  label: string;
  /** Rib to rib, mm. */
  pitch: number;
  unit: LengthUnit;
  /** The side that stands beside the field; a side in the words goes before it. */
  out: boolean;
  onOut: (out: boolean) => void;
  onEnter: () => void;
  /** True where the hand is here already: the reading before it was just ended with Enter. */
  goesOn: RefObject<boolean>;
}) {
  const [text, setText] = useTyped('offset', '');
  const id = useId();
  useEffect(() => {
    if (goesOn.current) document.getElementById(id)?.focus();
  }, [goesOn, id]);
  const reading = text.trim() === '' ? null : parseOffset(text, unit, pitch);
  const problem = reading && !reading.ok ? reading.problem : '';
  const sample = pitch > 0 ? SAMPLES[unit] : '';
  const write = (next: string) => {
    setText(next);
    const read = parseOffset(next, unit, pitch);
    if (read.ok && read.side) onOut(read.side === 'out');
  };
  return (
    <FieldFrame
      id={id}
      label={label}
      problem={problem || null}
      echo={reading?.ok ? echo(signed(reading.mm, reading.side, out)) : sample}
    >
      <LengthInput
        id={id}
        label={label}
        text={text}
        unit={unit}
        signed
        wrong={problem !== ''}
        onText={write}
        onEnter={onEnter}
      />
    </FieldFrame>
  );
}

/** What the words and the side beside them come to, mm; null while nothing that can be read is written. */
export function useOffset(unit: LengthUnit, pitch: number, out: boolean): number | null {
  const [text] = useTyped('offset', '');
  if (text.trim() === '') return null;
  const reading = parseOffset(text, unit, pitch);
  return reading.ok ? signed(reading.mm, reading.side, out) : null;
}

const SAMPLES: Record<LengthUnit, string> = {
  mm: 'Such as 1.9, or half a rib',
  in: 'Such as 3/32, 40 thou, half a rib',
};

const signed = (mm: number, side: 'out' | 'in' | null, out: boolean) => (side === null && !out ? -mm : mm);

const echo = (mm: number) =>
  `reads ${offsetFigure(mm)}${Math.abs(mm) < 0.05 ? `, ${formatMm(mm, 2)}` : `, ${formatInchesDecimal(Math.abs(mm), 3)}`}`;
