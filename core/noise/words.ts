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
import { type FindingWords, inOneLine } from '../finding';
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
  chirp: { name: 'Chirp', what: 'short and repeating, plainest at idle' },
  squeal: { name: 'Squeal', what: 'goes on, and grows with speed or load' },
  rumble: { name: 'Rumble', what: 'low and rough, or grinding' },
  whine: { name: 'Whine', what: 'one clear tone that rises with the engine' },
  none: { name: 'Nothing', what: 'no noise of a drive' },
};

export const CAUSE_WORDS: Record<NoiseCause, { name: string; what: string; cure: string }> = {
  misaligned: {
    name: 'Out of line',
    what: 'Its groove does not stand in the belt’s plane.',
    cure: 'Read it under Align, and put it right there.',
  },
  loose: { name: 'Too slack', what: 'The belt slips under load.', cure: 'Set it under Tension.' },
  tight: { name: 'Too tight', what: 'The belt whines and loads the bearings.', cure: 'Let it down under Tension.' },
  'worn-belt': {
    name: 'Worn belt',
    what: 'Its ribs sit deep, and slip.',
    cure: 'Fit a new one, and look why it wore.',
  },
  contaminated: {
    name: 'Oil or dressing',
    what: 'Something on the belt makes it slip.',
    cure: 'Cure the leak, clean the pulleys, fit a new belt.',
  },
  bearing: {
    name: 'Bearing',
    what: 'Its balls or races are worn or dry.',
    cure: 'Replace the roller, or the accessory’s bearing.',
  },
  'arm-weak': {
    name: 'Weak arm',
    what: 'Its spring or damper is tired.',
    cure: 'Replace the tensioner, best with the belt.',
  },
  'arm-stuck': { name: 'Stuck arm', what: 'It does not follow the belt.', cure: 'Replace the tensioner.' },
  'arm-cocked': { name: 'Cocked arm', what: 'Its roller leans, and steers the belt.', cure: 'Replace the tensioner.' },
  'hub-wobble': {
    name: 'Wobbling hub',
    what: 'Its rim weaves as it turns.',
    cure: 'Do not run it: a hub ring that wobbles can let go. Replace it.',
  },
  'wrong-length': {
    name: 'Wrong length',
    what: 'The belt leaves the adjuster no room.',
    cure: 'Find the length under Size.',
  },
  'wrong-groove': {
    name: 'Wrong groove',
    what: 'The belt sits a rib over.',
    cure: 'Engine off: move it over, and count again.',
  },
  'bracket-flex': {
    name: 'Bracket gives',
    what: 'It bends when the accessory pulls.',
    cure: 'Tighten its bolts to the manual, or replace it.',
  },
  debris: {
    name: 'Grit in a groove',
    what: 'Something in it lifts the ribs.',
    cure: 'Pick and brush it out, engine off.',
  },
  'belt-spot': {
    name: 'Spot on the belt',
    what: 'A stone, a gap or a lump comes by once a belt turn.',
    cure: 'Engine off: pick a stone out. Where a rib is gone or the splice lifts, fit a new belt.',
  },
  'one-way-clutch': {
    name: 'One-way clutch',
    what: 'It jerks, or does not let go.',
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
    how: 'Stand off and listen at idle, then with the engine a little faster.',
    outcomes: { chirp: 'Chirp', squeal: 'Squeal', rumble: 'Rumble', whine: 'Whine' },
    caution: RUNNING,
  },
  repeat: {
    ask: 'What comes round as often as the noise?',
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
      'Two schools: most read “louder” as slack. Some hold that a polished belt goes quiet as well, so Emery lets a worn belt stand for either.',
  },
  'only-cold': {
    ask: 'Only while cold?',
    how: 'Is it gone once the engine is warm?',
    outcomes: yesNo,
  },
  'only-hot': { ask: 'Only when hot?', how: 'Does it come only after a drive?', outcomes: yesNo },
  'only-wet': {
    ask: 'Only in the wet?',
    how: 'Does it come with rain, dew or puddles?',
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
    how: 'Look at it while the noise is there.',
    outcomes: yesNo,
  },
  'engine-hot': {
    ask: 'Does the engine run hot?',
    how: 'Look at the gauge.',
    outcomes: yesNo,
    caution: 'Never open a hot cooling system.',
  },
  'new-belt': {
    ask: 'Did it come with a new belt?',
    how: 'A new belt’s coating can hide a fault for some hundreds of kilometres.',
    outcomes: { 'began-with-it': 'Began with it', 'quiet-then-back': 'Quiet, then back', no: 'No' },
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
    how: 'Turn the engine by hand and look at both edges.',
    outcomes: yesNo,
    caution: STOPPED,
  },
  'belt-off': {
    ask: 'Is the noise gone with the belt off?',
    how: 'Take the belt off, and start the engine for a few seconds only.',
    outcomes: { gone: 'Gone', stays: 'Stays' },
    caution: 'A sprung arm bites: let it down slowly. Seconds only: nothing is charged, and nothing is cooled.',
  },
  'length-doubt': {
    ask: 'Any doubt about the belt’s length?',
    how: 'Hold its print against what Size says.',
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
    ask: 'Does its rim weave?',
    how: 'Look at its edge from the side at idle.',
    outcomes: yesNo,
    caution: 'A hub ring that wobbles can let go: if it weaves, stop the engine.',
  },
  spin: {
    ask: 'Spun by hand, belt off?',
    how: 'Spin it and listen. Grinding is dirt; one that spins on and on has no grease.',
    outcomes: { quiet: 'Quiet', grinds: 'Grinds', freewheels: 'Spins on and on' },
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
    ask: 'Does it stand in line?',
    how: 'A straightedge on the crank’s face. To the tenth of a mm it is read under Align.',
    outcomes: { 'in-line': 'In line', off: 'Off' },
    caution: STOPPED,
  },
  bracket: {
    ask: 'Does its bracket move?',
    how: 'Lean on the accessory by hand, and look at its bolts.',
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
    ask: 'How does the arm swing by wrench?',
    how: 'Engine off, take it through its whole stroke and back, slowly.',
    outcomes: { smooth: 'Smooth', binds: 'Binds', stuck: 'Stuck' },
    caution: 'A sprung arm bites: keep fingers out and let it down slowly.',
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
      const [second] = bearing!.shafts.filter((one) => one.id !== id && one.chance > 0.1);
      const or = second ? ` or ${partLabel(drive, second.id)}` : '';
      return {
        name: 'a rolling bearing',
        how: `, perhaps of ${partLabel(drive, id)}${or}, ${harmonic.toFixed(1)} strikes a turn`,
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
  soon: `after ${LISTEN_AFTER_KM.soon.toLocaleString('en')} km`,
  later: `after ${LISTEN_AFTER_KM.later.toLocaleString('en')} km`,
};

/** A chance as people say it: whole percent, and not surer than it is. */
export function chanceFigure(chance: number): string {
  const percent = Math.round(100 * chance);
  if (percent >= 100) return 'over 99 %';
  return chance > 0 && percent < 1 ? 'under 1 %' : `${percent} %`;
}

/** A part by its name: a pulley's, or a belt's. */
export function partLabel(drive: Drive, id: string): string {
  const at = drive.belts.findIndex((belt) => belt.id === id);
  if (at < 0) return pulleyLabel(drive, id);
  return drive.belts.length === 1 ? 'the belt' : `belt ${at + 1}`;
}

const whole = (value: number) => Math.round(value).toLocaleString('en');
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

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

/** One finding of Noise: the verdict, why, and what to do. */
export function noiseWords(drive: Drive, finding: NoiseFinding): FindingWords {
  const { code, pulley, belt, figures = {} } = finding;
  const part = pulley ?? belt;
  const name = part === undefined ? 'the drive' : partLabel(drive, part);
  const n = (key: string) => Number(figures[key] ?? 0);
  const text = (key: string) => String(figures[key] ?? '');
  const cause = CAUSE_WORDS[(figures['cause'] ?? 'misaligned') as NoiseCause];
  const at = figures['id'] === undefined ? name : partLabel(drive, text('id'));
  const named = (key: string) =>
    figures[key] === undefined ? 'one' : figures[key] === 'firing' ? 'the engine' : partLabel(drive, text(key));
  const test = NOISE_TEST_NAMES[text('test') as NoiseTest] ?? (text('test') || 'A test');
  switch (code) {
    case 'no-route':
      return {
        title: 'No belt has a route yet.',
        why: 'Without one there is nothing that could make the noise.',
        todo: 'Give a belt its route first, under Route.',
      };
    case 'only-priors':
      return {
        title: 'Nothing is seen or heard yet.',
        why: 'The list is what such drives have most often, with this one’s own figures; it is no finding.',
        todo: 'Begin with the kind of noise, or let Emery listen.',
      };
    case 'leads':
      return {
        title:
          figures['part'] === undefined
            ? `${cause.name}, ${at}, leads with ${chanceFigure(n('chance'))}.`
            : `${cause.name} leads with ${chanceFigure(n('chance'))}, likeliest ${at} with ${chanceFigure(n('part'))}.`,
        why: cause.what,
        todo: `${cause.cure} Make one more test if it costs little.`,
      };
    case 'open':
      return {
        title: 'Too little is known to name one.',
        why: `The likeliest has ${chanceFigure(n('chance'))}.`,
        todo: 'Make the next test before anything is changed.',
      };
    case 'not-the-drive':
      return {
        title: `It may not be the drive at all: ${chanceFigure(n('chance'))}.`,
        why: 'What was found fits something beside it as well.',
        todo: 'Look at exhaust joints and at what the drive does not turn.',
      };
    case 'hub-stop':
      return {
        title: `Stop: the rim of ${name} wobbles.`,
        why: 'A hub ring that wobbles can let go.',
        todo: 'Do not run the engine until it is replaced.',
      };
    case 'rib-stop':
      return {
        title: `Stop: the belt sits a rib over on ${name}.`,
        why: 'A rib off ruins the belt in a minute.',
        todo: 'Engine off, and put it back in its grooves.',
      };
    case 'contradicts':
      return {
        title: `${test} turned out in two ways${part === undefined ? '' : ` at ${name}`}.`,
        why: 'Neither counts while both stand.',
        todo: 'Try it again, and take one of them back.',
      };
    case 'unknown-test':
      return {
        title: `${test} is no test that this Emery knows.`,
        why: 'It is kept, and counts for nothing here.',
        todo: 'Open the drive in the Emery that wrote it.',
      };
    case 'simulated':
      return {
        title: 'Some of the evidence is simulated.',
        why: 'It was made by the simulated engine bay, not by an engine.',
        todo: 'Take it back before you go by the list.',
      };
    case 'masked':
      return {
        title: 'A new belt can hide a fault for some hundreds of kilometres.',
        why: `Its coating quiets ${name === 'the belt' ? 'it' : name}, and wears off.`,
        todo: 'Listen again after 500 km and after 2,000 km.',
      };
    case 'dressed':
      return {
        title: `There is dressing on ${name}.`,
        why: 'It hides the fault for a day; on EPDM it harms the belt.',
        todo: 'Find the cause, clean the pulleys, and fit a clean belt before you judge the noise.',
      };
    case 'listen-again':
      return {
        title: `Listen again ${LISTEN_AGAIN_WORDS[(figures['when'] ?? 'now') as ListenAgain]}${figures['at'] === undefined ? '' : `, at ${Math.round(n('at')).toLocaleString('en')} on the odometer`}.`,
        why: `${capital(at)} was put right: ${cause.name.toLowerCase()}.`,
        todo: 'Say then whether it stayed quiet.',
      };
    case 'came-back':
      return {
        title: `The noise came back after the cure of ${at}.`,
        why: `${cause.name} was not it, or not all of it.`,
        todo: 'Look again at what else the list names.',
      };
    case 'too-short':
      return {
        title: `${n('seconds').toFixed(1)} s are too short.`,
        why: 'A belt goes round only a few times a second.',
        todo: 'Record ten seconds at a steady engine speed.',
      };
    case 'nothing-heard':
      return {
        title: 'No noise of a drive is heard.',
        why: 'Nothing repeats or sounds on that is not the engine itself.',
        todo: 'Come nearer while staying out of reach, or record while the noise is there.',
      };
    case 'matches-nothing':
      return {
        title: `Nothing in this drive comes round ${n('hz').toFixed(1)} times a second.`,
        why: 'It is something else, or the engine turned at another speed.',
        todo: 'Check the engine speed and the pulleys’ sizes.',
      };
    case 'lie-together':
      return {
        title: `${capital(named('first'))} and ${named('second')} come round alike.`,
        why: 'Their rates are too near one another to be told apart in this sound.',
        todo:
          figures['rpm'] === undefined
            ? 'No speed of this engine parts them: read it by scan tool, or look at both.'
            : `Listen again at ${Math.round(n('rpm')).toLocaleString('en')} rev/min.`,
      };
    case 'no-engine':
      return {
        title: 'No engine is heard at that speed: this may be no belt drive’s sound.',
        why: 'A drive is heard with its engine, so its chances are held low.',
        todo: 'Record near the drive, engine steady, and read its speed then.',
      };
    case 'speed-clash': {
      const others = ['rpm1', 'rpm2', 'rpm3'].flatMap((key) => (figures[key] === undefined ? [] : [whole(n(key))]));
      return {
        title: `The sound is not an engine’s at ${whole(n('told'))} rev/min.`,
        why: `Its own orders lie as they do at ${others.join(' or ')} rev/min.`,
        todo: 'Read the speed again, and check the number of cylinders.',
      };
    }
    case 'rolling-bearing':
      return {
        title: `A rolling bearing: ${name} with ${chanceFigure(n('chance'))}${
          figures['second'] === undefined ? '' : `, ${named('second')} with ${chanceFigure(n('secondChance'))}`
        }.`,
        why: 'It strikes several times a turn of a shaft, at no whole number of it, as balls on a worn race do.',
        todo: 'Belt off, engine off: spin and rock each by hand.',
      };
    case 'cylinders-default':
      return {
        title: `${DEFAULT_CYLINDERS} cylinders are taken for the engine.`,
        why: 'Nobody said how many it has: that is a default.',
        todo: 'Enter them, for its firing rate.',
      };
  }
}

export function noiseMessage(drive: Drive, finding: NoiseFinding): string {
  return inOneLine(noiseWords(drive, finding));
}

/** The outcomes of a test in the order they are asked in. */
export function outcomesOf(test: NoiseTest): readonly { outcome: string; label: string }[] {
  return NOISE_TESTS[test].outcomes.map((outcome) => ({ outcome, label: TEST_WORDS[test].outcomes[outcome]! }));
}
