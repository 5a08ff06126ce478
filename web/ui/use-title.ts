import { useEffect } from 'react';

/** What the page is called in the browser's tab; the name before stays until there is one. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = parts.every((part) => part !== undefined) ? [...parts, 'Emery'].join(' · ') : null;
  useEffect(() => {
    if (title !== null) document.title = title;
  }, [title]);
}
