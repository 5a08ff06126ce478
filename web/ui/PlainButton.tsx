import type { ButtonHTMLAttributes } from 'react';

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  primary?: boolean;
}

/** A button for pages that must be there at once, dressed like all others. */
export function PlainButton({ primary = false, className = '', ...button }: Props) {
  return (
    <button
      type="button"
      {...button}
      className={`plain-button${primary ? ' is-primary' : ''} ${className}`.trimEnd()}
    />
  );
}
