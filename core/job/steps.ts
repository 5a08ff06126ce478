import type { PlannedMove } from '../align';
import { type Bolt, type Drive, listeningsLeft, type Phase, type Role, type RouteStop } from '../drive';
import { inspectDrive, type InspectItem } from '../inspect';
import type { PuttingOn } from '../seating';
import { boltsFor } from './bolts';
import { byStation, type HeldBelt, type HeldBy, idOf, jobBelts, type TightWay } from './held';
import { type BeltOrder, beltOrder } from './order';
import { coversOn, groupsOf, putOn, readTension, setAgain, type Together } from './put-on';
import { setRight } from './put-right';
import { takeOff } from './take-off';
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

/** A job's steps in order, and the adjusters that a hand sets in it. */
export interface JobPlan {
  steps: StepTold[];
  together: readonly Together[];
}

/**
 * What is done in a job, as the drive's own stages decide it: for all belts, or for one and those that have to come off
 * before it. Without a belt that has a route there is nothing to be done: the one step asks for it.
 */
export function planOf(drive: Drive, order: BeltOrder = beltOrder(drive)): JobPlan {
  const steps: StepTold[] = [];
  const put: Put = (phase, code, key, more = {}) =>
    steps.push({ id: [phase, code, key].filter((part) => part !== undefined).join(' '), phase, code, ...more });
  const { off, along } = jobBelts(drive, order);
  if (off.length === 0) {
    put('before', 'missing');
    return { steps, together: [] };
  }
  const on = [...off].reverse();
  const fresh = new Set(off.map(idOf));
  const together = groupsOf(drive, [...on, ...along], fresh);
  before(drive, put);
  const items = inspectDrive(drive);
  takeOff(drive, off, along, order, items, put);
  setRight(
    drive,
    off.map(({ belt }) => belt),
    items,
    put,
  );
  putOn(drive, on, together, put);
  check(drive, on, along, together, put);
  after(drive, on, together, put);
  return { steps, together };
}

export const stepsOf = (drive: Drive, order?: BeltOrder): StepTold[] => planOf(drive, order).steps;

function before(drive: Drive, put: Put): void {
  put('before', 'picture');
  put('before', 'key');
  put('before', 'cool');
  put('before', 'lay-out');
  put('before', 'covers', undefined, { bolts: boltsFor(drive, ['cover']) });
}

const CHARGES: readonly Role[] = ['alternator', 'generator'];

function check(
  drive: Drive,
  on: readonly HeldBelt[],
  along: readonly HeldBelt[],
  together: readonly Together[],
  put: Put,
): void {
  const all = [...on, ...along];
  for (const { belt } of all) put('check', 'grooves', belt.id, { belt: belt.id, route: belt.route });
  for (const { station } of byStation(on.filter(({ by }) => by === 'sprung-arm')))
    put('check', 'pointer', station.id, { station: station.id });
  put('check', 'hand-turn');
  for (const held of all) readTension(held.belt, 'check', together, ({ setN }) => setN, put);
  put('check', 'tools-out');
  coversOn(drive, 'check', put);
  put('check', 'battery');
  put('check', 'touch');
  put('check', 'run');
  put('check', 'noise');
  if (drive.stations.some(({ role }) => CHARGES.includes(role))) put('check', 'charge');
  put('check', 'load');
}

function after(drive: Drive, on: readonly HeldBelt[], together: readonly Together[], put: Put): void {
  if (together.length > 0) setAgain(drive, together, put);
  for (const { belt } of on) put('after', 'number', belt.id, { belt: belt.id });
  if (listeningsLeft(drive).length > 0) put('after', 'listen');
  put('after', 'next-look');
  put('after', 'spare');
}
