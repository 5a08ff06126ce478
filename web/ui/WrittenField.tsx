import { Input } from 'antd';
import { useId } from 'react';

interface Props {
  label: string;
  value: string;
  problem: string | null;
  /** What stands below it while nothing is wrong. */
  echo?: string;
  inputMode?: 'decimal' | 'numeric' | 'text';
  placeholder?: string;
  onChange: (text: string) => void;
  /** On Enter, and on leaving the field. */
  onCommit: () => void;
}

/** A field for one line with its label above, and below it what was understood or what is wrong. */
export function WrittenField(props: Props) {
  const { label, value, problem, echo = '', inputMode = 'text', placeholder, onChange, onCommit } = props;
  const id = useId();
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <Input
        id={id}
        value={value}
        inputMode={inputMode}
        placeholder={placeholder}
        autoComplete="off"
        status={problem ? 'error' : ''}
        aria-invalid={problem !== null}
        aria-describedby={`${id}-echo`}
        onFocus={(event) => event.target.select()}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onCommit}
        onKeyDown={(event) => event.key === 'Enter' && onCommit()}
      />
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem ?? echo}
      </p>
    </div>
  );
}
