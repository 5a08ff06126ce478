import type { InputHTMLAttributes, ReactNode } from 'react';

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, 'aria-invalid'> {
  wrong?: boolean;
  /** What stands at its end, inside its frame. */
  suffix?: ReactNode;
}

/**
 * Where one line is written. The browser's own field in Emery's dress: pages that must be there at once carry no
 * library for it.
 */
export function LineInput({ wrong = false, suffix, ...input }: Props) {
  const field = (
    <input autoComplete="off" {...input} aria-invalid={wrong} className={`line-input${wrong ? ' is-wrong' : ''}`} />
  );
  if (suffix === undefined) return field;
  return (
    <span className={`line-input has-suffix${wrong ? ' is-wrong' : ''}`}>
      {field}
      {suffix}
    </span>
  );
}
