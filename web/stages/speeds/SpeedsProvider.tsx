import { useDrive } from '../../state/bench';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import { useBands } from '../../api/speeds';
import { type EngineMarks, marksOf } from '@emery/core/accessory';
import type { ShopBands } from '@emery/core/speeds';

/** What Speeds is about just now. */
export type SpeedsView = 'speeds' | 'use' | 'output' | 'pulleys' | 'check';

/** What the parts of Speeds share. */
export interface SpeedsState {
  engineRpm: number;
  setEngineRpm: (rpm: number) => void;
  marks: EngineMarks;
  bands: ShopBands;
  view: SpeedsView;
  setView: (view: SpeedsView) => void;
  /** True while the drawn pulleys turn. */
  turning: boolean;
  setTurning: (on: boolean) => void;
}

const SpeedsContext = createContext<SpeedsState | null>(null);

export function useSpeeds(): SpeedsState {
  const speeds = useContext(SpeedsContext);
  if (!speeds) throw new Error('useSpeeds outside a bench');
  return speeds;
}

const NO_BANDS: ShopBands = {};

/** Holds the engine speed that the bench is looked at with. */
export function SpeedsProvider({ wanted, children }: { wanted: boolean; children: ReactNode }) {
  const speeds = useDrive((drive) => drive.speeds);
  const marks = useMemo(() => marksOf(speeds), [speeds]);
  const [asked, setEngineRpm] = useState<number | null>(null);
  const [view, setView] = useState<SpeedsView>('speeds');
  const [turning, setTurning] = useState(() => !window.matchMedia?.('(prefers-reduced-motion: reduce)').matches);
  const bands = useBands(wanted).data?.bands ?? NO_BANDS;
  const engineRpm = asked ?? marks.cruise;
  const value = useMemo(
    () => ({ engineRpm, setEngineRpm, marks, bands, view, setView, turning, setTurning }),
    [engineRpm, marks, bands, view, turning],
  );
  return <SpeedsContext value={value}>{children}</SpeedsContext>;
}
