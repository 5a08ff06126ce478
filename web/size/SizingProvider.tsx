import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import type { Drive } from '@emery/core/drive';
import type { SizeAnswer } from '@emery/core/size';
import { useStockedLengths, type StockedLength } from '../api/stock';
import { runCore } from '../bench/run-core';

/** What Size knows of the belt in hand: shared by the chart and the ledger. */
export interface SizingState {
  /** Null while it is worked out anew for another drive or belt, or there is nothing to size. */
  answer: SizeAnswer | null;
  /** Share of the sum done; null when it rests. */
  progress: number | null;
  /** The lengths in the shop's list of this section and rib count. */
  stock: readonly StockedLength[];
  /** Lengths to look at besides the common ones, mm. */
  also: readonly number[];
  lookAt: (mm: number) => void;
  /** The candidate pointed at, by its length. */
  chosen: number | null;
  choose: (mm: number | null) => void;
}

const SizingContext = createContext<SizingState | null>(null);

export function useSizing(): SizingState {
  const sizing = useContext(SizingContext);
  if (!sizing) throw new Error('useSizing outside a bench');
  return sizing;
}

interface Props {
  wanted: boolean;
  drive: Drive;
  belt: string | null;
  children: ReactNode;
}

/** Sizes the belt in hand beside the page, once the hand rests. */
export function SizingProvider({ wanted, drive, belt, children }: Props) {
  const [found, setFound] = useState<{ answer: SizeAnswer | null; drive: Drive; belt: string; also: readonly number[] } | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [looked, setLooked] = useState<readonly number[]>([]);
  const [chosen, choose] = useState<number | null>(null);
  const source = drive.belts.find(({ id }) => id === belt);
  const own = source?.length ?? null;
  const ribs = source?.ribs ?? null;
  const stocked = useStockedLengths(wanted && source ? source.section : null, ribs);
  const lengths = stocked.data?.lengths;
  const stock = useMemo(() => (lengths ?? []).map(({ lengthMm }) => lengthMm), [lengths]);
  const also = useMemo(() => [...looked, ...(own ? [own] : [])], [looked, own]);

  // Without an answer from the list of belts common lengths do.
  const waiting = wanted && stocked.isPending && stocked.fetchStatus === 'fetching';

  useEffect(() => {
    if (!wanted || belt === null || waiting) return;
    let cancel = () => undefined as void;
    const timer = setTimeout(() => {
      setProgress(0);
      const running = runCore('size', { drive, belt, also, stock }, setProgress);
      cancel = running.cancel;
      void running.done.then((answer) => {
        setFound({ answer, drive, belt, also });
        setProgress(null);
      });
    }, 120);
    return () => {
      clearTimeout(timer);
      cancel();
    };
  }, [wanted, drive, belt, also, stock, waiting]);

  const answer = found && found.belt === belt && found.drive === drive ? found.answer : null;
  const value = useMemo(
    () => ({ answer, progress, stock: lengths ?? [], also, lookAt: (mm: number) => setLooked((now) => [...new Set([...now, mm])]), chosen, choose }),
    [answer, progress, lengths, also, chosen],
  );
  return <SizingContext value={value}>{children}</SizingContext>;
}
