import { useId } from 'react';

interface Props<T extends string> {
  label: string;
  values: readonly T[];
  options: readonly { value: T; label: string }[];
  onChange: (values: T[]) => void;
}

/** Any of a few, all in sight: a tap or the space bar takes one or lets it go. */
export function SomeOf<T extends string>({ label, values, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div className="field is-wide">
      <span className="label" id={id}>
        {label}
      </span>
      <div className="chips" role="group" aria-labelledby={id}>
        {options.map(({ value, label: name }) => {
          const chosen = values.includes(value);
          return (
            <label key={value} className={`chip${chosen ? ' is-chosen' : ''}`}>
              <input
                type="checkbox"
                value={value}
                checked={chosen}
                onChange={() => onChange(chosen ? values.filter((other) => other !== value) : [...values, value])}
              />
              {name}
            </label>
          );
        })}
      </div>
    </div>
  );
}
