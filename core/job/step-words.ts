import { moveWords } from '../align';
import { type Drive, pulleyLabel, stationLabel } from '../drive';
import { inspectedLabel } from '../inspect';
import { NEXT_LOOK, sectionOf } from '../loads';
import { capital, type LengthUnit } from '../quantity';
import { forceFigure } from '../tension';
import { stepsBy } from './held';
import type { StepCode, StepTold } from './step';
import {
  beltsOf,
  first,
  hangLoose,
  loadWords,
  movedWords,
  rightBetween,
  rimsOf,
  setWords,
  shimWords,
  slackToo,
  strutOf,
  targetWords,
  type Telling,
  turnOf,
} from './telling';
import { beltName, boltName, boltWords, layingWords } from './words';

/* The cautions of the steps. */
const SPRING_BITES = 'A sprung arm snaps back: keep fingers out, and let it return slowly.';
const KEY_OUT = 'Key out and battery off before a hand goes in; fans start by themselves.';
const NOTHING_LOOSE =
  'Nothing loose near a running drive: sleeves, rags, hair, fingers. Look from outside arm’s reach.';
const HANDS_OUT = 'Hands, tools and sleeves clear: the drive can turn, and fans start by themselves.';
const TO_THE_MANUAL = 'Torque to the service manual.';
const PINCH = 'Keep fingers from where belt and pulley meet; turn the engine by hand only.';
const PULLER =
  'Pull and press at the hub only, with a puller that fits. A hammer ruins the bearings behind it; a puller that slips, or a splinter of steel, goes into the eyes: wear goggles.';

/** A step in words, and what could hurt at it. */
export interface StepWords {
  text: string;
  caution: string | null;
}
type Told = string | readonly [text: string, caution: string];

/** Tells one step, in the shop's unit. */
export function stepWords(drive: Drive, step: StepTold, unit: LengthUnit = 'mm'): StepWords {
  const station = drive.stations.find(({ id }) => id === step.station);
  const belt = beltName(drive, step.belt);
  const words = WORDS[step.code]({
    drive,
    step,
    unit,
    belt,
    Belt: capital(belt),
    station: station ? stationLabel(station) : 'the adjuster',
    pulley: step.pulley === undefined ? null : pulleyLabel(drive, step.pulley),
    bolts: (step.bolts ?? []).map((bolt) => boltWords(drive, bolt)).join('; '),
    undone: (step.bolts ?? []).map((bolt) => boltName(drive, bolt)).join('; '),
  });
  return typeof words === 'string' ? { text: words, caution: null } : { text: words[0], caution: words[1] };
}

/** What holds an adjuster, where no bolt of it is written down. */
const boltsOff = (by: StepTold['by'], station: string) => stepsBy(by)?.boltsOff(station) ?? `the bolts of ${station}`;
const boltsOn = (by: StepTold['by'], station: string) => stepsBy(by)?.boltsOn(station) ?? `the bolts of ${station}`;

const GROOVES = {
  ribbed: {
    look: 'every rib in its groove',
    caution: 'A rib off on one pulley ruins the belt in a minute.',
  },
  vee: {
    look: 'down in its V and upright, its top near the rim',
    caution: 'A V-belt that lies on a rim, or has turned over, is thrown off at the first start.',
  },
  toothed: {
    look: 'every tooth in its gap, the edges clear of any flange',
    caution: 'A toothed belt that sits on a tooth, or has climbed a flange, breaks at the first start.',
  },
} as const;

const WORDS: Record<StepCode, (telling: Telling) => Told> = {
  missing: () =>
    'No belt of this drive has a route yet, so nothing comes off and nothing goes on. Measure the pulleys under Survey, draw the belt under Route; then its job card appears here.',
  picture: () => 'Take a picture of the drive from the front, and keep its card at hand: route, adjuster, markings.',
  key: () => ['Key out, battery off.', KEY_OUT],
  cool: () => ['Let the engine cool.', 'The exhaust stays hot long after the engine has stopped.'],
  covers: ({ undone, step: { phase } }) => {
    if (phase === 'after') return 'Take off again what is in the way: guard, shroud, fan.';
    return undone === ''
      ? 'Take off what must come off first: shroud, guard, fan. Note its bolts under Bolts for the next time.'
      : `Take off what is in the way: ${undone}.`;
  },
  'lay-out': () =>
    'Lay out the parts on the bring list. Check each new belt against its marking before the old one is off.',
  chalk: (telling) =>
    `${telling.Belt}: chalk an arrow on its back the way it travels, in case it goes back on.${first(telling)}`,
  'slacken-bolts': ({ station, undone, step: { by } }) =>
    undone === ''
      ? `Slacken ${boltsOff(by, station)} before the adjuster is turned.`
      : `Slacken before the adjuster is turned: ${undone}.`,
  release: (telling) =>
    telling.step.outcome === 'stuck'
      ? [
          `The arm of ${telling.station} is stuck, as recorded under Inspect: do not force it. Take its load off as the service manual says, or cut ${beltsOf(telling)}; the arm is changed below.${slackToo(telling)}`,
          SPRING_BITES,
        ]
      : [
          `Turn the arm of ${telling.station} ${turnOf(telling.step)} with a long wrench until ${hangLoose(telling)}, and hold it there.${strutOf(telling) ? ' Slowly: the strut gives way only as fast as its oil lets it.' : ''}${slackToo(telling)}`,
          SPRING_BITES,
        ],
  slacken: (telling) => [
    `${movedWords(telling, 'slack')}, to its slack end. ${telling.Belt} then hangs loose.${slackToo(telling)}`,
    'Never lever on a housing or a fan: it cracks, and the bar slips.',
  ],
  'part-halves': (telling) =>
    `Undo the split sheave of ${telling.station}${telling.undone === '' ? '' : `: ${telling.undone}`}. Draw its outer half off; keep the shims from between the halves and the spare ones apart, and count both.${slackToo(telling)}`,
  'no-adjuster': (telling) => [
    telling.step.by === 'fixed'
      ? `${telling.Belt} runs on fixed centres: take it off as the service manual says, never prised over a rim.${first(telling)}`
      : `${telling.Belt}: no adjuster is drawn for it. Take it off as the service manual says, and draw under Survey what tightens it.${first(telling)}`,
    PINCH,
  ],
  'cut-off': (telling) => [
    `Cut ${telling.belt} off with side cutters, clear of pulleys and hoses: a stretch-fit belt never goes back on.${first(telling)}`,
    'It springs as the last rib parts: face and hands to the side, and cut away from yourself.',
  ],
  lift: ({ belt, pulley, step: { by } }) => {
    const over = pulley ? `over ${pulley} first, then off the others` : 'its pulleys';
    return stepsBy(by)?.way === 'arm'
      ? [`With the arm held, lift ${belt} off ${over}.`, SPRING_BITES]
      : `Lift ${belt} off ${over}.`;
  },
  'let-back': ({ station }) => [
    `Let the arm of ${station} back slowly to its stop, or pin it as the service manual says. Only then take the wrench off.`,
    SPRING_BITES,
  ],
  print: ({ belt }) => `Write down what is printed on ${belt}, or take a picture of it.`,
  look: ({ station, step }) =>
    step.station === undefined
      ? 'Spin every pulley and rock every shaft. Record it under Inspect.'
      : [
          `Spin every pulley and rock every shaft; turn the arm of ${station} through its stroke with the wrench and let it return. Record it under Inspect.`,
          SPRING_BITES,
        ],
  'change-part': ({ drive, step: { part, offered } }) => [
    offered
      ? `Change ${inspectedLabel(drive, part!)} as well: it has worn with the others.`
      : `Change ${inspectedLabel(drive, part!)}.`,
    TO_THE_MANUAL,
  ],
  move: ({ drive, step, unit }) => [
    `${moveWords(drive, step.move!, unit)}. Then measure its plane again.`,
    step.move!.kind === 'press' || step.move!.kind === 'hub' ? `${PULLER} ${TO_THE_MANUAL}` : TO_THE_MANUAL,
  ],
  clean: ({ pulley, step }) =>
    `Clean the ${step.outcome === 'paint' ? 'paint' : 'grit and rust'} out of the grooves of ${pulley}: a brush and a rag, no dressing.`,
  cure: ({ belt }) =>
    `Find where the oil or coolant on ${belt} comes from and stop it, or it ruins the new one as well.`,
  lay: ({ belt, drive, step }) =>
    `Lay ${belt} on, fixed pulleys first: ${layingWords(drive, step)}. Label to the front; a chalked belt runs in the direction of its arrow.`,
  'let-down': (telling) => [
    `Turn the arm of ${telling.station} ${turnOf(telling.step)} with the wrench and hold it there, its pin out if it had one. Slip ${rimsOf(telling)}, and let the arm return slowly.${strutOf(telling) ? ' The strut sets the speed.' : ''}`,
    SPRING_BITES,
  ],
  bleed: ({ station }) => [
    `Bleed the strut of ${station} as the service manual says: laid flat or pushed fully in, it draws in air and the belt flaps.`,
    SPRING_BITES,
  ],
  set: (telling) => setWords(telling, false),
  'close-halves': (telling) => [shimWords(telling, false), 'Fingers out of the groove while the halves close.'],
  'work-on': ({ belt, drive, step }) => [
    step.by === 'stretch-fit'
      ? `Fit ${belt} with the fitting tool that the service manual names, the engine turned by hand: ${layingWords(drive, step)}.`
      : `Work ${belt} on as the service manual says: ${layingWords(drive, step)}.`,
    `Never with the starter, never with a lever. ${PINCH}`,
  ],
  bolt: ({ bolts, step }) => [
    step.bolts![0]!.torqueNm === undefined && step.bolts![0]!.angleDeg === undefined
      ? `Tighten ${bolts}, to the service manual.`
      : `Tighten ${bolts}.`,
    TO_THE_MANUAL,
  ],
  bolts: ({ station, step: { by } }) => [
    `Tighten ${boltsOn(by, station)} to the torque of the service manual, in its order.`,
    TO_THE_MANUAL,
  ],
  grooves: ({ belt, drive, step }) => {
    const { look, caution } = GROOVES[sectionOf(drive.belts.find(({ id }) => id === step.belt)!).kind];
    return [
      `Check ${belt} on all its ${step.route!.length} pulleys, with a mirror where you cannot see: ${look}.`,
      caution,
    ];
  },
  pointer: ({ station, drive, step }) => {
    const adjuster = drive.stations.find(({ id }) => id === step.station)?.adjuster;
    const marked =
      adjuster?.kind === 'sprung-arm' && adjuster.shortMark !== undefined && adjuster.longMark !== undefined;
    return marked
      ? `The pointer of ${station} is between its marks.`
      : `The arm of ${station} is clear of both its stops.`;
  },
  'hand-turn': () => [
    'Turn the engine by hand two full turns, the way it runs. Check every belt on every pulley again: this is the last check before the guards go on.',
    'Keep fingers away from where belt and pulley meet.',
  ],
  'read-tension': (telling) => {
    const target = targetWords(telling);
    const aim = target ? ` Target ${target}${rightBetween(telling)} (with defaults).` : '';
    return `Read the tension of ${telling.belt}, engine cold, and record it under Tension.${aim}`;
  },
  'tools-out': () => 'Count the tools. Leave nothing near the drive.',
  'covers-on': ({ bolts }) => [
    `Refit everything that came off: guard, shroud, fan.${bolts === '' ? ' Tighten their bolts to the service manual.' : ` Tighten ${bolts}.`}`,
    `Never start without its guards on. ${TO_THE_MANUAL}`,
  ],
  battery: () => ['Keep hands and sleeves out. Battery on.', HANDS_OUT],
  touch: () => [
    'Touch the starter once, then key out. Listen, and check from outside that every belt runs true.',
    NOTHING_LOOSE,
  ],
  run: () => ['Run it at idle and watch every belt run true.', NOTHING_LOOSE],
  noise: () => ['Listen, cold and warm. Record a chirp or a squeal under Noise.', NOTHING_LOOSE],
  charge: () => [
    'Charge lamp out? Check the battery voltage with the engine running against the manual.',
    NOTHING_LOOSE,
  ],
  load: ({ drive }) => [`${loadWords(drive)} No squeal, no flapping span.`, NOTHING_LOOSE],
  'run-in': ({ step }) => [
    `Run it in, ${step.minutes} ${step.minutes === 1 ? 'minute' : 'minutes'} at a fast idle${step.byDefault ? ' (a default)' : ''}.`,
    NOTHING_LOOSE,
  ],
  stop: ({ step, unit }) => [
    `Key out, battery off. Let the engine go cold before anything is set${step.hotN && step.hotN > 1 ? `: hot, a belt reads up to ${forceFigure(step.hotN, unit)} more (default figures for the engine block)` : ''}.`,
    `${KEY_OUT} The exhaust stays hot.`,
  ],
  'set-again': (telling) =>
    stepsBy(telling.step.by)?.way === 'halves'
      ? [shimWords(telling, true), 'Fingers out of the groove while the halves close.']
      : [setWords(telling, true), KEY_OUT],
  number: ({ Belt }) => `${Belt}: record its marking and number as read, the date and the odometer.`,
  listen: () => ['Listen again when it is due: the noise is not proven cured yet.', NOTHING_LOOSE],
  'next-look': () =>
    `Note the next inspection: in a month, or after ${NEXT_LOOK.km} km, ${NEXT_LOOK.mi} miles or ${NEXT_LOOK.h} hours (a default).`,
  spare: () => 'Put a spare of each belt, its tools and the glovebox card into the vehicle.',
  own: ({ step }) => step.text ?? '',
};
