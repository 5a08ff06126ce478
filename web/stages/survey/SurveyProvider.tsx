import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { useWhile } from '../../state/bench';
import type { SumStopped } from '../../state/use-core-sum';
import { useSurveyFit } from './use-survey-fit';
import type { SurveyFit } from '@emery/core/survey';

/** What a drive that was just made brings along. */
export interface FreshState {
  fresh?: boolean;
  look?: Surveying;
}

/** What is measured just now. */
export type Surveying = 'pulleys' | 'tapes' | 'picture';

/**
 * The picture in hand: which, the pulley whose rim takes points (null while the drawing shows), and how strongly it
 * shows under the drawing, 0 to 1.
 */
export interface PictureInHand {
  id: string | null;
  marking: string | null;
  strength: number;
}

/** What the parts of Survey share. */
export interface SurveyState {
  /** What tape readings and pictures come to; null without any or while it is being worked out. */
  fit: SurveyFit | null;
  /** Why there is no fit, where the sum stopped. */
  stopped: SumStopped | null;
  /** The tape the user is asked for, drawn rim to rim; null draws the one the fit asks for. */
  tapeAsked: { from: string; to: string } | null;
  setTapeAsked: (tape: { from: string; to: string } | null) => void;
  /** True where the next tape is to be written at once: its field has the focus. */
  tapeFirst: boolean;
  setTapeFirst: (first: boolean) => void;
  surveying: Surveying;
  setSurveying: (what: Surveying) => void;
  picture: PictureInHand;
  /** Lays `change` over what is in hand. */
  setPicture: (change: Partial<PictureInHand>) => void;
}

const SurveyContext = createContext<SurveyState | null>(null);

export function useSurveying(): SurveyState {
  const survey = useContext(SurveyContext);
  if (!survey) throw new Error('useSurveying outside a bench');
  return survey;
}

export function SurveyProvider({ wanted, children }: { wanted: boolean; children: ReactNode }) {
  const { drive } = useWhile(wanted);
  const { fit, stopped } = useSurveyFit(drive, wanted);
  const [tapeAsked, setTapeAsked] = useState<SurveyState['tapeAsked']>(null);
  const fresh = useLocation().state as FreshState | null;
  const [surveying, setSurveying] = useState<Surveying>(fresh?.look ?? 'pulleys');
  const [tapeFirst, setTapeFirst] = useState(false);
  const [picture, changePicture] = useState<PictureInHand>({ id: null, marking: null, strength: 0.45 });
  const setPicture = useCallback(
    (change: Partial<PictureInHand>) => changePicture((now) => ({ ...now, ...change })),
    [],
  );
  // Another stage shows the drawing again.
  if (!wanted && picture.marking !== null) changePicture({ ...picture, marking: null });
  const value = useMemo(
    () => ({
      fit,
      stopped,
      tapeAsked,
      setTapeAsked,
      tapeFirst,
      setTapeFirst,
      surveying,
      setSurveying,
      picture,
      setPicture,
    }),
    [fit, stopped, tapeAsked, tapeFirst, surveying, picture, setPicture],
  );
  return <SurveyContext value={value}>{children}</SurveyContext>;
}
