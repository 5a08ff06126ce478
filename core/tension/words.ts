import { type Drive, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { N_PER_LBF } from '../quantity';
import type { TensionSource } from '../loads';
import type { ArmVerdict } from './arm-health';
import type { TensionFinding } from './finding';
import type { NoPluck } from './pluck';
import type { CannotTell } from './readings';

/** A force in whole newtons, pounds beside it where the shop works in inches. */
export function forceFigure(newtons: number, unit: 'mm' | 'in' = 'mm'): string {
  const whole = Math.round(newtons);
  return unit === 'mm' ? `${whole} N` : `${whole} N (${Math.round(newtons / N_PER_LBF)} lbf)`;
}

/** A small deflection or move: tenths of a mm, hundredths of an inch beside it where the shop works in inches. */
export function fineFigure(mm: number, unit: 'mm' | 'in' = 'mm'): string {
  return unit === 'mm' ? `${mm.toFixed(1)} mm` : `${(mm / 25.4).toFixed(2)}″ (${mm.toFixed(1)} mm)`;
}

export const SOURCE_WORDS: Record<TensionSource, string> = {
  arm: 'as its arm holds it',
  given: 'as it was set',
  stretch: 'from its length stretched round the path',
  default: "Emery's default, not a specification",
};

/** A margin as people say it: how much more a pulley could take. */
export function marginFigure(margin: number | null): string {
  if (margin === null) return 'takes nothing';
  if (margin > 9.99) return 'over 999 %';
  return margin < -1 ? 'no grip' : `${Math.round(margin * 100)} %`.replace('-', '−');
}

/** One finding of Tension: the verdict, why, and what to do. */
export function tensionWords(drive: Drive, finding: TensionFinding): FindingWords {
  const { code, pulley, other, span, figures = {} } = finding;
  const name = pulley === undefined ? 'the belt' : pulleyLabel(drive, pulley);
  const n = (key: string) => Math.round(figures[key] ?? 0);
  const rpm = `at ${n('rpm')} rev/min`;
  switch (code) {
    case 'no-path':
      return {
        title: 'No belt lies on this route yet.',
        why: 'Without a closed path there is no tension to work out.',
        todo: 'Put the route right first, under Route.',
      };
    case 'not-driven':
      return {
        title: 'The crank does not drive this belt.',
        why: 'Its tensions are told as they are at rest.',
        todo: 'Put it on a shaft that another belt turns.',
      };
    case 'no-place':
      return {
        title: 'A belt of that length is outside the tensioner’s range.',
        why: 'The sums take the arm as it is drawn.',
        todo: 'Check the length under Size.',
      };
    case 'marked-misfit':
      return {
        title: `${n('lengthMm')} mm cannot be fitted here.`,
        why: figures['long']
          ? 'It is longer than this drive can tighten, so no tension here is that belt’s.'
          : 'It is too short to slip on, so no tension here is that belt’s.',
        todo: 'See under Size which length fits.',
      };
    case 'hangs-loose':
      return {
        title: 'The belt hangs loose.',
        why: 'It is longer than the path that is drawn, so nothing stretches it.',
        todo: 'Move the adjuster out, or measure the places again.',
      };
    case 'default-tension':
      return {
        title: `Taken as ${n('tensionN')} N at rest, Emery's default.`,
        why: 'Nobody has set or measured this belt, and no spring holds it.',
        todo: 'Enter what it is set to, or check it by hand.',
      };
    case 'slips':
      return {
        title: `${name} slips ${rpm}.`,
        why: gripWanted(figures['margin'] ?? 0),
        todo: 'More tension, more wrap, or a dry surface: the ledger says what each is worth.',
      };
    case 'little-margin':
      return {
        title: `${name} has ${Math.round(100 * (figures['margin'] ?? 0))} % slip margin ${rpm}.`,
        why: 'Less than a quarter leaves no room for wear, dirt and wet.',
        todo: 'Raise the tension toward the window.',
      };
    case 'slack-side':
      return {
        title: `The belt is slack past ${name} ${rpm}.`,
        why: `Nothing presses it on after that pulley (${n('effectiveN')} N${span ? ` from ${pulleyLabel(drive, span.from)} to ${pulleyLabel(drive, span.to)}` : ''}).`,
        todo: 'It will flap and can come off. Raise the tension before it runs.',
      };
    case 'too-much-load':
      return {
        title: `Hub load at ${name} is ${n('loadN')} N ${rpm}.`,
        why:
          figures['written'] === 1
            ? `More than the ${n('limit')} N written for it.`
            : `More than ${n('limit')} N, a default for its kind.`,
        todo: 'Bearings wear with the cube of their load. Lower the tension, or enter what its maker allows.',
      };
    case 'few-teeth':
      return {
        title: `${name} has ${(figures['teeth'] ?? 0).toFixed(1)} teeth in mesh.`,
        why: `Fewer than ${n('least')} carry less than the belt is rated for, and jump sooner.`,
        todo: 'Give it more wrap, with an idler near it.',
      };
    case 'jumps':
      return {
        title: `Teeth can jump at ${name} ${rpm}.`,
        why: 'Nothing holds the slack side in mesh there.',
        todo: 'Raise the tension a little; a toothed belt wants little.',
      };
    case 'window-empty':
      return {
        title: 'No tension is right in all these states.',
        why: `${name} needs ${n('leastN')} N, and ${other === undefined ? 'a shaft' : pulleyLabel(drive, other)} carries no more than ${n('mostN')} N.`,
        todo: 'The ledger says how to get a usable range.',
      };
    case 'no-tension-holds':
      return {
        title: `No tension keeps ${name} from slipping.`,
        why: 'Its wrap and its surface are too little for any pull.',
        todo: 'Give it more wrap, or drive it from the ribs.',
      };
    case 'below-window':
      return {
        title: `${n('byN')} N too loose.`,
        why: `Present tension is ${n('tensionN')} N, and ${name} needs ${n('leastN')} N.`,
        todo: 'Tighten it to the window.',
      };
    case 'above-window':
      return {
        title: `${n('byN')} N too tight.`,
        why: `Present tension is ${n('tensionN')} N, and ${name} carries no more than ${n('mostN')} N.`,
        todo: 'Slacken it to the window.',
      };
  }
}

/** How much more of slack side or grip would just hold. */
function gripWanted(margin: number): string {
  if (margin <= -0.99) return 'Nothing presses the belt on there.';
  return `It would just hold with ${Math.round(100 * (1 / (1 + margin) - 1))} % more tension on its slack side.`;
}

export function tensionMessage(drive: Drive, finding: TensionFinding): string {
  return inOneLine(tensionWords(drive, finding));
}

/** Why a sound gives no note, and what to do. */
export const NO_PLUCK_WORDS: Record<NoPluck, string> = {
  silence: 'Nothing is to be heard. Hold the microphone nearer, and pluck harder.',
  'no-pluck':
    'No pluck was heard in it, only noise. Stop the engine, hold the microphone near mid-span, and pluck once a second.',
  'too-short': 'The sound is too short, or the span cannot give a note that is heard. Record two seconds or more.',
};

/** Why a school tells nothing of this belt, or of this span. */
export const CANNOT_TELL_WORDS: Record<CannotTell, string> = {
  'arm-yields':
    'A push moves the sprung arm, not the belt: it tells nothing of the tension. Pluck it, or read the pointer.',
  'no-arm': 'There is no sprung arm whose spring is known, so no pointer to go by.',
  'no-span': 'Point at a free span first.',
  'span-short': 'The span is too short for this: its ends and its stiffness count for more than its pull.',
  'no-figure': 'The reading has no figure of its own.',
  'too-slack': 'It yields more than a belt without any tension would; read it again.',
};

export const ARM_WORDS: Record<ArmVerdict, FindingWords> = {
  good: {
    title: 'The arm holds what its spring should.',
    why: 'Its pointer and the tension agree.',
    todo: 'Leave it.',
  },
  weak: {
    title: 'The spring is weak.',
    why: 'The arm stands where it should and pulls less than it should.',
    todo: 'Change the tensioner; offer the belt with it, for they wear together.',
  },
  strong: {
    title: 'It pulls more than its spring can.',
    why: 'Friction or a stop holds the arm, or the reading is wrong.',
    todo: 'Turn the engine by hand both ways and read again.',
  },
  binding: {
    title: 'The arm binds.',
    why: 'Turned one way and the other, it leaves the belt at two tensions further apart than sound friction does.',
    todo: 'Take the belt off and swing the arm through its whole stroke: it must go smoothly.',
  },
  stuck: {
    title: 'The arm is stuck.',
    why: 'Its pointer is not where the belt would put it, and the pull is not what its spring gives there.',
    todo: 'Take the belt off. An arm that does not spring back fully is changed.',
  },
  'wrong-length': {
    title: 'The belt has the wrong length for this arm.',
    why: 'The pointer stands where no right belt would put it; the spring agrees with the pull there.',
    todo: 'Check the length under Size before changing the tensioner.',
  },
  'cannot-say': {
    title: 'Not enough to say.',
    why: 'It takes the pointer and one measured tension.',
    todo: 'Turn the engine by hand forward, read; back, read again.',
  },
};
