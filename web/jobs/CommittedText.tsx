import { TextField } from '../ui/TextField';
import { useOnLeave, useTyped } from '../ui/typed-text';

interface Props {
  label: string;
  value: string;
  max: number;
  onCommit: (text: string) => void;
}

/** A short text that is taken over on Enter, on leaving the field, and when the page goes away: not at every key. */
export function CommittedText({ label, value, max, onCommit }: Props) {
  const [text, setText] = useTyped<string | null>(label, null);
  const commit = () => {
    if (text !== null && text.trim() !== value) onCommit(text.trim());
    setText(null);
  };
  useOnLeave(commit);
  return (
    <div onBlur={commit} onKeyDown={(event) => event.key === 'Enter' && commit()}>
      <TextField label={label} value={text ?? value} max={max} onChange={setText} />
    </div>
  );
}
