import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';
import type { Check, KeptPicture, RibMarks } from '@emery/core/drive';

/** What Inspect is about just now. */
export type InspectView = 'walk' | 'close-up' | 'verdicts' | 'limits';

/** A close-up that is looked at, and what it is for. */
export interface CloseUpInHand {
  picture: KeptPicture;
  /** The belt whose ribs it shows. */
  belt: string;
  marks: RibMarks;
  /** Which marks a tap on the picture puts. */
  row: 'tips' | 'valleys';
  /** What the finder said of the grooves' shape, where it found them. */
  profile: 'v' | 'worn' | 'u' | null;
  /** The finding it was opened from, which is then put right; null for a new one. */
  finding: string | null;
  /** How deep they are, where the picture is made up to learn by, mm. */
  answerMm: number | null;
}

/** What the parts of Inspect share. */
export interface InspectState {
  view: InspectView;
  setView: (view: InspectView) => void;
  /** The part the walk stands at, by its key; null begins at the first. */
  at: string | null;
  setAt: (part: string | null) => void;
  /** The damage whose places are tapped on the belt laid flat; null while none is. */
  placing: Check | null;
  setPlacing: (check: Check | null) => void;
  closeUp: CloseUpInHand | null;
  setCloseUp: (closeUp: CloseUpInHand | null) => void;
  /** When this look began, ISO 8601. */
  began: string;
}

const InspectContext = createContext<InspectState | null>(null);

export function useInspect(): InspectState {
  const inspect = useContext(InspectContext);
  if (!inspect) throw new Error('useInspect outside a bench');
  return inspect;
}

export function InspectProvider({ children }: { children: ReactNode }) {
  const [view, setView] = useState<InspectView>('walk');
  const [at, setAt] = useState<string | null>(null);
  const [placing, setPlacing] = useState<Check | null>(null);
  const [closeUp, setCloseUp] = useState<CloseUpInHand | null>(null);
  const [began] = useState(() => new Date().toISOString());
  const value = useMemo(
    (): InspectState => ({
      view,
      setView,
      at,
      setAt,
      placing,
      setPlacing,
      closeUp,
      setCloseUp,
      began,
    }),
    [view, at, placing, closeUp, began],
  );
  return <InspectContext value={value}>{children}</InspectContext>;
}
