import { type Drive, pulleyLabel } from '../../drive';
import { type FindingWords, inOneLine } from '../../finding';
import { formatLength, type LengthUnit } from '../../quantity';
import type { PhotoFinding } from './photo-finding';

/** Tells what a picture says about itself, in the shop's unit. */
export function photoWords(drive: Drive, finding: PhotoFinding, unit: LengthUnit = 'mm'): FindingWords {
  const name = finding.pulley === undefined ? 'the pulley' : pulleyLabel(drive, finding.pulley);
  const number = (key: string) => finding.figures?.[key] ?? 0;
  switch (finding.code) {
    case 'no-rims':
      return {
        title: 'No rim is marked in the picture yet.',
        why: 'It says nothing before one is.',
        todo: 'Put five points or more round the crank first.',
      };
    case 'few-points':
      return {
        title: `${name} needs points all round its rim.`,
        why: `${number('points')} so far; five tell an ellipse.`,
        todo: 'Spread them; eight is better.',
      };
    case 'no-known-diameter':
      return {
        title: 'No marked pulley has a known diameter.',
        why: 'The picture has no scale without one.',
        todo: 'Measure one, and switch "Diameter known" on for it.',
      };
    case 'no-camera':
      return {
        title: 'The points do not go together.',
        why: 'No place of the camera explains them, so nothing is taken from this picture.',
        todo: 'Look for points off their rims, and put them again.',
      };
    case 'scale-unchecked':
      return {
        title: `Only ${name} gives the scale.`,
        why: 'Nothing checks it.',
        todo: 'A second known pulley would show a slip.',
      };
    case 'known-disagrees':
      return {
        title: `The picture does not agree with the diameter of ${name}.`,
        why: `It was given as ${formatLength(number('given'), unit)}; the other known ones make it ${formatLength(number('seen'), unit)}.`,
        todo: 'Measure it again, over the very edge that the points lie on.',
      };
    case 'knowns-differ':
      return {
        title: 'The known diameters do not go together.',
        why: `${(finding.pulleys ?? []).map((id) => pulleyLabel(drive, id)).join(' and ')} give the picture different scales, and nothing tells which is wrong.`,
        todo: 'Measure one of them again, or a third. The ± is widened until then.',
      };
    case 'middle-guessed':
      return {
        title: 'Was the picture cut down since it was taken?',
        why: 'Then its middle is not where the camera looked, and pulleys at other depths would be put right the wrong way. Nobody has said, so the ± allows for it.',
        todo: 'Say so at the picture: whole, or cut down.',
      };
    case 'steep':
      return {
        title: `The picture was taken ${number('tilt').toFixed(0)}° from square.`,
        why: 'Rims lean away and hide their far edge.',
        todo: 'Take it again more nearly head-on, from further off.',
      };
    case 'point-off':
      return {
        title: `${number('points') === 1 ? 'A point' : `${number('points')} points`} round ${name} ${number('points') === 1 ? 'lies' : 'lie'} off its rim.`,
        why: 'Left out; drawn in red.',
        todo: 'Drag it onto the rim or take it out.',
      };
    case 'either-tilt':
      return {
        title: 'The picture may be tilted either way.',
        why: `The rims fit both; centres differ by up to ${formatLength(number('mm'), unit)}, and the ± says so.`,
        todo: 'More points, a second known pulley or one tape across the drive settles it.',
      };
    case 'depth-guessed':
      return {
        title: 'The marked pulleys lie at different depths.',
        why: `They are put right for a camera ${formatLength(number('distance'), unit)} away, a guess from a usual lens.`,
        todo: 'Measure from the lens to the crank pulley and write it in.',
      };
  }
}

/** The same on one line, in mm. */
export function photoMessage(drive: Drive, finding: PhotoFinding): string {
  return inOneLine(photoWords(drive, finding));
}
