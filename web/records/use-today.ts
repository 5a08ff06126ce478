import { useSyncExternalStore } from 'react';

const day = () => new Date().toISOString().slice(0, 10);
/** A page may stay open over midnight: looked at every minute, told once a day. */
const everyMinute = (listener: () => void) => {
  const timer = setInterval(listener, 60_000);
  return () => clearInterval(timer);
};

/** The day it is, ISO 8601. */
export const useToday = (): string => useSyncExternalStore(everyMinute, day);
