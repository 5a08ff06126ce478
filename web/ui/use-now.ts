import { useEffect, useState } from 'react';

/**
 * The time now, ms, anew each second until then: Infinity for one without an end, null while nothing runs, and then how
 * it stood when it last ran. `look` has it at once, as where something starts.
 */
export function useNow(until: number | null): { now: number; look: () => number } {
  const [now, setNow] = useState(Date.now);
  const runs = until !== null && now < until;
  const look = () => {
    const at = Date.now();
    setNow(at);
    return at;
  };
  useEffect(() => {
    if (!runs) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [runs]);
  return { now, look };
}
