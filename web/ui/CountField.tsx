import { steady } from './steady';
import { useOnLeave, useTyped } from './typed-text';
import { WrittenField } from './WrittenField';

interface Props {
  label: string;
  value: number | undefined;
  min?: number;
  max: number;
  /** What stands below the field when nothing is wrong. */
  hint?: string;
  /** True where the field may be left empty: not counted yet. */
  optional?: boolean;
  onCommit: (value: number | undefined) => void;
}

/** A whole number that is counted: grooves, ribs, teeth. Text that is none stays, with what is accepted. */
export const CountField = steady(function CountField({
  label,
  value,
  min = 1,
  max,
  hint = '',
  optional = false,
  onCommit,
}: Props) {
  const [text, setText] = useTyped<string | null>(label, null);
  const start = value === undefined ? '' : String(value);
  const written = (text ?? start).trim();
  const number = Number(written);
  const empty = written === '';
  const fits = empty ? optional : /^\d+$/.test(written) && number >= min && number <= max;
  const problem =
    text !== null && !fits
      ? `${label}: enter a whole number from ${min} to ${max}${optional ? ', or leave it empty' : ''}.`
      : null;
  const commit = () => {
    if (text === null || problem !== null) return;
    if (written !== start) onCommit(empty ? undefined : number);
    setText(null);
  };
  useOnLeave(commit);
  return (
    <WrittenField
      label={label}
      value={text ?? start}
      problem={problem}
      echo={hint}
      inputMode="numeric"
      onChange={setText}
      onCommit={commit}
    />
  );
});
