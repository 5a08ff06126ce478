import { useEffect, useState, type RefObject } from 'react';

/** Width and height of an element's inside, px, as it changes; 0 until it is known. */
export function useSizeOf(holder: RefObject<HTMLElement | null>): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) =>
      setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }),
    );
    watch.observe(holder.current!);
    return () => watch.disconnect();
  }, [holder]);
  return size;
}
