import { Button, Input } from 'antd';
import { useTyped } from '../ui/typed-text';

interface Props {
  /** Where it is typed, so that two remarks under way do not meet. */
  place: string;
  label: string;
  onAdd: (text: string) => void;
}

/** A remark to be written; what is typed outlives a reload. */
export function RemarkForm({ place, label, onAdd }: Props) {
  const [text, setText] = useTyped(place, '');
  const add = () => {
    if (text.trim() !== '') onAdd(text.trim());
    setText('');
  };
  return (
    <div className="job-new is-flush">
      <Input.TextArea
        autoSize
        maxLength={2000}
        value={text}
        aria-label={label}
        placeholder="Note for the next technician"
        onChange={(event) => setText(event.target.value)}
      />
      <Button onClick={add}>Add</Button>
    </div>
  );
}
