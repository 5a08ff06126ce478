import { steady } from './steady';
import { useOnLeave, useTyped } from './typed-text';
import { WrittenField } from './WrittenField';
import { editableTorque, parseTorque, torqueFigure, type TorqueUnit } from '@emery/core/quantity';

interface Props {
  label: string;
  nm: number | null;
  /** What it is written in; a bare number is read so. */
  unit: TorqueUnit;
  onCommit: (nm: number, unit: TorqueUnit) => void;
  onClear: () => void;
}

/** A torque as the manual has it. Says what it understood; what it cannot read stays in the field with the reason. */
export const TorqueField = steady(function TorqueField({ label, nm, unit, onCommit, onClear }: Props) {
  const [text, setText] = useTyped<string | null>(label, null);
  const start = nm === null ? '' : editableTorque(nm, unit);
  const emptied = text?.trim() === '';
  const touched = text !== null && text.trim() !== start && !emptied;
  const reading = touched ? parseTorque(text, unit) : null;
  const problem = reading && !reading.ok ? reading.problem : null;
  const commit = () => {
    if (emptied && start !== '') onClear();
    if (reading?.ok) onCommit(reading.nm, reading.unit);
    if (problem === null) setText(null);
  };
  useOnLeave(commit);
  const present = nm !== null ? torqueFigure(nm, unit) : '';
  const understood = reading?.ok ? torqueFigure(reading.nm, reading.unit) : present;
  return (
    <WrittenField
      label={label}
      value={text ?? start}
      problem={problem}
      echo={understood}
      placeholder="47 N·m, 35 lbf·ft"
      onChange={setText}
      onCommit={commit}
    />
  );
});
