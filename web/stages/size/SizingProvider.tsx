import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useParams } from 'react-router';
import { useGrowth } from '../../api/records';
import { useStockedLengths } from '../../api/stock';
import { useWhile } from '../../state/bench';
import { useCoreSum, type SumStopped } from '../../state/use-core-sum';
import type { StockedLength } from '@emery/core/api';
import type { SizeAnswer } from '@emery/core/size';

/** What Size knows of the belt in hand: shared by the chart and the ledger. */
export interface SizingState {
  /** Null while it is worked out anew for another drive or belt, or there is nothing to size. */
  answer: SizeAnswer | null;
  /** Share of the sum done; null when it rests. */
  progress: number | null;
  stopped: SumStopped | null;
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
  children: ReactNode;
}

/** Sizes the belt in hand beside the page, once the hand rests. */
export function SizingProvider({ wanted, children }: Props) {
  const { drive, belt: inHand } = useWhile(wanted);
  const belt = inHand?.id ?? null;
  const [looked, setLooked] = useState<readonly number[]>([]);
  const [chosen, choose] = useState<number | null>(null);
  const source = drive.belts.find(({ id }) => id === belt);
  const own = source?.length ?? null;
  const ribs = source?.ribs ?? null;
  const stocked = useStockedLengths(wanted && source ? source.section : null, ribs);
  const lengths = stocked.data?.lengths;
  const stock = useMemo(() => (lengths ?? []).map(({ lengthMm }) => lengthMm), [lengths]);
  const { driveId = '' } = useParams();
  const isKept = (source?.tried ?? []).some(({ kept }) => kept === true);
  const growth = useGrowth(wanted && source && isKept ? source.section : null, driveId).data?.growth ?? null;
  const also = useMemo(() => [...looked, ...(own ? [own] : [])], [looked, own]);

  // Without an answer from the list of belts common lengths do.
  const waiting = wanted && stocked.isPending && stocked.fetchStatus === 'fetching';

  const asked = useMemo(
    () => (wanted && belt !== null && !waiting ? { drive, belt, also, stock, growth } : null),
    [wanted, drive, belt, also, stock, growth, waiting],
  );
  const { found, progress, stopped } = useCoreSum('size', asked);

  const answer = found && found.input.belt === belt && found.input.drive === drive ? found.output : null;
  const value = useMemo(
    () => ({
      answer,
      progress,
      stopped,
      stock: lengths ?? [],
      also,
      lookAt: (mm: number) => setLooked((now) => [...new Set([...now, mm])]),
      chosen,
      choose,
    }),
    [answer, progress, stopped, lengths, also, chosen],
  );
  return <SizingContext value={value}>{children}</SizingContext>;
}
