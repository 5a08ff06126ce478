import { useCallback, useRef, useSyncExternalStore } from 'react';
import { Listeners } from './listeners';

/** One value outside React that components follow. */
export interface Store<T> {
  get: () => T;
  set: (next: T) => void;
  subscribe: (listener: () => void) => () => void;
}

/** A store that tells its listeners of a value only where it is not the `same` as the last. */
export function createStore<T>(first: T, same: (a: T, b: T) => boolean = Object.is): Store<T> {
  let value = first;
  const listeners = new Listeners();
  return {
    get: () => value,
    set: (next) => {
      if (same(value, next)) return;
      value = next;
      listeners.tell();
    },
    subscribe: listeners.add,
  };
}

export type Readable<T> = Pick<Store<T>, 'get' | 'subscribe'>;

export const useStore = <T>(store: Readable<T>): T => useSyncExternalStore(store.subscribe, store.get);

/** The fields of those names; the component is drawn again only when one of them is another. */
export function useFields<T extends object, K extends keyof T & string>(
  { get, subscribe }: Readable<T>,
  fields: readonly K[],
): Pick<T, K> {
  const names = fields.join();
  const last = useRef<Pick<T, K> | null>(null);
  const snapshot = useCallback(() => {
    const [now, wanted] = [get(), names.split(',') as K[]];
    const before = last.current;
    if (before && wanted.every((field) => Object.is(before[field], now[field]))) return before;
    return (last.current = Object.fromEntries(wanted.map((field) => [field, now[field]])) as Pick<T, K>);
  }, [get, names]);
  return useSyncExternalStore(subscribe, snapshot);
}
