import {
  type Bolt,
  type BoltReuse,
  type BoltUse,
  type Drive,
  type Phase,
  pulleyLabel,
  type RouteStop,
  stationLabel,
} from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { capital, plural, torqueFigure, grouped } from '../quantity';
import { sectionOf } from '../loads';
import { DRIVE_SIDE_WORDS } from '../section';
import type { JobFinding } from './finding';
import type { JobEvent, JobRun } from './run';
import type { CardStep, StepTold } from './step';

export const PHASE_WORDS: Record<Phase, string> = {
  before: 'Before',
  off: 'Belts off',
  set: 'Corrections',
  on: 'Belts on',
  check: 'Check',
  after: 'After',
};

export const BOLT_USE_WORDS: Record<BoltUse, { name: string; hint: string }> = {
  pivot: { name: 'Pivot', hint: 'The accessory or the arm pivots on it. Slackened first, tightened last.' },
  lock: { name: 'Lock', hint: 'Holds the adjuster where it was set.' },
  jam: { name: 'Jam nut', hint: 'Holds the adjuster’s screw or link. Tightened once the belt is set.' },
  adjust: { name: 'Adjuster', hint: 'The screw or link that moves it. Turned to set the belt, before the lock bolt.' },
  mount: { name: 'Mount', hint: 'Holds a bracket, a tensioner or an accessory to the engine.' },
  cover: { name: 'Cover', hint: 'Holds a part that must come off first: a shroud, a guard, a fan.' },
};
export const BOLT_REUSE_WORDS: Record<BoltReuse, string> = {
  again: 'reuse',
  new: 'fit a new bolt each time',
  compound: 'reuse, with thread compound',
};

/** A belt by its number in the file; of one that stands alone only what it is. */
export function beltName(drive: Drive, id: string | undefined): string {
  return drive.belts.length === 1 ? 'the belt' : `belt ${drive.belts.findIndex((belt) => belt.id === id) + 1}`;
}

/**
 * The order in which a belt is laid round its pulleys, each with the side that lies on it: those that stand still from
 * the crank on, then the one that tightens it, and last the rim it is easiest slipped over.
 */
export function layingWords(drive: Drive, step: Pick<StepTold, 'belt' | 'route' | 'station' | 'pulley'>): string {
  const belt = drive.belts.find(({ id }) => id === step.belt)!;
  const side = DRIVE_SIDE_WORDS[sectionOf(belt).kind];
  const tightens = drive.stations.find(({ id }) => id === step.station)?.pulleys ?? [];
  const placeOf = ({ pulley }: RouteStop) => {
    if (pulley === step.pulley) return 2;
    return tightens.some(({ id }) => id === pulley) ? 1 : 0;
  };
  const words = (stop: RouteStop) => `${pulleyLabel(drive, stop.pulley)} (${stop.side === 'back' ? 'back' : side})`;
  const [still, moved, last] = [0, 1, 2].map((place) =>
    (step.route ?? [])
      .filter((stop) => placeOf(stop) === place)
      .map(words)
      .join(', '),
  );
  return [still, moved && `then ${moved}`, last && `last ${last}, the easiest rim`].filter(Boolean).join('; ');
}

const boltCalled = (drive: Drive, { station, use, name }: Bolt) => {
  const at = drive.stations.find(({ id }) => id === station);
  return name || `${BOLT_NAMES[use]} of ${at ? stationLabel(at) : station}`;
};
const BOLT_NAMES: Record<BoltUse, string> = {
  pivot: 'pivot bolt',
  lock: 'lock bolt',
  jam: 'jam nut',
  adjust: 'adjuster’s screw',
  mount: 'mount bolt',
  cover: 'cover bolt',
};

/** A bolt as it is undone: what it is, its thread and its tool: `lock bolt of Alternator, M8, 13 mm socket`. */
export const boltName = (drive: Drive, bolt: Bolt): string =>
  [boltCalled(drive, bolt), bolt.size, bolt.tool].filter(Boolean).join(', ');

/** A bolt with all that the manual says of it: `lock bolt of Alternator, M8, 13 mm socket, 25 N·m (18.4 lbf·ft)`. */
export function boltWords(drive: Drive, bolt: Bolt): string {
  const { torqueNm, torqueUnit, angleDeg, reuse } = bolt;
  const turned = [
    torqueNm === undefined ? '' : torqueFigure(torqueNm, torqueUnit),
    angleDeg === undefined ? '' : `${torqueNm === undefined ? '' : 'then '}${angleDeg}° on`,
  ].filter(Boolean);
  return [boltName(drive, bolt), turned.join(', '), reuse === 'again' ? '' : reuse && BOLT_REUSE_WORDS[reuse]]
    .filter(Boolean)
    .join(', ');
}

type BeltNamed = (belt: string) => string;

const JOB_WORDS: WordsByCode<JobFinding, BeltNamed> = {
  'no-belts': () => ({
    title: 'No belt has a route yet.',
    why: 'Without one there is nothing to take off and nothing to fit.',
    todo: 'Measure the pulleys under Survey, then draw the belt under Route.',
  }),
  'no-route': ({ belt }, named) => ({
    title: `${capital(named(belt))} has no route yet.`,
    why: 'It is not on this card.',
    todo: 'Draw it under Route.',
  }),
  tangled: ({ belt }, named) => ({
    title: 'These belts are in each other’s way.',
    why: `As drawn, ${named(belt)} runs in front of one that runs in front of it. No order takes them off one by one.`,
    todo: 'Check the planes of their pulleys under Survey.',
  }),
  'set-apart': ({ belt }, named) => ({
    title: `${capital(named(belt))} cannot be right together with the belt that shares its adjuster.`,
    why: 'Once the other one is right, this one is outside its range.',
    todo: 'Check both lengths under Size: belts on one adjuster are changed as a pair.',
  }),
  'no-torque': ({ figures: { bolts } }) => ({
    title: `${plural(bolts, 'bolt has', 'bolts have')} no torque yet.`,
    why: 'A bolt tightened from memory works loose or breaks.',
    todo: 'Look it up in the service manual and enter it under Bolts.',
  }),
  'unknown-length': ({ belt }, named) => ({
    title: `No length chosen yet for ${named(belt)}.`,
    why: 'Without it no marking can be asked for at a counter.',
    todo: 'Take the length from Size.',
  }),
  'marked-misfit': ({ belt, figures: { lengthMm, verdict } }, named) => ({
    title: `${Math.round(lengthMm)} mm cannot be fitted as ${named(belt)}.`,
    why: verdict === 'out-of-travel' ? 'It is longer than this drive can tighten.' : 'It is too short to slip on.',
    todo: 'Do not bring it. Check the marking, and see under Size which length fits.',
  }),
};

/** Tells a finding of the card. */
export function jobWords(drive: Drive, finding: JobFinding): FindingWords {
  return wordsOf(JOB_WORDS, finding, (belt: string) => beltName(drive, belt));
}

export const jobMessage = (drive: Drive, finding: JobFinding): string => inOneLine(jobWords(drive, finding));

/** An entry of a job as one line: what somebody reads who decides what becomes of it. */
export function eventWords({ drive, steps }: { drive: Drive; steps: readonly CardStep[] }, event: JobEvent): string {
  const stepText = (id: string) => steps.find((step) => step.id === id)?.text ?? 'a step that is not in this job';
  const at = (step: string | undefined) => (step === undefined ? '' : ` at “${stepText(step)}”`);
  switch (event.kind) {
    case 'tick':
      return `${event.done ? 'Ticked' : 'Tick removed'}: ${stepText(event.step)}`;
    case 'note':
      return `Remark${at(event.step)}: ${event.text}`;
    case 'odometer':
      return event.odometer === null ? 'Odometer not read' : `Odometer ${grouped(event.odometer)}`;
    case 'belt':
      return `${drive.belts.some(({ id }) => id === event.belt) ? capital(beltName(drive, event.belt)) : `Belt ${event.belt}`}: ${[
        ...(event.fitted === undefined ? [] : [event.fitted === 'new' ? 'new belt fitted' : 'same belt refitted']),
        ...(event.marking ? [`marking ${event.marking}`] : []),
        ...(event.number ? [`number ${event.number}`] : []),
        ...(event.why ? [`came off: ${event.why}`] : []),
      ].join(', ')}`;
    case 'part':
      return event.count < 0
        ? `Returned: ${-event.count} × ${event.name}`
        : `Part used: ${event.count} × ${event.name}`;
    case 'photo':
      return `Picture${at(event.step)}`;
    case 'timer':
      return event.running ? 'Clock started' : 'Clock stopped';
    case 'plan':
      return `Plan: ${PLAN_WORDS[event.change]} “${event.step.text}”`;
  }
}

const PLAN_WORDS = { add: 'new step', remove: 'left out', reword: 'reworded' } as const;

/** A story names so many late ticks, and so much of each step's text. */
const MOST_LATE = 200;
const MOST_STEP_TEXT = 200;

/** What came in after a job was signed off, in words: which steps were ticked, by whom and when. */
export function lateFacts(steps: readonly CardStep[], { late }: Pick<JobRun, 'late'>): string[] {
  const texts = new Map(steps.map(({ id, text }) => [id, text.slice(0, MOST_STEP_TEXT)]));
  const facts = late.slice(0, MOST_LATE).map(({ step, done, by, at }) => {
    const who = [by, at.slice(0, 10)].filter(Boolean).join(', ');
    return `${done ? 'Ticked' : 'Tick removed'} late: ${texts.get(step) ?? 'a step that is not in this job'} (${who})`;
  });
  return late.length > MOST_LATE ? [...facts, `and ${late.length - MOST_LATE} more`] : facts;
}

/** What a job has done besides its steps: what went on, parts, the time it took, remarks; on paper and in the story. */
export function runFacts(drive: Drive, { belts, parts, workedMs, notes }: JobRun): string[] {
  const minutes = Math.round(workedMs / 60_000);
  return [
    ...[...belts].map(
      ([belt, { fitted, marking, number }]) =>
        `${capital(beltName(drive, belt))} ${fitted === 'new' ? 'new' : 'back on'}${marking ? `, ${marking}` : ''}${number ? `, number ${number}` : ''}`,
    ),
    ...parts.map(({ name, count }) => `${count} × ${name}`),
    ...(minutes > 0 ? [minutes === 1 ? '1 minute of work' : `${minutes} minutes of work`] : []),
    ...notes.map(({ text }) => text),
  ];
}
