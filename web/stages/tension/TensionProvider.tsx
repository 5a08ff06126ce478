import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useDrive } from '../../state/bench';
import { type EngineMarks, type LoadChoice, marksOf } from '@emery/core/accessory';

/** What Tension is about just now. */
export type TensionView = 'runs' | 'loads' | 'window' | 'set' | 'check';

/** The state of the whole drive that is looked at. */
export interface Looked {
  /** Null follows the engine's idle. */
  rpm: number | null;
  choice: LoadChoice;
  wet: boolean;
}

/** What the parts of Tension share. Its sums come with its ledger, not with the bench. */
export interface TensionState {
  view: TensionView;
  setView: (view: TensionView) => void;
  marks: EngineMarks;
  rpm: number;
  looked: Looked;
  look: (change: Partial<Looked>) => void;
  /** A window that holds wet as well. */
  wetToo: boolean;
  setWetToo: (on: boolean) => void;
}

const TensionContext = createContext<TensionState | null>(null);

export function useTension(): TensionState {
  const tension = useContext(TensionContext);
  if (!tension) throw new Error('useTension outside a bench');
  return tension;
}

export function TensionProvider({ children }: { children: ReactNode }) {
  const speeds = useDrive((drive) => drive.speeds);
  const marks = useMemo(() => marksOf(speeds), [speeds]);
  const [view, setView] = useState<TensionView>('runs');
  const [looked, setLooked] = useState<Looked>({ rpm: null, choice: { all: 'heaviest' }, wet: false });
  const [wetToo, setWetToo] = useState(false);
  const value = useMemo(
    (): TensionState => ({
      view,
      setView,
      marks,
      rpm: looked.rpm ?? marks.idle,
      looked,
      look: (change) => setLooked((now) => ({ ...now, ...change })),
      wetToo,
      setWetToo,
    }),
    [view, marks, looked, wetToo],
  );
  return <TensionContext value={value}>{children}</TensionContext>;
}
