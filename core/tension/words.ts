import { type Drive, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { fixed, habitsNow, N_PER_LBF } from '../quantity';
import type { TensionSource } from '../loads';
import type { ArmVerdict } from './arm-health';
import type { TensionFinding } from './finding';
import type { NoPluck } from './pluck';
import type { CannotTell } from './readings';

/** A force in whole newtons, pounds beside it where lengths are in inches; pounds first for who writes them. */
export function forceFigure(newtons: number, unit: 'mm' | 'in' = 'mm'): string {
  const [metric, pounds] = [`${Math.round(newtons)} N`, `${Math.round(newtons / N_PER_LBF)} lbf`];
  const { force } = habitsNow();
  if (force === 'lbf') return `${pounds} (${metric})`;
  return unit === 'mm' || force === 'N' ? metric : `${metric} (${pounds})`;
}

/** A force where there is room for one figure, in what this person writes first. */
export function shortForce(newtons: number): string {
  return habitsNow().force === 'lbf' ? `${Math.round(newtons / N_PER_LBF)} lbf` : `${Math.round(newtons)} N`;
}

/** The same with its ±. */
export function forcePlusMinus(newtons: number, sigma: number): string {
  const [per, unit] = habitsNow().force === 'lbf' ? [N_PER_LBF, 'lbf'] : [1, 'N'];
  return `${Math.round(newtons / per)} ± ${Math.round(sigma / per)} ${unit}`;
}

/** A small deflection or move: tenths of a mm, hundredths of an inch beside it where the shop works in inches. */
export function fineFigure(mm: number, unit: 'mm' | 'in' = 'mm'): string {
  return unit === 'mm' ? `${fixed(mm, 1)} mm` : `${fixed(mm / 25.4, 2)}″ (${fixed(mm, 1)} mm)`;
}

export const SOURCE_WORDS: Record<TensionSource, string> = {
  arm: 'as its arm holds it',
  given: 'as it was set',
  stretch: 'from its length stretched round the path',
  default: "Emery's default, not a specification",
};

/** A margin as people say it: how much more a pulley could take. */
export function marginFigure(margin: number | null): string {
  if (margin === null) return 'no load';
  if (margin > 9.99) return 'over 999 %';
  return margin < -1 ? 'no grip' : `${Math.round(margin * 100)} %`.replace('-', '−');
}

/** What a row of the table is told with. */
interface Telling {
  name: (pulley: string) => string;
}

const newtons = shortForce;
const atSpeed = (rpm: number) => `at ${Math.round(rpm)} rev/min`;

const TENSION_WORDS: WordsByCode<TensionFinding, Telling> = {
  'no-path': () => ({
    title: 'No belt fits this route yet.',
    why: 'Without a closed path there is no tension to work out.',
    todo: 'Correct the route first, under Route.',
  }),
  'not-driven': () => ({
    title: 'The crank does not drive this belt.',
    why: 'Its tensions are shown at rest.',
    todo: 'Put it on a shaft that another belt turns.',
  }),
  'no-place': () => ({
    title: 'A belt of that length is outside the tensioner’s range.',
    why: 'The figures take the arm as it is drawn.',
    todo: 'Check the length under Size.',
  }),
  'marked-misfit': ({ figures: { lengthMm, long } }) => ({
    title: `${Math.round(lengthMm)} mm cannot be fitted here.`,
    why: long
      ? 'It is longer than this drive can tighten, so no tension here applies to it.'
      : 'It is too short to slip on, so no tension here applies to it.',
    todo: 'See under Size which length fits.',
  }),
  'hangs-loose': () => ({
    title: 'The belt hangs loose.',
    why: 'It is longer than the path as drawn, so nothing stretches it.',
    todo: 'Move the adjuster out, or measure the positions again.',
  }),
  'default-tension': ({ figures: { tensionN } }) => ({
    title: `Static tension ${newtons(tensionN)}, Emery’s default.`,
    why: 'No setting or measurement is recorded for this belt, and no spring holds it.',
    todo: 'Enter what it is set to, or check it by hand.',
  }),
  slips: ({ pulley, figures: { margin, rpm } }, { name }) => ({
    title: `${name(pulley)} slips ${atSpeed(rpm)}.`,
    why: gripWanted(margin),
    todo: 'More tension, more wrap, or a dry surface: the ledger shows how much each helps.',
  }),
  'little-margin': ({ pulley, figures: { margin, rpm } }, { name }) => ({
    title: `${name(pulley)} has ${Math.round(100 * margin)} % slip margin ${atSpeed(rpm)}.`,
    why: 'Less than 25 % leaves no room for wear, dirt and wet.',
    todo: 'Raise the tension into the usable range.',
  }),
  'slack-side': ({ pulley, span, figures: { effectiveN, rpm } }, { name }) => ({
    title: `The belt is slack past ${name(pulley)} ${atSpeed(rpm)}.`,
    why: `Nothing presses it on after that pulley (${newtons(effectiveN)} from ${name(span.from)} to ${name(span.to)}).`,
    todo: 'It will flap and can come off. Raise the tension before it runs.',
  }),
  'too-much-load': ({ pulley, figures: { loadN, limit, rpm, written } }, { name }) => ({
    title: `Hub load at ${name(pulley)} is ${newtons(loadN)} ${atSpeed(rpm)}.`,
    why:
      written === 1
        ? `More than the ${newtons(limit)} entered for it.`
        : `More than ${newtons(limit)}, a default for its kind.`,
    todo: 'Bearing wear rises with the cube of the load. Lower the tension, or enter what its maker allows.',
  }),
  'few-teeth': ({ pulley, figures: { teeth, least } }, { name }) => ({
    title: `${name(pulley)} has ${fixed(teeth, 1)} teeth in mesh.`,
    why: `Fewer than ${Math.round(least)} carry less than the belt is rated for, and jump sooner.`,
    todo: 'Give it more wrap, with an idler near it.',
  }),
  jumps: ({ pulley, figures: { rpm } }, { name }) => ({
    title: `Teeth can jump at ${name(pulley)} ${atSpeed(rpm)}.`,
    why: 'Nothing holds the slack side in mesh there.',
    todo: 'Raise the tension a little; a toothed belt needs little.',
  }),
  'window-empty': ({ pulley, other, figures: { leastN, mostN } }, { name }) => ({
    title: 'No tension is right in all these states.',
    why: `${name(pulley)} needs ${newtons(leastN)}, and the bearing load limit of ${name(other)} allows ${newtons(mostN)}.`,
    todo: 'The ledger shows how to get a usable range.',
  }),
  'no-tension-holds': ({ pulley }, { name }) => ({
    title: `No tension keeps ${name(pulley)} from slipping.`,
    why: 'Its wrap and its surface give too little grip at any tension.',
    todo: 'Give it more wrap, or drive it from the ribs.',
  }),
  'below-window': ({ pulley, figures: { tensionN, leastN, byN } }, { name }) => ({
    title: `${newtons(byN)} too loose.`,
    why: `Present tension is ${newtons(tensionN)}, and ${name(pulley)} needs ${newtons(leastN)}.`,
    todo: 'Tighten it into the usable range.',
  }),
  'above-window': ({ pulley, figures: { tensionN, mostN, byN } }, { name }) => ({
    title: `${newtons(byN)} too tight.`,
    why: `Present tension is ${newtons(tensionN)}, and the bearing load limit of ${name(pulley)} allows ${newtons(mostN)}.`,
    todo: 'Slacken it into the usable range.',
  }),
};

/** One finding of Tension: the verdict, why, and what to do. */
export function tensionWords(drive: Drive, finding: TensionFinding): FindingWords {
  return wordsOf(TENSION_WORDS, finding, { name: (pulley) => pulleyLabel(drive, pulley) });
}

/** How much more of slack side or grip would just hold. */
function gripWanted(margin: number): string {
  if (margin <= -0.99) return 'Nothing presses the belt onto the pulley there.';
  return `It would just hold with ${Math.round(100 * (1 / (1 + margin) - 1))} % more tension on its slack side.`;
}

export function tensionMessage(drive: Drive, finding: TensionFinding): string {
  return inOneLine(tensionWords(drive, finding));
}

/** Why a sound gives no note, and what to do. */
export const NO_PLUCK_WORDS: Record<NoPluck, string> = {
  silence: 'The recording is silent. Hold the microphone nearer, and pluck harder.',
  'no-pluck':
    'No pluck in the recording, only noise. Stop the engine, hold the microphone near mid-span, and pluck once a second.',
  'too-short':
    'The recording is too short, or the span is too short to give an audible note. Record two seconds or more.',
};

/** Why a reading is not usable for this belt, or on this span. */
export const CANNOT_TELL_WORDS: Record<CannotTell, string> = {
  'arm-yields':
    'A push moves the sprung arm, not the belt, so it does not show the tension. Pluck the span, or read the pointer.',
  'no-arm': 'No sprung arm with a known spring, so no pointer to read.',
  'no-span': 'Choose a free span first.',
  'span-short': 'This span is too short: its ends and its stiffness matter more than its tension.',
  'no-figure': 'The reading has no figure yet.',
  'too-slack': 'The deflection is more than that of a belt without tension. Read it again.',
};

export const ARM_WORDS: Record<ArmVerdict, FindingWords> = {
  good: {
    title: 'The tensioner is sound.',
    why: 'Its pointer and the tension agree with its spring.',
    todo: 'Keep it.',
  },
  weak: {
    title: 'The spring is weak.',
    why: 'The arm is where it should be, and pulls less than it should.',
    todo: 'Change the tensioner, and offer the belt with it: they wear together.',
  },
  strong: {
    title: 'The arm pulls more than its spring can.',
    why: 'Friction or a stop holds the arm, or the reading is wrong.',
    todo: 'Turn the engine by hand both ways and read again.',
  },
  binding: {
    title: 'The arm binds.',
    why: 'Turned each way, it leaves the belt at two tensions that differ by more than normal friction.',
    todo: 'Take the belt off and swing the arm through its whole stroke: it must go smoothly.',
  },
  stuck: {
    title: 'The arm is stuck.',
    why: 'Its pointer is not where the belt would put it, and the tension is not what its spring gives there.',
    todo: 'Take the belt off. Change an arm that does not spring back fully.',
  },
  'wrong-length': {
    title: 'The belt has the wrong length for this arm.',
    why: 'The pointer is where no belt of the right length would put it; the tension agrees with the spring there.',
    todo: 'Check the length under Size before changing the tensioner.',
  },
  'cannot-say': {
    title: 'Not enough readings.',
    why: 'A verdict needs the pointer and one measured tension.',
    todo: 'Turn the engine by hand forward, read; back, read again.',
  },
};
