import { useEffect } from 'react';
import { useLocation } from 'react-router';
import type { BenchStores } from '../state/bench';
import { markOfPlace } from './place';

/** Takes in hand what the address names, as where a phone was brought to it. */
export function useMarkOfAddress(bench: BenchStores): void {
  const { search } = useLocation();
  useEffect(() => {
    const mark = markOfPlace(search, bench.get().drive);
    if (mark) bench.get().select(mark);
  }, [bench, search]);
}
