import { editableNumber, readNumber } from '@emery/core/quantity';
import { steady } from './steady';
import { useOnLeave, useTyped } from './typed-text';
import { WrittenField } from './WrittenField';

interface Props {
  label: string;
  /** Null where there is none yet. */
  value: number | null;
  unit: string;
  min?: number;
  max?: number;
  onCommit: (value: number) => void;
  /** Where given, the field may be emptied. */
  onClear?: () => void;
  /** What is odd about a figure that could be right all the same; it is asked about before it is taken. */
  doubtOf?: (value: number) => string | null;
}

/** Units of what is counted by the thousand and has no decimals worth a thought. */
const COUNTED: ReadonlySet<string> = new Set(['rev/min', 'km', 'mi', 'h', 'as read']);
const UNIT_AFTER = /\s*(°|%|A|kW|N|km|mi|h|mm|g|rev\/min|rpm)$/i;

/** A plain figure in a unit of its own: degrees, N·m. Text that is none stays, with what is accepted. */
export const FigureField = steady(function FigureField({
  label,
  value,
  unit,
  min = -720,
  max = 720,
  onCommit,
  onClear,
  doubtOf,
}: Props) {
  const [text, setText] = useTyped<string | null>(label, null);
  const start = value === null ? '' : editableNumber(Math.round(value * 100) / 100);
  const written = (text ?? start).trim().replace(UNIT_AFTER, '');
  const empty = written === '';
  const reading = readNumber(written, { min, max, whole: COUNTED.has(unit) });
  const number = reading.ok ? reading.value : Number.NaN;
  const fits = empty ? onClear !== undefined || value === null : number >= min && number <= max;
  const asked = !empty && !reading.ok && reading.twoWays;
  const outside = `${label}: enter a number from ${min} to ${max}, in ${unit}${onClear ? ', or leave it empty' : ''}.`;
  const wrong = asked ? `${label}: ${reading.problem}` : outside;
  const problem = text === null || fits ? null : wrong;
  // What is odd stays in the field until Enter says that it is meant.
  const doubt = text === null || empty || problem !== null ? null : (doubtOf?.(number) ?? null);
  const commit = (meant: boolean) => {
    if (text === null || problem !== null || (doubt !== null && !meant)) return;
    if (empty) onClear?.();
    else if (written !== start) onCommit(number);
    setText(null);
  };
  const leave = () => commit(false);
  useOnLeave(leave);
  return (
    <WrittenField
      label={`${label}, ${unit}`}
      value={text ?? start}
      problem={problem ?? (doubt === null ? null : `${label}: ${doubt} Correct it, or press Enter to confirm.`)}
      inputMode="decimal"
      onChange={setText}
      onCommit={leave}
      {...(doubt !== null && { onEnter: () => commit(true) })}
    />
  );
});
