import { useEffect, useState } from 'react';

/**
 * The value as it last stood still for `ms`: what is slow to work out, and nobody looks at while a finger moves,
 * follows once it rests. At first the value itself.
 */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, settle] = useState(value);
  useEffect(() => {
    if (Object.is(value, settled)) return;
    const timer = setTimeout(() => settle(value), ms);
    return () => clearTimeout(timer);
  }, [value, settled, ms]);
  return settled;
}
