import { type AlignTool, type Drive, type MoveKind, pulleyLabel } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { type RunVerdict, steepnessDeg, toDegrees } from '../planes';
import { formatInchesDecimal, type LengthUnit } from '../quantity';
import type { AlignFinding } from './finding';
import type { Suspect } from './loaded';
import { nearestPlace } from './next-reading';
import type { PlannedMove } from './plan';

/** A small offset without its side: tenths of a mm, thousandths of an inch beside it where the shop works in inches. */
export function smallFigure(mm: number, unit: LengthUnit = 'mm', places = 1): string {
  const size = Math.abs(mm);
  const metric = `${size.toFixed(places)} mm`;
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
  unit === 'mm' ? `${Math.abs(mm).toFixed(1)} mm` : formatInchesDecimal(Math.abs(mm), 3);

/** How far a plane is tipped, and which edge of it stands out. */
export function tiltFigure([x, y]: readonly [number, number]): string {
  const steep = steepnessDeg([x, y]);
  return steep < 0.005 ? '0°' : `${degreeFigure(steep)} ${nearestPlace(toDegrees(Math.atan2(y, x)))} out`;
}

/** An angle in hundredths of a degree, without its sign. */
export const degreeFigure = (degrees: number): string => `${Math.abs(degrees).toFixed(2)}°`;

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
  const grooves = `${Math.abs(steps)} ${Math.abs(steps) === 1 ? 'groove' : 'grooves'}`;
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

/** One finding of Align: the verdict, why, and what to do. */
export function alignWords(drive: Drive, finding: AlignFinding, unit: LengthUnit = 'mm'): FindingWords {
  const { code, pulley, other, pulleys = [], span, figures = {} } = finding;
  const name = pulley === undefined ? 'a pulley' : pulleyLabel(drive, pulley);
  const n = (key: string) => Number(figures[key] ?? 0);
  const offset = (key: string) => offsetFigure(n(key), unit);
  const run = span ? `${pulleyLabel(drive, span.from)} to ${pulleyLabel(drive, span.to)}` : 'A run';
  const ribs = Math.abs(n('ribs'));
  const many = `${ribs} ${ribs === 1 ? 'rib' : 'ribs'}`;
  const side = n('ribs') > 0 ? 'out' : 'in';
  const arm = n('arm') === 1 ? 'A cocked arm or a failing roller bearing does that.' : 'A bent bracket does that.';
  switch (code) {
    case 'no-path':
      return {
        title: 'No belt lies on this route yet.',
        why: 'Without a closed path there are no runs.',
        todo: 'Put the route right first, under Route.',
      };
    case 'few-guides':
      return {
        title: 'No two pulleys guide this belt.',
        why: 'Smooth rollers without flanges let it wander, so no run has an angle.',
        todo: 'Check the faces of its pulleys under Survey.',
      };
    case 'not-read':
      return {
        title: `${pulleys.length === 1 ? '1 pulley' : `${pulleys.length} pulleys`} not read yet.`,
        why: 'Their runs are told as they are drawn, and a drawing is off by 2 mm easily.',
        todo: 'Read the one that is marked on the drawing next.',
      };
    case 'run-wrong':
    case 'run-watch':
      return {
        title: `${run} runs ${degreeFigure(n('deg'))} off.`,
        why: `Up to ${n('limitDeg')}° is good. ${n('read') === 1 ? `It is known to ± ${degreeFigure(n('plusMinusDeg'))}.` : 'That is by the drawing alone: it is not read yet.'}`,
        todo: runTodo(code === 'run-wrong', n('read') === 1),
      };
    case 'groove-not-there':
      return {
        title: `${name} has no groove to go over to.`,
        why: 'With the move that is listed the belt’s ribs would hang over its edge.',
        todo: 'Take that move out, or count the grooves again.',
      };
    case 'rib-off':
      return {
        title: `The belt sits ${many} too far ${side} on ${name}.`,
        why: 'The grooves counted free there do not match the crank’s.',
        todo: 'Move it over before the engine turns: a rib off ruins the belt in a minute.',
      };
    case 'stands-a-rib-off':
      return {
        title: `${name} stands about ${many} too far ${side}.`,
        why: 'Both its runs show one step of the rib pitch, so a wrong groove, or a reading to the wrong rib, is likely.',
        todo:
          n('free') === 1
            ? `Count the ribs outside. It has a free groove further ${side === 'out' ? 'in' : 'out'}.`
            : 'Count the ribs outside, and read it again to the same rib as the crank.',
      };
    case 'hangs-over':
      return {
        title: `The belt hangs over the edge of ${name}.`,
        why: `By its count ${n('off') < 0 ? 'a rib runs behind its last groove' : 'a rib runs in front of its first groove'}.`,
        todo: 'Do not turn the engine. Put the belt back in its grooves, and count again.',
      };
    case 'wrong-rib':
      return {
        title: `A reading of ${name} may be to the wrong rib.`,
        why: `It says ${offset('mm')}; a rib over it would say ${offset('meantMm')}, as the others do.`,
        todo: 'Count the ribs and read it again.',
      };
    case 'other-side':
      return {
        title: `A reading of ${name} may be from the other side of the straightedge.`,
        why: `It says ${offset('mm')}; with the other sign it would agree.`,
        todo: 'Look which side of the edge the groove is on, and enter it again.',
      };
    case 'inch-for-mm':
      return {
        title: `A reading of ${name} may be in the other unit.`,
        why: `It says ${offset('mm')}; in the other unit it is ${offset('meantMm')}, as the others say.`,
        todo: 'Enter it again with its unit.',
      };
    case 'readings-disagree':
      return {
        title: `Readings of ${name} contradict one another.`,
        why: `They lie ${smallFigure(n('apartMm'), unit)} apart, more than a likely tilt and their ± allow.`,
        todo: 'Read it again at the same places. A wrong rib, the other side of the edge or the other unit does that.',
      };
    case 'straightedge-short':
      return {
        title: `The straightedge hardly reaches ${name}.`,
        why: 'Little of it is left to bear on the crank, so its far end can be anywhere.',
        todo: 'Use a longer one, or a laser.',
      };
    case 'load-by-hand':
      return {
        title: `${name} was read by hand with the engine pulling.`,
        why: 'That is within reach of the belt.',
        todo: 'Take it out, and read it by laser or camera from outside arm’s reach.',
      };
    case 'simulated-mixed':
      return {
        title: `${name} has simulated readings among real ones.`,
        why: 'The laser that ships with Emery reads planes that it has made up.',
        todo: 'Take out the ones or the others before you go by them.',
      };
    case 'wobbles':
      return {
        title: `${name} wobbles: its face runs out ${smallFigure(n('runOutMm'), unit)}.`,
        why: 'It reads differently after half a turn, so it is not its bracket.',
        todo: 'Look for a bent pulley, a worn hub or dirt behind it.',
      };
    case 'steers':
      return {
        title: `${name} steers the belt ${n('trackMm') > 0 ? 'out' : 'in'}.`,
        why: `Tilted as it is, its track should be ${offset('trackMm')} of the middle. ${arm}`,
        todo: 'Look at the track, and square or change what holds it.',
      };
    case 'track-differs':
      return {
        title: `The track on ${name} is not where it should be.`,
        why: `It is seen ${offset('seenMm')}, and should be ${offset('trackMm')} by the readings. ${arm}`,
        todo: 'Read the roller at two places across, and rock it by hand.',
      };
    case 'moved-under-load': {
      const or = String(figures['or'] ?? '');
      const suspect = SUSPECT_WORDS[figures['suspect'] as Suspect] ?? 'what holds it';
      return {
        title: `${name} moves under load.`,
        why: `It goes ${offset('movedMm')} and tips ${degreeFigure(n('tiltDeg'))} when the engine pulls.`,
        todo: `Look at ${suspect}${or === '' ? '' : `, then at ${SUSPECT_WORDS[or as Suspect]}`}.`,
      };
    }
    case 'no-cure':
      return {
        title: 'Nothing of what can be done brings all runs within the limit.',
        why: `The worst is ${degreeFigure(n('deg'))} off.`,
        todo: 'Say what else can be moved, pressed or spaced.',
      };
    case 'only-watch':
      return {
        title: `What can be done leaves ${degreeFigure(n('deg'))}.`,
        why: 'No run is wrong any more, but not all are good.',
        todo: 'Say what else can be moved, or keep an eye on it.',
      };
    case 'plan-stopped':
      return {
        title: 'The search stopped early.',
        why: 'There are more ways than are tried at once.',
        todo: 'Take out moves that you would not make.',
      };
    case 'stacks-apart':
      return {
        title: `${name} comes to stand ${smallFigure(n('apartMm'), unit)} further out than ${other === undefined ? 'another' : pulleyLabel(drive, other)}.`,
        why: `By the parts' own depths, ± ${smallFigure(n('plusMinusMm'), unit)}.`,
        todo: 'Look for parts of another depth before any are bought.',
      };
    case 'piece-without-depth':
      return {
        title: `${String(figures['piece'] ?? 'A piece')} of ${name} has no depth yet.`,
        why: 'It counts as nothing until it has one.',
        todo: 'Measure it, or enter the depths it comes in.',
      };
    case 'too-many-sets':
      return {
        title: `${Math.round(n('count')).toLocaleString('en')} sets of parts are more than are looked at.`,
        why: 'A million is the most.',
        todo: 'Settle on one part where the choice is clear.',
      };
  }
}

function runTodo(wrong: boolean, read: boolean): string {
  if (!read) return 'Read its pulleys before you go by it.';
  return wrong
    ? 'It chirps, wears its edges and can climb out. See what moves put it right, under Cures.'
    : 'Look again when the belt is new, and put it right with the next job.';
}

export function alignMessage(drive: Drive, finding: AlignFinding): string {
  return inOneLine(alignWords(drive, finding));
}
