import { steady } from './steady';
import { Select } from 'antd';
import { useId } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}

function ChoiceOf<T extends string>({ label, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      <Select<T>
        id={id}
        value={value}
        options={[...options]}
        onChange={onChange}
        popupMatchSelectWidth={false}
        virtual={false}
      />
    </div>
  );
}

/** One of a few, with its label above. */
export const Choice = steady(ChoiceOf) as typeof ChoiceOf;
