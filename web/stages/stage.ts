import type { ComponentType, ReactNode } from 'react';
import type { LazyModule } from '../parts/lazy-part';
import type { BenchStores } from '../state/bench';
import type { Belt, Drive, Pulley, Station } from '@emery/core/drive';
import type { BeltSolution, ContactSolution, DriveSolution, PathFinding, Point } from '@emery/core/path';
import type { LengthUnit } from '@emery/core/quantity';

export type StageState = 'untouched' | 'in progress' | 'settled' | 'needs attention';

/** A pulley on the front view, with what its belt does there; none where it is on no belt. */
export interface PulleyPlace {
  station: Station;
  main: Pulley;
  contact: ContactSolution | undefined;
}

/** The figure beside a pulley: words, or a length in the shop's unit. `mark` is set where the stage marks it itself. */
export interface PulleyFigure {
  text: string;
  mm?: number;
  mark?: 'fault' | 'watch' | 'none';
  /** So far outside its rim the stage draws a ring, px. */
  ringPx?: number;
}

/** A line that a stage's layer draws and names keep off: from and to in mm, y up, and half its thickness in px. */
export interface DrawnMark {
  start: Point;
  end: Point;
  halfPx?: number;
}

/** What is written beside each pulley, and what else the stage draws among them, by how many px a mm is. */
export interface PulleyFigures {
  (place: PulleyPlace): PulleyFigure;
  marks?: (k: number) => readonly DrawnMark[];
}

/** A hook that has both. */
export type UsePulleyFigure = () => PulleyFigures;

/** What a stage draws on the front view gets: radii of the pulleys by id, mm; screen px = mm × k + t, y down. */
export interface LayerProps {
  radii: ReadonlyMap<string, number>;
  k: number;
  tx: number;
  ty: number;
}

/** What a drag of a shaft to a place comes to: a change of the drive, or a drive that is only looked at. */
export type DragStep = { change: (drive: Drive) => Drive } | { pose: Drive };

/** How a stage lets shafts be dragged: what a drag of that one does at each place, or null where it stays. */
export type DragRule = (drive: Drive, belt: Belt | undefined, station: string) => ((to: Point) => DragStep) | null;

/** A key of a stage. `run` tells whether there was anything to do. */
export interface StageKey {
  /** As `KeyboardEvent.key` has it; letters in lower case. */
  key: string;
  /** As the list of keys shows it, and what it does. */
  shown: string;
  does: string;
  run: (bench: BenchStores) => boolean;
}

/** The drive as it is, and as the what-if has it. */
export interface WhatIfProps {
  before: Drive;
  after: Drive;
  unit: LengthUnit;
}

/** A step of the work, with all that it puts on the bench. */
export interface Stage {
  id: string;
  name: string;
  /** How far it has come, from the drive alone; by less where its `sums` are not there yet. */
  state: (drive: Drive, solution: DriveSolution) => StageState;
  /** What its state is worked out with, where that comes after the bench. */
  sums?: LazyModule<unknown>;
  Ledger: ComponentType;
  /** The picture below the front view. */
  Chart: ComponentType;
  /** Holds what its parts share; `wanted` while it is the stage in hand. */
  Provider?: ComponentType<{ wanted: boolean; children: ReactNode }>;
  /** Stands around the front view, and may show something in its place while it is wanted. */
  Front?: ComponentType<{ wanted: boolean; children: ReactNode }>;
  /** Drawn under the front view, and on it between pulleys and belts. */
  Underlay?: ComponentType<LayerProps>;
  Layer?: ComponentType<LayerProps>;
  /** The figure beside each pulley; by a hook that comes after the bench where its sums do. */
  pulleyFigure: UsePulleyFigure | LazyModule<UsePulleyFigure>;
  /** The findings that are marked on the drawing; those of the belt in hand where it does not say. */
  marked?: (solution: DriveSolution, belt: BeltSolution | null) => readonly PathFinding[];
  /** Its layer draws over the pulleys: names stand beside them. */
  coversPulleys?: boolean;
  /** Shafts on no belt are drawn as strongly as the others. */
  allShaftsAlike?: boolean;
  drag: DragRule;
  /** Arrow keys move the shaft in hand. */
  nudges?: boolean;
  /** Bolts and brackets can be dragged. */
  movesObstacles?: boolean;
  keys?: readonly StageKey[];
  /** Lines of the what-if panel beside length and wraps. */
  WhatIf?: ComponentType<WhatIfProps>;
}
