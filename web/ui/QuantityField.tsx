import { steady } from './steady';
import { useId, type KeyboardEvent } from 'react';
import { FieldFrame } from './FieldFrame';
import { LengthInput } from './LengthInput';
import { useOnLeave, useTyped } from './typed-text';
import {
  editableLength,
  formatInches,
  formatLength,
  formatMm,
  type LengthUnit,
  parseLength,
  readsAs,
  type LengthReading,
} from '@emery/core/quantity';

interface Props {
  label: string;
  /** Null where there is none yet. */
  mm: number | null;
  unit: LengthUnit;
  onCommit: (mm: number) => void;
  /** True where the length may be below zero, as a position may. */
  signed?: boolean;
  /** Where given, no more than this, mm. */
  max?: number;
  /** Where given, the field may be emptied. */
  onClear?: () => void;
}

/**
 * A length as a mechanic writes it. Says under the field what it understood, in both units, while it is being written;
 * what it cannot read stays in the field with the reason. Taken over on Enter, on leaving the field, and when the page
 * goes away.
 */
export const QuantityField = steady(function QuantityField(props: Props) {
  const { label, mm, unit, onCommit, signed = false, max = Infinity, onClear } = props;
  const [text, setText] = useTyped<string | null>(label, null);
  const id = useId();
  const start = mm === null ? '' : editableLength(mm, unit);
  const touched = text !== null && text.trim() !== start;
  const emptied = onClear !== undefined && text?.trim() === '';
  const reading = touched && !emptied ? parseLength(text, unit) : null;
  const unwritten = mm === null ? '' : echo(mm, unit, false);
  const problem = reading && problemOf(reading, label, { signed, max, unit });

  const commit = () => {
    if (emptied && start !== '') onClear();
    if (reading === null) setText(null);
    else if (reading.ok && problem === null) {
      onCommit(reading.mm);
      setText(null);
    }
  };
  useOnLeave(commit);

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && text !== null) {
      event.stopPropagation();
      setText(null);
    }
  };

  return (
    <FieldFrame id={id} label={label} problem={problem} echo={reading?.ok ? echo(reading.mm, unit, true) : unwritten}>
      <LengthInput
        id={id}
        label={label}
        text={text ?? start}
        unit={unit}
        signed={signed}
        wrong={problem !== null}
        onText={setText}
        onEnter={commit}
        onLeave={commit}
        onKeyDown={onKeyDown}
      />
    </FieldFrame>
  );
});

/** While writing, what was understood in both units; otherwise the other unit beside the one in the field. */
function echo(mm: number, unit: LengthUnit, writing: boolean): string {
  if (writing) return readsAs(mm);
  return unit === 'in' ? formatMm(mm) : formatInches(mm);
}

/** What is wrong with what was typed. */
function problemOf(
  reading: LengthReading,
  label: string,
  { signed, max, unit }: { signed: boolean; max: number; unit: LengthUnit },
): string | null {
  if (!reading.ok) return reading.problem;
  if (!signed && reading.mm < 0) return `${label} cannot be below zero.`;
  return Math.abs(reading.mm) > max ? `${label}: ${formatLength(max, unit, 0)} at most.` : null;
}
