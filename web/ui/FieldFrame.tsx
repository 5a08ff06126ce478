import type { ReactNode } from 'react';

interface Props {
  /** Of the field inside; what stands below it is `${id}-echo`. */
  id: string;
  label: string;
  problem: string | null;
  /** What stands below it while nothing is wrong. */
  echo?: string;
  children: ReactNode;
}

/** A field with its label above, and below it what was understood or what is wrong. */
export function FieldFrame({ id, label, problem, echo = '', children }: Props) {
  return (
    <div className="field">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      {children}
      <p id={`${id}-echo`} className={`field-echo${problem ? ' is-wrong' : ''}`} role={problem ? 'alert' : undefined}>
        {problem || echo}
      </p>
    </div>
  );
}
