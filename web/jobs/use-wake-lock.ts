import { useEffect, useState } from 'react';

/** Keeps the screen on while wanted, where the browser can; true while it does. */
export function useWakeLock(wanted: boolean): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let ended = false;
    // The browser lets go of it whenever the page is out of sight; it is asked for again when it is back.
    const hold = async () => {
      if (document.visibilityState !== 'visible' || lock?.released === false) return;
      // Refused, as with an empty battery: the screen goes off as it always does.
      const got = await navigator.wakeLock.request('screen').catch(() => null);
      if (ended) return void got?.release();
      lock = got;
      setHeld(got !== null);
      got?.addEventListener('release', () => setHeld(false));
    };
    void hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      ended = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
      setHeld(false);
    };
  }, [wanted]);
  return held;
}
