import { steady } from './steady';
import { useOnLeave, useTyped } from './typed-text';
import { WrittenField } from './WrittenField';

interface Props {
  label: string;
  /** Null where there is none yet. */
  value: number | null;
  unit: string;
  least?: number;
  most?: number;
  onCommit: (value: number) => void;
  /** Where given, the field may be emptied. */
  onClear?: () => void;
}

/** A plain figure in a unit of its own: degrees, N·m. Text that is none stays, with what is accepted. */
export const FigureField = steady(function FigureField({
  label,
  value,
  unit,
  least = -720,
  most = 720,
  onCommit,
  onClear,
}: Props) {
  const [text, setText] = useTyped<string | null>(label, null);
  const start = value === null ? '' : String(Math.round(value * 100) / 100);
  const written = (text ?? start)
    .trim()
    .replace(',', '.')
    .replace(/\s*(°|%|A|kW|rev\/min|rpm)$/i, '');
  const number = Number(written);
  const empty = written === '';
  const fits = empty
    ? onClear !== undefined || value === null
    : Number.isFinite(number) && number >= least && number <= most;
  const problem =
    text !== null && !fits
      ? `${label}: write a number from ${least} to ${most}, in ${unit}${onClear ? ', or leave it empty' : ''}.`
      : null;
  const commit = () => {
    if (text === null || problem !== null) return;
    if (empty) onClear?.();
    else if (written !== start) onCommit(number);
    setText(null);
  };
  useOnLeave(commit);
  return (
    <WrittenField
      label={`${label}, ${unit}`}
      value={text ?? start}
      problem={problem}
      inputMode="decimal"
      onChange={setText}
      onCommit={commit}
    />
  );
});
