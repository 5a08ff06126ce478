import { useEffect, useEffectEvent } from 'react';
import { isWriting } from './is-writing';

/** A key with Ctrl, Alt or the like is the browser's own. */
export const withModifier = ({ ctrlKey, metaKey, altKey }: KeyboardEvent) => ctrlKey || metaKey || altKey;

/**
 * Keys of the page, while it is `wanted`: none works while something is written. What `act` says yes to is done with,
 * and nobody else hears it; with `first` it is asked before the rest of the page.
 */
export function useKeys(act: (event: KeyboardEvent) => boolean, { wanted = true, first = false } = {}): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (isWriting(event) || event.defaultPrevented || !act(event)) return;
    event.preventDefault();
    if (first) event.stopPropagation();
  });
  useEffect(() => {
    if (!wanted) return;
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listen, first);
    return () => window.removeEventListener('keydown', listen, first);
  }, [wanted, first]);
}

/** The Escape key closes what is open, and does nothing else then. */
export const useEscape = (close: () => void, wanted: boolean): void =>
  useKeys(
    (event) => {
      if (event.key !== 'Escape' || withModifier(event)) return false;
      close();
      return true;
    },
    { wanted, first: true },
  );
