import { useId } from 'react';
import { FieldFrame } from './FieldFrame';
import { LineInput } from './LineInput';

interface Props {
  label: string;
  value: string;
  problem: string | null;
  /** What stands below it while nothing is wrong. */
  echo?: string;
  inputMode?: 'decimal' | 'numeric' | 'text';
  placeholder?: string;
  /** In focus once it is there. */
  first?: boolean;
  onChange: (text: string) => void;
  /** On Enter, and on leaving the field. */
  onCommit: () => void;
  /** On Enter besides, with the field's own id. */
  onEnter?: (id: string) => void;
}

/** A field for one line with its label above, and below it what was understood or what is wrong. */
export function WrittenField(props: Props) {
  const { label, value, problem, echo = '', inputMode = 'text', placeholder, onChange, onCommit, onEnter } = props;
  const id = useId();
  return (
    <FieldFrame id={id} label={label} problem={problem} echo={echo}>
      <LineInput
        id={id}
        autoFocus={props.first}
        value={value}
        inputMode={inputMode}
        placeholder={placeholder}
        wrong={problem !== null}
        aria-describedby={`${id}-echo`}
        onFocus={(event) => event.target.select()}
        onChange={(event) => onChange(event.target.value)}
        onBlur={onCommit}
        onKeyDown={({ key }) => {
          if (key !== 'Enter') return;
          onCommit();
          onEnter?.(id);
        }}
      />
    </FieldFrame>
  );
}
