import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { HeardSound } from './tasks';

/** What Noise is about just now. */
export type NoiseView = 'listen' | 'clues' | 'causes' | 'learn' | 'after';

/** A sound that was listened to, and where it came from. */
export interface SoundInHand extends HeardSound {
  name: string;
  simulated: boolean;
  /** What a simulated bay hid, told once it was listened to. */
  hidden: string | null;
}

/** What the parts of Noise share. Its sums come with its ledger, not with the bench. */
export interface NoiseState {
  view: NoiseView;
  setView: (view: NoiseView) => void;
  inHand: SoundInHand | null;
  setInHand: (sound: SoundInHand | null) => void;
  /** A part that is pointed out on the drawing: a pulley or a belt; null follows the ranking. */
  suspect: string | null;
  setSuspect: (id: string | null) => void;
  /** The test that was picked in place of the best, by its key. */
  picked: string | null;
  setPicked: (key: string | null) => void;
}

const NoiseContext = createContext<NoiseState | null>(null);

export function useNoise(): NoiseState {
  const noise = useContext(NoiseContext);
  if (!noise) throw new Error('useNoise outside a bench');
  return noise;
}

export function NoiseProvider({ children }: { children: ReactNode }) {
  const [view, setView] = useState<NoiseView>('listen');
  const [inHand, setInHand] = useState<SoundInHand | null>(null);
  const [suspect, setSuspect] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const value = useMemo(
    (): NoiseState => ({ view, setView, inHand, setInHand, suspect, setSuspect, picked, setPicked }),
    [view, inHand, suspect, picked],
  );
  return <NoiseContext value={value}>{children}</NoiseContext>;
}
