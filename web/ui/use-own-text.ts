import { useState, type ChangeEvent } from 'react';

/**
 * A text field that writes every letter through: what is written stays as it is written until the field is left,
 * whatever others make of it meanwhile. One that is emptied from outside, as a form that is done with, is empty.
 */
export function useOwnText(value: string, onChange: (text: string) => void) {
  const [written, setWritten] = useState<string | null>(null);
  return {
    value: value === '' ? '' : (written ?? value),
    onChange: ({ target }: ChangeEvent<HTMLInputElement>) => {
      setWritten(target.value);
      onChange(target.value);
    },
    onBlur: () => setWritten(null),
  };
}
