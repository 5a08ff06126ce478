import {
  type Drive,
  type NoiseCause,
  type NoiseKind,
  type NoiseTest,
  NOISE_TEST_NAMES,
  NOISE_TESTS,
  LISTEN_AFTER_KM,
  type ListenAgain,
  pulleyLabel,
  type SpeedFrom,
} from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { capital, uncapital, fixed, grouped } from '../quantity';
import { DEFAULT_CYLINDERS, type RateKind } from './rates';
import type { Answer } from './asks';
import type { CauseChance, Reason } from './diagnose';
import { BY_FIGURE } from './likelihoods';
import type { FigureStage } from './figures';
import type { NoiseFinding } from './finding';
import type { BearingPart } from './bearings';
import type { Lesson } from './make-noise';
import type { RateMatch } from './matches';
import { faultRow, noiseRow, sharesOf } from './weigh';

export const KIND_WORDS: Record<NoiseKind, { name: string; what: string }> = {
  chirp: { name: 'Chirp', what: 'short and repeating, clearest at idle' },
  squeal: { name: 'Squeal', what: 'continuous, louder with speed or load' },
  rumble: { name: 'Rumble', what: 'low and rough, or grinding' },
  whine: { name: 'Whine', what: 'one clear tone that rises with the engine' },
  none: { name: 'Nothing', what: 'no drive noise' },
};

export const CAUSE_WORDS: Record<NoiseCause, { name: string; what: string; cure: string }> = {
  misaligned: {
    name: 'Out of line',
    what: 'Its groove is not in the belt’s plane.',
    cure: 'Measure it under Align, and correct it there.',
  },
  loose: { name: 'Too slack', what: 'The belt slips under load.', cure: 'Set it under Tension.' },
  tight: {
    name: 'Too tight',
    what: 'The belt whines and loads the bearings.',
    cure: 'Reduce its tension under Tension.',
  },
  'worn-belt': {
    name: 'Worn belt',
    what: 'Its ribs sit deep, and slip.',
    cure: 'Fit a new one, and find out why it wore.',
  },
  contaminated: {
    name: 'Oil or dressing',
    what: 'A film on the belt makes it slip.',
    cure: 'Repair the leak, clean the pulleys, fit a new belt.',
  },
  bearing: {
    name: 'Bearing',
    what: 'Its balls or races are worn or dry.',
    cure: 'Replace the roller, or the accessory’s bearing.',
  },
  'arm-weak': {
    name: 'Weak arm',
    what: 'Its spring or damper is weak.',
    cure: 'Replace the tensioner, preferably with the belt.',
  },
  'arm-stuck': { name: 'Stuck arm', what: 'It does not follow the belt.', cure: 'Replace the tensioner.' },
  'arm-cocked': { name: 'Cocked arm', what: 'Its roller leans, and steers the belt.', cure: 'Replace the tensioner.' },
  'hub-wobble': {
    name: 'Wobbling hub',
    what: 'Its rim wobbles as it turns.',
    cure: 'Do not run it: a hub ring that wobbles can let go. Replace it.',
  },
  'wrong-length': {
    name: 'Wrong length',
    what: 'The belt leaves no adjustment.',
    cure: 'Find the length under Size.',
  },
  'wrong-groove': {
    name: 'Wrong groove',
    what: 'The belt sits a rib over.',
    cure: 'Engine off: move it over, and count again.',
  },
  'bracket-flex': {
    name: 'Weak bracket',
    what: 'It bends when the accessory pulls.',
    cure: 'Tighten its bolts to the manual, or replace it.',
  },
  debris: {
    name: 'Grit in a groove',
    what: 'Grit in the groove lifts the ribs.',
    cure: 'Pick and brush it out, engine off.',
  },
  'belt-spot': {
    name: 'Spot on the belt',
    what: 'A stone, a gap or a lump passes once a belt turn.',
    cure: 'Engine off: pick a stone out. Where a rib is gone or the splice lifts, fit a new belt.',
  },
  'one-way-clutch': {
    name: 'One-way clutch',
    what: 'It jerks, or does not run free.',
    cure: 'Replace the alternator’s pulley.',
  },
};

interface TestWords {
  ask: string;
  how: string;
  outcomes: Readonly<Record<string, string>>;
  /** What could hurt, at this step. */
  caution?: string;
  /** Where people of experience read it in two ways. */
  schools?: string;
}

const RUNNING = 'Nothing loose near a running drive: no sleeves, cords, hair or rags. Look from outside arm’s reach.';
const STOPPED = 'Engine off, key out, battery off before hands go in.';
const yesNo = { yes: 'Yes', no: 'No' } as const;

export const TEST_WORDS: Record<NoiseTest, TestWords> = {
  kind: {
    ask: 'What does it sound like?',
    how: 'Keep your distance and listen at idle, then with the engine a little faster.',
    outcomes: { chirp: 'Chirp', squeal: 'Squeal', rumble: 'Rumble', whine: 'Whine' },
    caution: RUNNING,
  },
  repeat: {
    ask: 'What repeats as often as the noise?',
    how: 'Let Emery listen for ten seconds at a steady speed.',
    outcomes: {
      belt: 'With the belt',
      pulley: 'With a pulley',
      bearing: 'A rolling bearing',
      tooth: 'Once a tooth',
      engine: 'With the engine',
      none: 'Does not repeat',
    },
    caution: RUNNING,
  },
  water: {
    ask: 'A little water on the ribs at idle: what does the noise do?',
    how: 'A squirt on the rib side, where the belt runs into a pulley. Wait half a minute.',
    outcomes: { 'quiet-then-back': 'Stops, then comes back', louder: 'Louder', 'no-change': 'No change' },
    caution:
      'Water only from a squeeze bottle, at the ribs, from the side, away from electrics; never a hose. No hands near the belt.',
    schools:
      'Methods differ: most read “louder” as a slack belt. Some expect a polished belt to go quiet as well, so Emery counts a worn belt for either.',
  },
  'only-cold': {
    ask: 'Only while cold?',
    how: 'Is it gone once the engine is warm?',
    outcomes: yesNo,
  },
  'only-hot': { ask: 'Only when hot?', how: 'Does it start only after a drive?', outcomes: yesNo },
  'only-wet': {
    ask: 'Only in the wet?',
    how: 'Does it start with rain, dew or puddles?',
    outcomes: yesNo,
  },
  'under-load': {
    ask: 'Only under load?',
    how: 'At idle switch on lamps, blower and cooling, and turn the wheel to its stop. Is it then louder?',
    outcomes: yesNo,
    caution: 'Brake on and out of gear. Nobody stands in front.',
  },
  'one-speed': {
    ask: 'Only at one engine speed?',
    how: 'Let the engine rise slowly and fall again.',
    outcomes: yesNo,
    caution: RUNNING,
  },
  'charge-lamp': {
    ask: 'Does the charge lamp glow?',
    how: 'Check it while the noise is there.',
    outcomes: yesNo,
  },
  'engine-hot': {
    ask: 'Does the engine run hot?',
    how: 'Check the gauge.',
    outcomes: yesNo,
    caution: 'Never open a hot cooling system.',
  },
  'new-belt': {
    ask: 'Did it start with a new belt?',
    how: 'A new belt’s coating can hide a fault for some hundreds of kilometres.',
    outcomes: { 'began-with-it': 'Began with the new belt', 'quiet-then-back': 'Quiet, then back', no: 'No' },
  },
  dust: {
    ask: 'Black dust on covers near the belt?',
    how: 'Look with a lamp, engine off.',
    outcomes: yesNo,
  },
  flapping: {
    ask: 'Does a span flap?',
    how: 'Look along the spans at idle, with a lamp.',
    outcomes: yesNo,
    caution: RUNNING,
  },
  'edge-wear': {
    ask: 'Is an edge of the belt worn or frayed?',
    how: 'Turn the engine by hand and check both edges.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  'belt-off': {
    ask: 'Is the noise gone with the belt off?',
    how: 'Take the belt off, and start the engine for a few seconds only.',
    outcomes: { gone: 'Gone', stays: 'Stays' },
    caution: 'A sprung arm snaps back: let it return slowly. Seconds only: nothing is charged, and nothing is cooled.',
  },
  'length-doubt': {
    ask: 'Any doubt about the belt’s length?',
    how: 'Compare its marking with the length under Size.',
    outcomes: yesNo,
  },
  ribs: {
    ask: 'How are the ribs?',
    how: 'Look and feel along a hand’s width at a time, engine off. Grooves turn from V to U.',
    outcomes: { sound: 'Sound', worn: 'Worn or glazed', cracked: 'Cracked or torn' },
    caution: STOPPED,
  },
  spot: {
    ask: 'A stone, a gap or a lump in one place?',
    how: 'Mark the belt with chalk and look along all of it, rib side and back, turning the engine by hand.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  surface: {
    ask: 'Is anything on the belt?',
    how: 'Touch the rib side and smell it, engine off.',
    outcomes: { clean: 'Clean', oily: 'Oily or wet', dressed: 'Dressing' },
    caution: STOPPED,
  },
  slack: {
    ask: 'Is it slack?',
    how: 'Push the longest span with a thumb, or measure it under Tension.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  taut: {
    ask: 'Is it far too tight?',
    how: 'Push the longest span with a thumb, or measure it under Tension.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  wobble: {
    ask: 'Does its rim wobble?',
    how: 'Watch its edge from the side at idle.',
    outcomes: yesNo,
    caution: 'A hub ring that wobbles can let go: if it wobbles, stop the engine.',
  },
  spin: {
    ask: 'Spun by hand, belt off?',
    how: 'Spin it and listen. Grinding is dirt; a long free spin means no grease.',
    outcomes: { quiet: 'Quiet', grinds: 'Grinds', freewheels: 'Spins freely for long' },
    caution: STOPPED,
  },
  rock: {
    ask: 'Does it rock, belt off?',
    how: 'Hold its rim at two sides and rock it.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  grooves: {
    ask: 'What is in its grooves?',
    how: 'Look with a lamp and a mirror, engine off.',
    outcomes: { clean: 'Clean', grit: 'Grit or rust' },
    caution: STOPPED,
  },
  count: {
    ask: 'Does the belt sit in the right grooves?',
    how: 'Count the free grooves in front of it, as on the crank.',
    outcomes: { right: 'Right', off: 'A rib over' },
    caution: STOPPED,
  },
  straightedge: {
    ask: 'Is it in line?',
    how: 'Use a straightedge on the crank’s face. For tenths of a mm, measure under Align.',
    outcomes: { 'in-line': 'In line', off: 'Off' },
    caution: STOPPED,
  },
  bracket: {
    ask: 'Does its bracket move?',
    how: 'Push the accessory by hand, and check its bolts.',
    outcomes: { firm: 'Firm', moves: 'Moves' },
    caution: STOPPED,
  },
  clutch: {
    ask: 'How does its clutch hold, belt off?',
    how: 'Hold the rotor and turn the pulley both ways: it should lock one way only.',
    outcomes: { holds: 'One way only', locked: 'Locked both ways', slips: 'Free both ways' },
    caution: STOPPED,
  },
  arm: {
    ask: 'How does the arm move by wrench?',
    how: 'Engine off, take it through its whole stroke and back, slowly.',
    outcomes: { smooth: 'Smooth', binds: 'Binds', stuck: 'Stuck' },
    caution: 'A sprung arm snaps back: keep fingers out and let it return slowly.',
  },
  'arm-swing': {
    ask: 'Does the arm swing at idle?',
    how: 'Watch its pointer from outside arm’s reach.',
    outcomes: yesNo,
    caution: RUNNING,
  },
  cocked: {
    ask: 'Does its roller lean?',
    how: 'Sight along the roller against the edge of the belt, engine off.',
    outcomes: yesNo,
    caution: STOPPED,
  },
};

export const RATE_WORDS: Record<RateKind, string> = {
  belt: 'the belt',
  pulley: 'a pulley',
  tooth: 'the teeth',
  engine: 'the engine’s firing',
};

/** What may come round as often as a noise, by its name and how often it is heard: for a line of a list. */
export function matchWords(drive: Drive, { what, id, harmonic, bearing }: RateMatch): { name: string; how: string } {
  switch (what) {
    case 'none':
      return { name: 'none of these', how: '' };
    case 'engine':
      return id === 'firing'
        ? { name: RATE_WORDS.engine, how: '' }
        : { name: 'the engine itself', how: id === 'crank' ? ', once a turn' : ', one of its orders' };
    case 'bearing': {
      const [second] = bearing!.shafts.filter((shaft) => shaft.id !== id && shaft.chance > 0.1);
      const or = second ? ` or ${partLabel(drive, second.id)}` : '';
      return {
        name: 'a rolling bearing',
        how: `, perhaps of ${partLabel(drive, id)}${or}, ${fixed(harmonic, 1)} strikes a turn`,
      };
    }
    default:
      return {
        name: partLabel(drive, id),
        how: `${what === 'tooth' ? ', once a tooth' : ''}${harmonic > 1 ? `, ${harmonic} times a turn` : ''}`,
      };
  }
}

const BEARING_WORDS: Record<BearingPart, string> = {
  outer: 'outer race of its bearing',
  inner: 'inner race of its bearing',
  ball: 'a ball of its bearing',
  cage: 'cage of its bearing',
};

/** Whose noise a lesson makes: `Alternator`, `Alternator, outer race of its bearing`. */
export const lessonWords = (drive: Drive, { rate, bearing }: Lesson): string =>
  `${partLabel(drive, rate.id)}${bearing ? `, ${BEARING_WORDS[bearing.part]}` : ''}`;

/** How an engine speed was read. */
export const SPEED_FROM_WORDS: Record<SpeedFrom, string> = {
  scan: 'Scan tool',
  needle: 'Needle',
  idle: 'Idle figure',
};

export const STAGE_WORDS: Record<FigureStage | 'inspect', string> = {
  align: 'Align',
  tension: 'Tension',
  size: 'Size',
  route: 'Route',
  inspect: 'Inspect',
};

export const LISTEN_AGAIN_WORDS: Record<ListenAgain, string> = {
  now: 'right after',
  soon: `after ${grouped(LISTEN_AFTER_KM.soon)} km`,
  later: `after ${grouped(LISTEN_AFTER_KM.later)} km`,
};

/** A chance as people say it: whole percent, and not surer than it is. */
export function chanceFigure(chance: number): string {
  const percent = Math.round(100 * chance);
  if (percent >= 100) return 'over 99 %';
  return chance > 0 && percent < 1 ? 'under 1 %' : `${percent} %`;
}

/** From these, in bits of what is open, a test narrows it down most, and well. Defaults. */
const MUCH_BITS = 0.3;
const SOME_BITS = 0.1;

/** What a test is worth before it is made. */
export function gainWords(bits: number): string {
  if (bits >= MUCH_BITS) return 'narrows it down most';
  return bits >= SOME_BITS ? 'narrows it down well' : 'narrows it down a little';
}

/** A part by its name: a pulley's, or a belt's. */
export function partLabel(drive: Drive, id: string): string {
  const at = drive.belts.findIndex((belt) => belt.id === id);
  if (at < 0) return pulleyLabel(drive, id);
  return drive.belts.length === 1 ? 'the belt' : `belt ${at + 1}`;
}

const REPEAT_HOW: Readonly<Record<string, string>> = { tooth: ', once a tooth', bearing: ', its bearing' };

/** What was seen, heard or tried, in a line: `Water on the ribs: louder`. */
export function answerWords(drive: Drive, { test, outcome, pulley, belt }: Answer): string {
  const { outcomes } = TEST_WORDS[test];
  if (test === 'repeat' && (pulley ?? belt) !== undefined)
    return `${NOISE_TEST_NAMES.repeat}: ${partLabel(drive, (pulley ?? belt)!)}${REPEAT_HOW[outcome] ?? ''}`;
  const part = pulley ?? (drive.belts.length > 1 ? belt : undefined);
  const where = part === undefined ? '' : `, ${partLabel(drive, part)}`;
  return `${NOISE_TEST_NAMES[test]}${where}: ${(outcomes[outcome] ?? outcome).toLowerCase()}`;
}

/** Why something counts for a cause, in a line. */
export function reasonWords(
  drive: Drive,
  { answer, figure }: Reason,
  { cause, id }: Pick<CauseChance, 'cause' | 'id'>,
): string {
  if (figure) return `${STAGE_WORDS[figure.stage]}: ${BY_FIGURE[figure.code].why}`;
  const shares = sharesOf(drive);
  const suspect = { cause, id, belts: answer!.belt ? [answer!.belt] : [], weight: 0 };
  const why = faultRow(answer!, shares)?.why ?? noiseRow(answer!, suspect, shares)!.why;
  const from = answer!.from === 'hand' ? '' : ` (${STAGE_WORDS[answer!.from]})`;
  return `${answerWords(drive, answer!)}${from}. ${why}`;
}

/** What a row of the table is told with. */
interface Telling {
  /** A pulley's name, or a belt's; `the engine` for its firing. */
  name: (id: string) => string;
}

const testName = (test: string) => NOISE_TEST_NAMES[test as NoiseTest] ?? test;
const rpmWords = (rpm: number) => `${grouped(Math.round(rpm))} rev/min`;

const NOISE_WORDS: WordsByCode<NoiseFinding, Telling> = {
  'no-route': () => ({
    title: 'No belt has a route yet.',
    why: 'Without one there is nothing that could make the noise.',
    todo: 'Give a belt its route first, under Route.',
  }),
  'only-priors': () => ({
    title: 'Nothing recorded yet.',
    why: 'The list shows what is most common on a drive like this, with its own figures. It is not a diagnosis.',
    todo: 'Start with the kind of noise, or let Emery listen.',
  }),
  leads: ({ figures: { cause, id, chance, part } }, { name }) => ({
    title:
      part === undefined
        ? `Most likely: ${uncapital(CAUSE_WORDS[cause].name)}, ${name(id)}, ${chanceFigure(chance)}.`
        : `Most likely: ${uncapital(CAUSE_WORDS[cause].name)}, ${chanceFigure(chance)}; first check ${name(id)}, ${chanceFigure(part)}.`,
    why: CAUSE_WORDS[cause].what,
    todo: `${CAUSE_WORDS[cause].cure} Make one more test if it costs little.`,
  }),
  open: ({ figures: { chance } }) => ({
    title: 'Too little is known to name a cause.',
    why: `The most likely one has ${chanceFigure(chance)}.`,
    todo: 'Make the next test before anything is changed.',
  }),
  'not-the-drive': ({ figures: { chance } }) => ({
    title: `It may not be the drive at all: ${chanceFigure(chance)}.`,
    why: 'The evidence fits something outside the drive as well.',
    todo: 'Check the exhaust joints, and parts that this drive does not turn.',
  }),
  'hub-stop': ({ pulley }, { name }) => ({
    title: `Stop: the rim of ${name(pulley)} wobbles.`,
    why: 'A hub ring that wobbles can let go.',
    todo: 'Do not run the engine until it is replaced.',
  }),
  'rib-stop': ({ pulley }, { name }) => ({
    title: `Stop: the belt sits a rib over on ${name(pulley)}.`,
    why: 'A rib off ruins the belt in a minute.',
    todo: 'Engine off, and put it back in its grooves.',
  }),
  contradicts: ({ pulley, belt, figures: { test } }, { name }) => ({
    title: `Two results for ${uncapital(testName(test))}${pulley || belt ? ` at ${name((pulley ?? belt)!)}` : ''}.`,
    why: 'Neither counts while both are recorded.',
    todo: 'Test again, and remove the wrong result.',
  }),
  'unknown-test': ({ figures: { test } }) => ({
    title: `This version of Emery does not know the test ${testName(test) || 'in this file'}.`,
    why: 'It is kept in the file, and counts for nothing here.',
    todo: 'Open the drive in the version that wrote it.',
  }),
  simulated: () => ({
    title: 'Some of the evidence is simulated.',
    why: 'It comes from the simulated engine bay, not from an engine.',
    todo: 'Remove it before you rely on the list.',
  }),
  masked: ({ belt }, { name }) => ({
    title: 'A new belt can hide a fault for some hundreds of kilometres.',
    why: `Its coating quiets ${name(belt)}, and wears off.`,
    todo: 'Listen again after 500 km and after 2,000 km.',
  }),
  dressed: ({ belt }, { name }) => ({
    title: `There is dressing on ${name(belt)}.`,
    why: 'It hides the fault for a day, and harms an EPDM belt.',
    todo: 'Find the cause, clean the pulleys, and fit a clean belt before you judge the noise.',
  }),
  'listen-again': ({ figures: { cause, id, when, at } }, { name }) => ({
    title: `Listen again ${LISTEN_AGAIN_WORDS[when]}${
      at === undefined ? '' : `, at ${grouped(Math.round(at))} on the odometer`
    }.`,
    why: `Repaired: ${capital(name(id))}, ${uncapital(CAUSE_WORDS[cause].name)}.`,
    todo: 'Then record whether it stayed quiet.',
  }),
  'came-back': ({ figures: { cause, id } }, { name }) => ({
    title: `The noise came back after the repair of ${name(id)}.`,
    why: `${CAUSE_WORDS[cause].name} was not the cause, or not the only one.`,
    todo: 'Check the other causes on the list.',
  }),
  'too-short': ({ figures: { seconds } }) => ({
    title: `${fixed(seconds, 1)} s are too short.`,
    why: 'A belt goes round only a few times a second.',
    todo: 'Record ten seconds at a steady engine speed.',
  }),
  'nothing-heard': () => ({
    title: 'No noise of a drive is heard.',
    why: 'The only steady or repeating sound is the engine itself.',
    todo: 'Come nearer while staying out of reach, or record while the noise is there.',
  }),
  'matches-nothing': ({ figures: { hz } }) => ({
    title: `Nothing in this drive repeats at ${fixed(hz, 1)} Hz.`,
    why: 'The noise comes from something else, or the engine ran at another speed.',
    todo: 'Check the engine speed and the pulley sizes.',
  }),
  'lie-together': ({ figures: { first, second, rpm } }, { name }) => ({
    title: `${capital(name(first))} and ${name(second)} repeat at nearly the same rate.`,
    why: 'This sound cannot separate them.',
    todo:
      rpm === undefined
        ? 'No speed of this engine separates them: read it by scan tool, or check both.'
        : `Listen again at ${rpmWords(rpm)}.`,
  }),
  'no-engine': () => ({
    title: 'No engine is heard at that speed: this may not be the sound of a belt drive.',
    why: 'A drive is heard together with its engine, so every cause is rated less likely.',
    todo: 'Record near the drive at a steady speed, and read the speed at the same time.',
  }),
  'speed-clash': ({ figures: { told, rpm1, rpm2, rpm3 } }) => ({
    title: `The sound is not that of an engine at ${rpmWords(told)}.`,
    why: `It fits ${[rpm1, rpm2, rpm3]
      .flatMap((rpm) => (rpm === undefined ? [] : [grouped(Math.round(rpm))]))
      .join(' or ')} rev/min.`,
    todo: 'Read the speed again, and check the number of cylinders.',
  }),
  'rolling-bearing': ({ pulley, figures: { chance, second, secondChance } }, { name }) => ({
    title: `A rolling bearing: ${name(pulley)}, ${chanceFigure(chance)}${
      second === undefined ? '' : `, or ${name(second)}, ${chanceFigure(secondChance ?? 0)}`
    }.`,
    why: 'It knocks several times for each turn of a shaft, but not a whole number of times, as balls on a worn race do.',
    todo: 'Belt off, engine off: spin and rock each by hand.',
  }),
  'cylinders-default': () => ({
    title: `Worked out for ${DEFAULT_CYLINDERS} cylinders, a default.`,
    why: 'The number of cylinders has not been entered.',
    todo: 'Enter it, for the firing rate.',
  }),
};

/** One finding of Noise: the verdict, why, and what to do. */
export function noiseWords(drive: Drive, finding: NoiseFinding): FindingWords {
  return wordsOf(NOISE_WORDS, finding, { name: (id) => (id === 'firing' ? 'the engine' : partLabel(drive, id)) });
}

export function noiseMessage(drive: Drive, finding: NoiseFinding): string {
  return inOneLine(noiseWords(drive, finding));
}

/** The outcomes of a test in the order they are asked in. */
export function outcomesOf(test: NoiseTest): readonly { outcome: string; label: string }[] {
  return NOISE_TESTS[test].outcomes.map((outcome) => ({ outcome, label: TEST_WORDS[test].outcomes[outcome]! }));
}
