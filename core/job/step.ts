import type { PlannedMove } from '../align';
import type { Bolt, Phase, RouteStop } from '../drive';
import type { InspectItem } from '../inspect';
import type { PuttingOn } from '../seating';
import type { HeldBy, TightWay } from './held';
import type { BeltFigure } from './together';

/** What is done in one step of a job. */
export const STEP_CODES = [
  'missing',
  'picture',
  'key',
  'cool',
  'covers',
  'lay-out',
  'chalk',
  'slacken-bolts',
  'release',
  'slacken',
  'part-halves',
  'no-adjuster',
  'cut-off',
  'lift',
  'let-back',
  'print',
  'look',
  'change-part',
  'move',
  'clean',
  'cure',
  'lay',
  'let-down',
  'bleed',
  'set',
  'close-halves',
  'work-on',
  'bolt',
  'bolts',
  'grooves',
  'pointer',
  'tools-out',
  'hand-turn',
  'battery',
  'touch',
  'covers-on',
  'run',
  'noise',
  'charge',
  'load',
  'read-tension',
  'run-in',
  'stop',
  'set-again',
  'number',
  'listen',
  'next-look',
  'spare',
  'own',
] as const;
export type StepCode = (typeof STEP_CODES)[number];

/** A step as data; its words are made in `step-words.ts`. Ids stay what they are while the drive is worked on. */
export interface StepTold {
  id: string;
  phase: Phase;
  code: StepCode;
  belt?: string;
  /** Of a step that is done on several belts at once: all of them. */
  belts?: readonly string[];
  /** Belts that stay on and come slack with it. */
  slackToo?: readonly string[];
  /** Over which rim each belt goes on last. */
  rims?: readonly { belt: string; pulley: string | null }[];
  station?: string;
  pulley?: string;
  /** Of a belt that comes off for another's sake: that one, and the shaft where it is in front of it. */
  gives?: { belt: string; station: string | null };
  bolts?: readonly Bolt[];
  release?: NonNullable<PuttingOn['release']>;
  by?: HeldBy;
  way?: TightWay;
  route?: readonly RouteStop[];
  move?: PlannedMove;
  part?: Pick<InspectItem, 'on' | 'target'>;
  /** True of a part that is still good and is offered with another. */
  offered?: boolean;
  outcome?: string;
  minutes?: number;
  /** Whether the minutes are Emery's default. */
  byDefault?: boolean;
  /** What belts are set to, or read, N; the first is the one that is set by. */
  figures?: readonly (Pick<BeltFigure, 'belt' | 'leastN' | 'mostN'> & { newtons: number | null })[];
  /** What a hot engine adds, N. */
  hotN?: number;
  text?: string;
}

export type Put = (phase: Phase, code: StepCode, key?: string, more?: Partial<StepTold>) => void;

/** A step of the card as it is read and ticked off. */
export interface CardStep {
  id: string;
  phase: Phase;
  code: StepCode;
  text: string;
  caution: string | null;
  belt?: string;
  /** Of a step that is done on several belts at once: all of them. */
  belts?: readonly string[];
  /** Where the drawing shows it. */
  station?: string;
  pulley?: string;
  /** What is changed in it. */
  part?: StepTold['part'];
  /** How long it takes by itself, such as a run-in. */
  minutes?: number;
  /** A hand gave it other words. */
  reworded?: boolean;
}

/** How a plan that has changed since a job began differs from what the job is done by. */
export interface PlanChange {
  change: 'add' | 'remove' | 'reword';
  /** The step as it is now; of one that is gone, as it was. */
  step: CardStep;
  /** Of a new step: the one that it comes after; null where it is the first. */
  after?: string | null;
}
