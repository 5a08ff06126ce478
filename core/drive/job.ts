import * as is from './fields';
import { TORQUE_UNITS, type TorqueUnit } from '../quantity';

/** The parts of a job, in the order of the work. */
export const PHASES = ['before', 'off', 'set', 'on', 'check', 'after'] as const;
export type Phase = (typeof PHASES)[number];

/** What a bolt is there for. A cover's comes off first of all; a jam nut holds the adjuster's screw once it is set. */
export const BOLT_USES = ['pivot', 'lock', 'jam', 'adjust', 'mount', 'cover'] as const;
export type BoltUse = (typeof BOLT_USES)[number];
export const BOLT_REUSES = ['again', 'new', 'compound'] as const;
export type BoltReuse = (typeof BOLT_REUSES)[number];

/** A bolt that the job turns, with what the service manual says of it. */
export interface Bolt {
  readonly id: string;
  readonly station: string;
  readonly use: BoltUse;
  readonly name?: string;
  /** The thread, and what turns it: `M10`, `15 mm socket`. */
  readonly size?: string;
  readonly tool?: string;
  /** From the manual, N·m; and what it is written in there. */
  readonly torqueNm?: number;
  readonly torqueUnit?: TorqueUnit;
  /** Turned on by so many degrees after the torque. */
  readonly angleDeg?: number;
  /** Its place in the order of tightening. */
  readonly order?: number;
  /** Goes in again, only a new one, or again with thread compound. */
  readonly reuse?: BoltReuse;
}

/** A step that a hand added to the card. */
export interface OwnStep {
  readonly id: string;
  readonly phase: Phase;
  readonly text: string;
}

/** What belongs to the job card besides what the other stages decided. */
export interface Job {
  readonly bolts?: readonly Bolt[];
  readonly own?: readonly OwnStep[];
  /** Other words for a step of the card. */
  readonly words?: readonly { readonly step: string; readonly text: string }[];
  /** Steps left out, by id. */
  readonly leftOut?: readonly string[];
  /** Steps in the order a hand gave them, by id; others stand where the card puts them. */
  readonly order?: readonly string[];
}

const ids = () => is.optionalList(is.id(), 400);
export const job = is.record<Job>({
  bolts: is.named(
    'bolts',
    is.optionalList(
      is.item<Bolt>({
        id: is.named('id', is.id()),
        station: is.named('shaft', is.id()),
        use: is.named('use', is.needed(is.oneOf(BOLT_USES))),
        name: is.named('name', is.text(80)),
        size: is.named('thread', is.text(40)),
        tool: is.named('tool', is.text(60)),
        torqueNm: is.named('torque', is.finite('a torque in N·m', 2000).moreThan(0, 'must be more than 0 N·m'), 'N·m'),
        torqueUnit: is.named('unit of its torque', is.oneOf(TORQUE_UNITS)),
        angleDeg: is.named(
          'angle after the torque',
          is.angle().moreThan(0, 'must be more than 0°').max(720, 'must be 720° at most'),
          '°',
        ),
        order: is.named('order', is.wholeNumber('a whole number', 100)),
        reuse: is.named('whether it is reused', is.oneOf(BOLT_REUSES)),
      }),
      100,
    ),
  ),
  own: is.named(
    'own steps',
    is.optionalList(
      is.item<OwnStep>({
        id: is.named('id', is.id()),
        phase: is.named('phase', is.needed(is.oneOf(PHASES))),
        text: is.named('text', is.needed(is.text(400))),
      }),
      100,
    ),
  ),
  words: is.named(
    'steps reworded',
    is.optionalList(
      is.item<NonNullable<Job['words']>[number]>({
        step: is.named('step', is.id()),
        text: is.named('text', is.needed(is.text(400))),
      }),
      200,
    ),
  ),
  leftOut: is.named('steps left out', ids()),
  order: is.named('order of the steps', ids()),
});
