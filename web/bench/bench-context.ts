import { createContext, useContext } from 'react';
import type { DriveAction } from './drive-history';
import type { SumStopped } from './use-core-sum';
import type { Drive } from '@emery/core/drive';
import type { BeltSolution, DriveSolution } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';
import type { SurveyFit } from '@emery/core/survey';

export type Stage = 'survey' | 'route' | 'size' | 'speeds';

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

/**
 * What is in hand or pointed at: a shaft (with the pulley of it that is meant), the span after a stop of the belt, or
 * an obstacle.
 */
export type Mark =
  | { kind: 'pulley'; station: string; pulley: string }
  | { kind: 'span'; belt: string; index: number }
  | { kind: 'obstacle'; id: string };

/** Everything the three parts of the bench share. */
export interface Bench {
  drive: Drive;
  solution: DriveSolution;
  unit: LengthUnit;
  stage: Stage;
  /** The belt in hand; null while the drive has none. */
  belt: BeltSolution | null;
  setBelt: (id: string) => void;
  selected: Mark | null;
  select: (mark: Mark | null) => void;
  hovered: Mark | null;
  hover: (mark: Mark | null) => void;
  /** True while taps put pulleys on the belt in order. */
  tapping: boolean;
  setTapping: (on: boolean) => void;
  /** A tap on a shaft while tapping. */
  tap: (stationId: string) => void;
  /** A finger drawn across a shaft while tapping. */
  trace: (stationId: string) => void;
  /** What tape readings and pictures come to; null without any or while it is being worked out. */
  surveyFit: SurveyFit | null;
  /** Why there is no fit, where the sum stopped. */
  surveyStopped: SumStopped | null;
  /** The tape the user is asked for, drawn rim to rim; null draws the one the fit asks for. */
  tapeAsked: { from: string; to: string } | null;
  setTapeAsked: (tape: { from: string; to: string } | null) => void;
  /** What Survey is about just now. */
  surveying: Surveying;
  setSurveying: (what: Surveying) => void;
  picture: PictureInHand;
  /** Lays `change` over what is in hand. */
  setPicture: (change: Partial<PictureInHand>) => void;
  /**
   * The drive as the adjuster would stand with a belt that is pointed at; null where it stands as drawn. Only the front
   * view shows it.
   */
  setPose: (drive: Drive | null) => void;
  /** A drive only looked at, such as a route that was found: `drive` and `solution` are then its. */
  preview: Drive | null;
  setPreview: (drive: Drive | null) => void;
  /**
   * Starts a what-if, with a first change to it if any, that every edit goes to until it is kept or thrown away; null
   * while one is under way.
   */
  startWhatIf: ((change?: (drive: Drive) => Drive) => void) | null;
  /** Changes the drive, or the what-if that is under way. */
  dispatch: (action: DriveAction) => void;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error('useBench outside a bench');
  return bench;
}

export function sameMark(a: Mark | null, b: Mark | null): boolean {
  if (a === null || b === null || a.kind !== b.kind) return false;
  if (a.kind === 'pulley') return b.kind === 'pulley' && a.station === b.station;
  if (a.kind === 'obstacle') return b.kind === 'obstacle' && a.id === b.id;
  return b.kind === 'span' && a.belt === b.belt && a.index === b.index;
}

/** A change of the drive as an action. */
export const edit = (change: (drive: Drive) => Drive, group?: string): DriveAction => ({
  type: 'edit',
  change,
  ...(group !== undefined && { group }),
});
