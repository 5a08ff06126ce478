import { useId } from 'react';

interface Props<T extends string> {
  label: string;
  /** True where the label is for those alone who do not see it. */
  unseen?: boolean;
  value: T;
  options: readonly { value: T; label: string }[];
  onChange: (value: T) => void;
}

/** One of a few, all in sight: a tap or the arrow keys take another. */
export function Chips<T extends string>({ label, unseen = false, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div className="field is-wide">
      <span className={unseen ? 'visually-hidden' : 'label'} id={id}>
        {label}
      </span>
      <div className="chips" role="radiogroup" aria-labelledby={id}>
        {options.map((option) => (
          <label key={option.value} className={`chip${option.value === value ? ' is-chosen' : ''}`}>
            <input
              type="radio"
              name={id}
              value={option.value}
              checked={option.value === value}
              onChange={() => onChange(option.value)}
            />
            {option.label}
          </label>
        ))}
      </div>
    </div>
  );
}
