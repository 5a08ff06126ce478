import { type AlignTool, type Drive, type MoveKind, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { type RunVerdict, steepnessDeg } from '../planes';
import { formatInchesDecimal, type LengthUnit, plural, fixed, grouped } from '../quantity';
import type { AlignFinding } from './finding';
import type { Suspect } from './loaded';
import { nearestPlace } from './next-reading';
import type { PlannedMove } from './plan';
import { toDegrees } from '../numeric';

/** A small offset without its side: tenths of a mm, thousandths of an inch beside it where the shop works in inches. */
export function smallFigure(mm: number, unit: LengthUnit = 'mm', places = 1): string {
  const size = Math.abs(mm);
  const metric = `${fixed(size, places)} mm`;
  return unit === 'mm' ? metric : `${formatInchesDecimal(size, 3)} (${metric})`;
}

/** An offset with its side: `1.9 mm out`, `in line` where there is nothing to tell. */
export function offsetFigure(mm: number, unit: LengthUnit = 'mm'): string {
  if (Math.abs(mm) < 0.05) return 'in line';
  return `${smallFigure(mm, unit)} ${mm > 0 ? 'out' : 'in'}`;
}

/** The same in one unit, for a drawing or a table: the shop's. */
export function shortOffset(mm: number, unit: LengthUnit): string {
  return Math.abs(mm) < 0.05 ? 'in line' : `${shortFigure(mm, unit)} ${mm > 0 ? 'out' : 'in'}`;
}

/** A small length in the shop's unit alone. */
export const shortFigure = (mm: number, unit: LengthUnit): string =>
  unit === 'mm' ? `${fixed(Math.abs(mm), 1)} mm` : formatInchesDecimal(Math.abs(mm), 3);

/** How far a plane is tipped, and which edge of it stands out. */
export function tiltFigure([x, y]: readonly [number, number]): string {
  const steep = steepnessDeg([x, y]);
  return steep < 0.005 ? '0°' : `${degreeFigure(steep)} ${nearestPlace(toDegrees(Math.atan2(y, x)))} out`;
}

/** An angle in hundredths of a degree, without its sign. */
export const degreeFigure = (degrees: number): string => `${fixed(Math.abs(degrees), 2)}°`;

export const VERDICT_WORDS: Record<RunVerdict, { mark: string; word: string }> = {
  good: { mark: '●', word: 'good' },
  watch: { mark: '▲', word: 'watch' },
  wrong: { mark: '■', word: 'wrong' },
};

export const ALIGN_TOOL_WORDS: Record<AlignTool, { name: string; hint: string }> = {
  straightedge: {
    name: 'Straightedge',
    hint: 'Lay it on the crank’s face. Lock a calliper from its edge to a rib of the crank, and read to the same rib here.',
  },
  laser: { name: 'Laser and target', hint: 'Laser in the crank’s grooves, target in the same-numbered groove here.' },
  calliper: { name: 'Calliper to a face', hint: 'From a true face of the block to this groove, less the crank’s own.' },
  feeler: { name: 'Feeler or washer', hint: 'What just goes between the straightedge and the pulley’s face.' },
  camera: { name: 'Camera', hint: 'From outside arm’s reach, along the crank’s plane.' },
};

export const MOVE_WORDS: Record<MoveKind, { name: string; hint: string }> = {
  press: { name: 'Press', hint: 'Pressed along its shaft, as far as the hub and the shaft’s end let it.' },
  shim: { name: 'Spacer', hint: 'A spacer or washer behind it; the sizes at hand.' },
  groove: { name: 'Next groove', hint: 'The belt over to a free groove of a wider pulley.' },
  square: { name: 'Square', hint: 'The bracket squared: slacken it, hold it true, the far bolt first.' },
  hub: { name: 'Other hub', hint: 'Another hub or pulley, by how far out it brings the grooves.' },
};

export const SUSPECT_WORDS: Record<Suspect, string> = {
  bracket: 'its bracket',
  bearing: 'its bearing',
  'hub-ring': 'the ring of rubber in its hub',
};

/** A step of a plan, as it is told to somebody with the tool in hand. */
export function moveWords(
  drive: Drive,
  { pulley, kind, mm = 0, steps = 0, name }: PlannedMove,
  unit: LengthUnit,
): string {
  const what = pulleyLabel(drive, pulley);
  const way = mm < 0 ? 'in' : 'out';
  const grooves = plural(Math.abs(steps), 'groove');
  switch (kind) {
    case 'press':
      return `Press ${what} ${smallFigure(mm, unit)} ${way}`;
    case 'shim':
      return mm < 0
        ? `Take ${smallFigure(mm, unit, 2)} of spacer out from behind ${what}`
        : `Put ${smallFigure(mm, unit, 2)} of spacer behind ${what}`;
    case 'groove':
      return `Move the belt ${grooves} ${steps < 0 ? 'in' : 'out'} on ${what}`;
    case 'square':
      return `Square the bracket of ${what}`;
    case 'hub':
      return `Fit ${name ?? 'another hub'} on ${what}, ${smallFigure(mm, unit)} further ${way}`;
  }
}

/** What a row of the table is told with: names of pulleys, and figures in the shop's unit. */
interface Telling {
  name: (pulley: string) => string;
  offset: (mm: number) => string;
  small: (mm: number) => string;
}

const ribsWords = (ribs: number) => plural(Math.abs(ribs), 'rib');
const sideOf = (ribs: number) => (ribs > 0 ? 'out' : 'in');
const armCause = (arm: number) =>
  arm === 1 ? 'Likely cause: a cocked arm or a failing roller bearing.' : 'Likely cause: a bent bracket.';

/** A run that is not good: `todo` once it was measured. */
const runWords = (
  {
    span,
    figures: { deg, plusMinusDeg, limitDeg, read },
  }: Pick<AlignFinding & { code: 'run-wrong' }, 'span' | 'figures'>,
  { name }: Telling,
  todo: string,
): FindingWords => ({
  title: `${name(span.from)} to ${name(span.to)} runs ${degreeFigure(deg)} off.`,
  why: `Up to ${limitDeg}° is good. ${
    read === 1 ? `Uncertainty ± ${degreeFigure(plusMinusDeg)}.` : 'This is from the drawing alone: not measured yet.'
  }`,
  todo: read === 1 ? todo : 'Read both pulleys before you act on it.',
});

const ALIGN_WORDS: WordsByCode<AlignFinding, Telling> = {
  'no-path': () => ({
    title: 'No belt fits this route yet.',
    why: 'Without a closed path there are no runs.',
    todo: 'Correct the route first, under Route.',
  }),
  'few-guides': () => ({
    title: 'No two pulleys guide this belt.',
    why: 'Smooth rollers without flanges let it wander, so no run has an angle.',
    todo: 'Check the faces of its pulleys under Survey.',
  }),
  'not-read': ({ pulleys }) => ({
    title: `${plural(pulleys.length, 'pulley')} not read yet.`,
    why: 'Their runs are shown as drawn, and a drawing is easily 2 mm off.',
    todo: 'Read the one marked on the drawing next.',
  }),
  'run-wrong': (finding, telling) =>
    runWords(
      finding,
      telling,
      'It chirps, wears the belt’s edges and can throw it off. Cures lists moves that correct it.',
    ),
  'run-watch': (finding, telling) =>
    runWords(finding, telling, 'Check again when the belt is new, and correct it with the next job.'),
  'rib-off': ({ pulley, figures: { ribs } }, { name }) => ({
    title: `The belt sits ${ribsWords(ribs)} too far ${sideOf(ribs)} on ${name(pulley)}.`,
    why: 'The free grooves counted there do not match the crank’s.',
    todo: 'Move it over before the engine turns: a rib off ruins the belt in a minute.',
  }),
  'stands-a-rib-off': ({ pulley, figures: { ribs, free } }, { name }) => ({
    title: `${name(pulley)} is about ${ribsWords(ribs)} too far ${sideOf(ribs)}.`,
    why: 'Both its runs are off by one rib pitch. Likely a wrong groove, or a reading to the wrong rib.',
    todo:
      free === 1
        ? `Count the ribs outside. It has a free groove further ${ribs > 0 ? 'in' : 'out'}.`
        : 'Count the ribs outside, and read it again to the same rib as the crank.',
  }),
  'hangs-over': ({ pulley, figures: { off } }, { name }) => ({
    title: `The belt hangs over the edge of ${name(pulley)}.`,
    why: `By its count ${off < 0 ? 'a rib runs behind its last groove' : 'a rib runs in front of its first groove'}.`,
    todo: 'Do not turn the engine. Put the belt back in its grooves, and count again.',
  }),
  'groove-not-there': ({ pulley }, { name }) => ({
    title: `${name(pulley)} has no free groove for that move.`,
    why: 'With the move listed, the belt’s ribs would hang over its edge.',
    todo: 'Take that move out, or count the grooves again.',
  }),
  'wrong-rib': ({ pulley, figures: { mm, meantMm } }, { name, offset }) => ({
    title: `A reading of ${name(pulley)} may be to the wrong rib.`,
    why: `It says ${offset(mm)}; one rib over it would say ${offset(meantMm)}, as the others do.`,
    todo: 'Count the ribs and read it again.',
  }),
  'other-side': ({ pulley, figures: { mm } }, { name, offset }) => ({
    title: `A reading of ${name(pulley)} may be from the other side of the straightedge.`,
    why: `It says ${offset(mm)}; with the other sign it would agree.`,
    todo: 'Check which side of the edge the groove is on, and enter it again.',
  }),
  'inch-for-mm': ({ pulley, figures: { mm, meantMm } }, { name, offset }) => ({
    title: `A reading of ${name(pulley)} may be in the other unit.`,
    why: `It says ${offset(mm)}; in the other unit it is ${offset(meantMm)}, as the others say.`,
    todo: 'Enter it again with its unit.',
  }),
  'readings-disagree': ({ pulley, figures: { apartMm } }, { name, small }) => ({
    title: `Readings of ${name(pulley)} disagree.`,
    why: `They are ${small(apartMm)} apart, more than a likely tilt and their ± allow.`,
    todo: 'Read it again at the same places. Likely causes: a wrong rib, the other side of the edge, the other unit.',
  }),
  'straightedge-short': ({ pulley }, { name }) => ({
    title: `The straightedge hardly reaches ${name(pulley)}.`,
    why: 'Too little of it lies on the crank, so its far end can be anywhere.',
    todo: 'Use a longer one, or a laser.',
  }),
  'load-by-hand': ({ pulley }, { name }) => ({
    title: `${name(pulley)} was read by hand with the engine pulling.`,
    why: 'That is within reach of the belt.',
    todo: 'Take it out, and read it by laser or camera from outside arm’s reach.',
  }),
  'simulated-mixed': ({ pulley }, { name }) => ({
    title: `${name(pulley)} has simulated readings among real ones.`,
    why: 'The simulated laser that ships with Emery reads made-up planes.',
    todo: 'Take out one kind or the other before you use them.',
  }),
  wobbles: ({ pulley, figures: { runOutMm } }, { name, small }) => ({
    title: `${name(pulley)} wobbles: runout ${small(runOutMm)}.`,
    why: 'It reads differently after half a turn, so it is not its bracket.',
    todo: 'Check for a bent pulley, a worn hub or dirt behind it.',
  }),
  steers: ({ pulley, figures: { trackMm, arm } }, { name, offset }) => ({
    title: `${name(pulley)} steers the belt ${trackMm > 0 ? 'out' : 'in'}.`,
    why: `With its tilt, the track should be ${offset(trackMm)} of the middle. ${armCause(arm)}`,
    todo: 'Check the track, and square or change what holds the roller.',
  }),
  'track-differs': ({ pulley, figures: { seenMm, trackMm, arm } }, { name, offset }) => ({
    title: `The track on ${name(pulley)} is not where it should be.`,
    why: `Seen ${offset(seenMm)}; by the readings it should be ${offset(trackMm)}. ${armCause(arm)}`,
    todo: 'Read the roller at two places across, and rock it by hand.',
  }),
  'moved-under-load': ({ pulley, figures: { movedMm, tiltDeg, suspect, or } }, { name, offset }) => ({
    title: `${name(pulley)} moves under load.`,
    why: `It moves ${offset(movedMm)} and tips ${degreeFigure(tiltDeg)} when the engine pulls.`,
    todo: `Check ${SUSPECT_WORDS[suspect]}${or === '' ? '' : `, then ${SUSPECT_WORDS[or]}`}.`,
  }),
  'no-cure': ({ figures: { deg } }) => ({
    title: 'No combination of the listed moves brings all runs within the limit.',
    why: `The worst is ${degreeFigure(deg)} off.`,
    todo: 'Add what else can be moved, pressed or spaced.',
  }),
  'only-watch': ({ figures: { deg } }) => ({
    title: `The listed moves leave ${degreeFigure(deg)}.`,
    why: 'No run is wrong any more, but not all are good.',
    todo: 'Add what else can be moved, or check it at each service.',
  }),
  'plan-stopped': () => ({
    title: 'The search stopped early.',
    why: 'There are more combinations than Emery tries at once.',
    todo: 'Take out moves that you would not make.',
  }),
  'stacks-apart': ({ pulley, other, figures: { apartMm, plusMinusMm } }, { name, small }) => ({
    title: `${name(pulley)} will sit ${small(apartMm)} further out than ${name(other)}.`,
    why: `By the parts’ own depths, ± ${small(plusMinusMm)}.`,
    todo: 'Look for parts of another depth before you buy any.',
  }),
  'piece-without-depth': ({ pulley, figures: { piece } }, { name }) => ({
    title: `${piece} of ${name(pulley)} has no depth yet.`,
    why: 'It counts as 0 mm until it has one.',
    todo: 'Measure it, or enter the depths it is sold in.',
  }),
  'too-many-sets': ({ figures: { count } }) => ({
    title: `${grouped(Math.round(count))} sets of parts are too many to check.`,
    why: 'A million is the most.',
    todo: 'Settle on one part where the choice is clear.',
  }),
};

/** One finding of Align: the verdict, why, and what to do. */
export function alignWords(drive: Drive, finding: AlignFinding, unit: LengthUnit = 'mm'): FindingWords {
  return wordsOf(ALIGN_WORDS, finding, {
    name: (pulley) => pulleyLabel(drive, pulley),
    offset: (mm) => offsetFigure(mm, unit),
    small: (mm) => smallFigure(mm, unit),
  });
}

export function alignMessage(drive: Drive, finding: AlignFinding): string {
  return inOneLine(alignWords(drive, finding));
}
