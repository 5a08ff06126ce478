import { moveWords } from '../align';
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
import { type FindingWords, inOneLine } from '../finding';
import { inspectedLabel } from '../inspect';
import { capital, type LengthUnit, torqueFigure } from '../quantity';
import { DRIVE_SIDE_WORDS, sectionFor } from '../section';
import { NEXT_LOOK } from '../loads';
import { forceFigure } from '../tension';
import type { JobFinding } from './finding';
import type { JobRun } from './run';
import type { StepCode, StepTold } from './steps';

export const PHASE_WORDS: Record<Phase, string> = {
  before: 'Before',
  off: 'Belts off',
  set: 'Put right',
  on: 'Belts on',
  check: 'Check',
  after: 'After',
};

export const BOLT_USE_WORDS: Record<BoltUse, { name: string; hint: string }> = {
  pivot: { name: 'Pivot', hint: 'The accessory or the arm swings about it. Slackened first, tightened last.' },
  lock: { name: 'Lock', hint: 'Holds the adjuster where it was set.' },
  adjust: { name: 'Adjuster', hint: 'The screw or link that moves it.' },
  mount: { name: 'Mount', hint: 'Holds a bracket, a tensioner or an accessory to the engine.' },
  cover: { name: 'Cover', hint: 'Holds what must come off first: a shroud, a guard, a fan.' },
};
export const BOLT_REUSE_WORDS: Record<BoltReuse, string> = {
  again: 'goes in again',
  new: 'new bolt each time',
  compound: 'again, with thread compound',
};

/** A belt by its number in the file; of one that stands alone only what it is. */
export function beltName(drive: Drive, id: string | undefined): string {
  return drive.belts.length === 1 ? 'the belt' : `belt ${drive.belts.findIndex((belt) => belt.id === id) + 1}`;
}

/** A belt's way from the crank on, each pulley with the side that lies on it. */
export function routeWords(drive: Drive, beltId: string, route: readonly RouteStop[]): string {
  const belt = drive.belts.find(({ id }) => id === beltId)!;
  const side = DRIVE_SIDE_WORDS[sectionFor(belt.section)?.kind ?? 'ribbed'];
  return route.map((stop) => `${pulleyLabel(drive, stop.pulley)} (${stop.side === 'back' ? 'back' : side})`).join(', ');
}

/** A bolt with all that the manual says of it: `lock bolt, M8, 13 mm socket, 25 N·m (18.4 lbf·ft)`. */
export function boltWords(
  drive: Drive,
  { station, use, name, size, tool, torqueNm, torqueUnit, angleDeg, reuse }: Bolt,
) {
  const at = drive.stations.find(({ id }) => id === station);
  const called = name || `${BOLT_USE_WORDS[use].name.toLowerCase()} bolt of ${at ? stationLabel(at) : station}`;
  const turned = [
    torqueNm === undefined ? '' : torqueFigure(torqueNm, torqueUnit),
    angleDeg === undefined ? '' : `${torqueNm === undefined ? '' : 'then '}${angleDeg}° on`,
  ].filter(Boolean);
  return [called, size, tool, turned.join(', '), reuse === 'again' ? '' : reuse && BOLT_REUSE_WORDS[reuse]]
    .filter(Boolean)
    .join(', ');
}

export const SPRING_BITES = 'A sprung arm bites: keep fingers out, and let it down slowly.';
const KEY_OUT = 'Key out and battery off before a hand goes in; fans start by themselves.';
const NOTHING_LOOSE =
  'Nothing loose near a running drive: sleeves, rags, hair, fingers. Look from outside arm’s reach.';
const TO_THE_MANUAL = 'Torque to the service manual.';

/** A step in words, and what could hurt at it. */
export interface StepWords {
  text: string;
  caution: string | null;
}
type Told = string | readonly [text: string, caution: string];

interface Telling {
  drive: Drive;
  step: StepTold;
  belt: string;
  Belt: string;
  station: string;
  pulley: string | null;
  bolts: string;
  force: string | null;
}

/** Tells one step, in the shop's unit. */
export function stepWords(drive: Drive, step: StepTold, unit: LengthUnit = 'mm'): StepWords {
  const station = drive.stations.find(({ id }) => id === step.station);
  const belt = beltName(drive, step.belt);
  const told = WORDS[step.code](
    {
      drive,
      step,
      belt,
      Belt: capital(belt),
      station: station ? stationLabel(station) : 'the adjuster',
      pulley: step.pulley === undefined ? null : pulleyLabel(drive, step.pulley),
      bolts: (step.bolts ?? []).map((bolt) => boltWords(drive, bolt)).join('; '),
      force: step.newtons === undefined ? null : forceFigure(step.newtons, unit),
    },
    unit,
  );
  return typeof told === 'string' ? { text: told, caution: null } : { text: told[0], caution: told[1] };
}

const turnOf = ({ release }: StepTold) => (release?.turn === 'ccw' ? 'counter-clockwise' : 'clockwise');

const WORDS: Record<StepCode, (telling: Telling, unit: LengthUnit) => Told> = {
  picture: () => 'Take a picture of the drive from the front, and have its card at hand: route, arm, markings.',
  key: () => ['Key out, battery off.', KEY_OUT],
  cool: () => ['Let the engine cool.', 'The exhaust stays hot long after the engine has stopped.'],
  covers: ({ bolts }) =>
    bolts === ''
      ? 'Take off what must come off first: shroud, guard, fan. Note its bolts under Bolts for the next time.'
      : `Take off what is in the way: ${bolts}.`,
  'lay-out': () =>
    'Lay out what the bring list names. Hold each new belt against its marking before the old one is off.',
  chalk: ({ Belt, drive, step: { gives } }) => {
    const at = gives?.station ? drive.stations.find(({ id }) => id === gives.station) : undefined;
    const why = gives
      ? ` It comes off first because it runs in front of ${beltName(drive, gives.belt)}${at ? ` at ${stationLabel(at)}` : ''}.`
      : '';
    return `${Belt}: chalk an arrow on its back the way it travels, in case it goes back on.${why}`;
  },
  'slacken-bolts': ({ station, bolts }) =>
    bolts === ''
      ? `Slacken the pivot bolts of ${station}, then its lock bolts, before the adjuster is turned.`
      : `Slacken before the adjuster is turned: ${bolts}.`,
  release: ({ station, step }) => [
    `Turn the arm of ${station} ${turnOf(step)} with a long wrench until the belt hangs loose.`,
    SPRING_BITES,
  ],
  slacken: ({ station, belt, step: { adjuster } }) =>
    adjuster === 'turnbuckle'
      ? `Turn the link of ${station} to its slack end. Then ${belt} hangs loose.`
      : `Move ${station} in to its slack end. Never lever on a housing or a fan.`,
  'part-halves': ({ station }) =>
    `Take the bolts out of the split sheave of ${station} and part its halves. Keep the shims between and the spare ones apart.`,
  'no-adjuster': ({ Belt }) => [
    `${Belt} has no adjuster: take it off as the service manual says. A stretch-fit belt is cut off, never prised.`,
    'Keep fingers from between belt and pulley; turn the engine by hand only.',
  ],
  lift: ({ belt, pulley, step: { adjuster } }) => {
    const text = `Lift ${belt} off ${pulley ? `over ${pulley} first, then off the others` : 'its pulleys'}.`;
    return adjuster === 'sprung-arm' ? [text, SPRING_BITES] : text;
  },
  print: ({ belt }) => `Write down what is printed on ${belt}, or take a picture of it.`,
  look: () => 'Spin every roller, rock every shaft and swing the arm by hand. Write it down under Inspect.',
  'change-part': ({ drive, step: { part, offered } }) => [
    offered
      ? `Change ${inspectedLabel(drive, part!)} as well: it has worn with the rest.`
      : `Change ${inspectedLabel(drive, part!)}.`,
    TO_THE_MANUAL,
  ],
  move: ({ drive, step }, unit) => [`${moveWords(drive, step.move!, unit)}. Then read its plane again.`, TO_THE_MANUAL],
  clean: ({ pulley, step }) =>
    `Clean the ${step.outcome === 'paint' ? 'paint' : 'grit and rust'} out of the grooves of ${pulley}: a brush and a rag, no dressing.`,
  cure: ({ belt }) =>
    `Find where the oil or coolant on ${belt} came from and stop it, or the new one goes the same way.`,
  lay: ({ belt, pulley, drive, step }) =>
    `Lay ${belt} on, fixed pulleys first: ${routeWords(drive, step.belt!, step.route ?? [])}. ` +
    `Its arrow the way it travels, its label to be read from the front.${pulley ? ` Leave ${pulley} till last: its rim is the easiest.` : ''}`,
  'let-down': ({ station, pulley, step }) => [
    `Turn the arm of ${station} ${turnOf(step)}, slip the belt over ${pulley ?? 'the last pulley'}, and let the arm down slowly.`,
    SPRING_BITES,
  ],
  set: ({ station, belt, force, step: { adjuster } }) => {
    const how = adjuster === 'turnbuckle' ? `Turn the link of ${station}` : `Move ${station} out`;
    return force
      ? `${how} until ${belt} stands at ${force}, as Tension works it out for a new belt.`
      : `${how} until ${belt} has the tension of the service manual.`;
  },
  'close-halves': ({ station, force }) => [
    `Close the split sheave of ${station} with its shims, turning it while it is drawn together, so that no half pinches the belt${force ? `; it stands at ${force} when it is right` : ''}.`,
    'Fingers out of the groove while the halves close.',
  ],
  'work-on': ({ belt, pulley }) => [
    `Work ${belt} on as the service manual says${pulley ? `, over ${pulley} last` : ''}.`,
    'Turn the engine by hand only, never with the starter; fingers from between belt and pulley.',
  ],
  bolt: ({ bolts, step }) => [
    step.bolts![0]!.torqueNm === undefined ? `Tighten ${bolts}, to the service manual.` : `Tighten ${bolts}.`,
    TO_THE_MANUAL,
  ],
  bolts: ({ station }) => [
    `Tighten the lock bolts of ${station}, then its pivot bolts, in the order and to the torque of the service manual.`,
    TO_THE_MANUAL,
  ],
  grooves: ({ Belt, step }) => [
    `${Belt}: look into every groove of its ${step.route!.length} pulleys, with a mirror where the eye does not reach.`,
    'A rib off on one pulley ruins the belt in a minute.',
  ],
  pointer: ({ station }) => `The pointer of ${station} stands between its marks.`,
  'hand-turn': () => [
    'Turn the engine by hand two full turns, the way it runs. Look into the grooves again.',
    'Fingers away from where belt and pulley meet.',
  ],
  'tools-out': () => 'Count the tools. Nothing lies near the drive.',
  'covers-on': ({ bolts }) => [`Covers on again: ${bolts}.`, TO_THE_MANUAL],
  battery: () => 'Hands and sleeves out. Battery on.',
  touch: () => ['One touch of the starter, then key out and look at every groove again.', KEY_OUT],
  run: () => ['Run it at idle and watch every belt run true.', NOTHING_LOOSE],
  noise: () => 'Listen, cold and warm. A chirp or a squeal goes to Noise.',
  charge: () => 'Charge lamp out; read the battery’s voltage with the engine running against the manual.',
  load: () => 'Everything on: lights, heater, air conditioning, steering to the stop. No squeal, no flapping span.',
  'read-tension': ({ Belt }) => `${Belt}: read its tension, engine off, and write it down under Tension.`,
  'run-in': ({ step }) => [
    `Run it in, ${step.minutes} ${step.minutes === 1 ? 'minute' : 'minutes'} at a fast idle (a default), then key out.`,
    NOTHING_LOOSE,
  ],
  'set-again': ({ Belt, force }) => [
    force
      ? `${Belt}: set it again, to ${force} now that it has run in.`
      : `${Belt}: set it again now that it has run in.`,
    KEY_OUT,
  ],
  number: ({ Belt }) => `${Belt}: write down the number on it, the date and the odometer.`,
  listen: () => 'Listen again when it is due: the cure of a noise is not proven yet.',
  'next-look': () =>
    `Note the next look: in a month, or after ${NEXT_LOOK.km} km, ${NEXT_LOOK.mi} miles or ${NEXT_LOOK.h} hours (a default).`,
  spare: () => 'A spare of each belt, and the tools for it, into the vehicle. The glovebox card with them.',
  own: ({ step }) => step.text ?? '',
};

/** Tells a finding of the card. */
export function jobWords(drive: Drive, { code, belt, figures }: JobFinding): FindingWords {
  switch (code) {
    case 'tangled':
      return {
        title: 'These belts are in each other’s way.',
        why: `As drawn ${beltName(drive, belt)} runs in front of one that runs in front of it. No order takes them off one by one.`,
        todo: 'Check the planes of their pulleys under Survey.',
      };
    case 'no-torque':
      return {
        title: `${figures?.['bolts'] === 1 ? '1 bolt has' : `${figures?.['bolts'] ?? 0} bolts have`} no torque yet.`,
        why: 'Tightened from memory, a bolt works loose or breaks.',
        todo: 'Look it up in the service manual and write it down under Bolts.',
      };
    case 'marked-misfit':
      return {
        title: `${Math.round(Number(figures?.['lengthMm'] ?? 0))} mm cannot be fitted as ${beltName(drive, belt)}.`,
        why:
          figures?.['verdict'] === 'out-of-travel'
            ? 'It is longer than this drive can tighten.'
            : 'It is too short to slip on.',
        todo: 'Do not bring it. Check the marking, and see under Size which length fits.',
      };
    case 'unknown-length':
      return {
        title: `Nobody said which length ${beltName(drive, belt)} has.`,
        why: 'Without it no marking can be asked for at a counter.',
        todo: 'Take the length from Size.',
      };
  }
}

export const jobMessage = (drive: Drive, finding: JobFinding): string => inOneLine(jobWords(drive, finding));

/** What a job has done besides its steps: what went on, parts, the time it took, remarks; on paper and in the story. */
export function runFacts(drive: Drive, { belts, parts, workedMs, notes }: JobRun): string[] {
  const minutes = Math.round(workedMs / 60_000);
  return [
    ...[...belts].map(
      ([belt, { fitted, number }]) =>
        `${capital(beltName(drive, belt))} ${fitted === 'new' ? 'new' : 'back on'}${number ? `, number ${number}` : ''}`,
    ),
    ...parts.map(({ name, count }) => `${count} × ${name}`),
    ...(minutes > 0 ? [minutes === 1 ? '1 minute of work' : `${minutes} minutes of work`] : []),
    ...notes.map(({ text }) => text),
  ];
}
