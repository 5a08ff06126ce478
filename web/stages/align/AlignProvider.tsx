import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { PlannedMove } from '@emery/core/align';
import type { Drive } from '@emery/core/drive';

/** What Align is about just now. */
export type AlignView = 'read' | 'runs' | 'grooves' | 'cures' | 'parts';

/** Moves that are looked at, on the drive they were found for. */
export interface Tried {
  drive: Drive;
  belt: string;
  moves: readonly PlannedMove[];
}

/** Where the next reading is taken: what the form is set to, drawn on the front view. */
export interface ReadingPlace {
  pulley: string;
  /** Degrees counter-clockwise from +x; null at the hub. */
  at: number | null;
}

/** What the parts of Align share. Its sums come with its ledger, not with the bench. */
export interface AlignState {
  view: AlignView;
  setView: (view: AlignView) => void;
  tried: Tried | null;
  setTried: (tried: Tried | null) => void;
  /** Chosen by hand; null follows the reading that would tell most. */
  place: ReadingPlace | null;
  setPlace: (place: ReadingPlace | null) => void;
  /** The set of readings that is looked at and added to. */
  loaded: boolean;
  setLoaded: (on: boolean) => void;
}

const AlignContext = createContext<AlignState | null>(null);

export function useAlign(): AlignState {
  const align = useContext(AlignContext);
  if (!align) throw new Error('useAlign outside a bench');
  return align;
}

export function AlignProvider({ children }: { children: ReactNode }) {
  const [view, setView] = useState<AlignView>('read');
  const [tried, setTried] = useState<Tried | null>(null);
  const [place, setPlace] = useState<ReadingPlace | null>(null);
  const [loaded, setLoaded] = useState(false);
  const value = useMemo(
    (): AlignState => ({ view, setView, tried, setTried, place, setPlace, loaded, setLoaded }),
    [view, tried, place, loaded],
  );
  return <AlignContext value={value}>{children}</AlignContext>;
}
