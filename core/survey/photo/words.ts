import { type Drive, pulleyLabel } from '../../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../../finding';
import { formatLength, type LengthUnit, fixed } from '../../quantity';
import type { PhotoFinding } from './photo-finding';

/** What a row of the table is told with: names, and figures in the shop's unit. */
interface Telling {
  name: (pulley: string) => string;
  length: (mm: number) => string;
}

const PHOTO_WORDS: WordsByCode<PhotoFinding, Telling> = {
  'no-rims': () => ({
    title: 'No rim is marked in the picture yet.',
    why: 'Emery measures from marked rims.',
    todo: 'Put five points or more round the crank first.',
  }),
  'few-points': ({ pulley, figures: { points } }, { name }) => ({
    title: `${name(pulley)} needs points all round its rim.`,
    why: `${points} so far; an ellipse takes five.`,
    todo: 'Spread them; eight is better.',
  }),
  'no-known-diameter': () => ({
    title: 'No marked pulley has a known diameter.',
    why: 'The picture has no scale without one.',
    todo: 'Measure one, and switch "Diameter known" on for it.',
  }),
  'no-camera': () => ({
    title: 'The points do not fit together.',
    why: 'No camera position explains them, so nothing is taken from this picture.',
    todo: 'Look for points off their rims, and place them again.',
  }),
  'scale-unchecked': ({ pulley }, { name }) => ({
    title: `The scale comes from ${name(pulley)} alone.`,
    why: 'Nothing checks it.',
    todo: 'A second known pulley would show a mistake.',
  }),
  'known-disagrees': ({ pulley, figures: { given, seen } }, { name, length }) => ({
    title: `The picture does not agree with the diameter of ${name(pulley)}.`,
    why: `It was entered as ${length(given)}; the other known ones make it ${length(seen)}.`,
    todo: 'Measure it again, over the same edge that the points lie on.',
  }),
  'knowns-differ': ({ pulleys }, { name }) => ({
    title: 'The known diameters disagree.',
    why: `${pulleys.map(name).join(' and ')} give the picture different scales. Not enough readings to say which is wrong.`,
    todo: 'Measure one of them again, or a third. The ± is widened until then.',
  }),
  'middle-guessed': () => ({
    title: 'Has the picture been cropped since it was taken?',
    why: 'If so, its middle is not where the camera pointed, and pulleys at other depths would be corrected the wrong way. Until this is answered, the ± allows for it.',
    todo: 'Answer at the picture: whole, or cropped.',
  }),
  steep: ({ figures: { tilt } }) => ({
    title: `The picture was taken ${fixed(tilt, 0)}° from square.`,
    why: 'Rims lean away and hide their far edge.',
    todo: 'Take it again more nearly head-on, from further away.',
  }),
  'point-off': ({ pulley, figures: { points } }, { name }) => ({
    title: `${points === 1 ? 'A point' : `${points} points`} round ${name(pulley)} ${points === 1 ? 'lies' : 'lie'} off its rim.`,
    why: 'Left out; drawn in red.',
    todo: 'Drag it onto the rim or take it out.',
  }),
  'either-tilt': ({ figures: { mm } }, { length }) => ({
    title: 'The picture may be tilted either way.',
    why: `The rims fit both; centres differ by up to ${length(mm)}, and the ± includes it.`,
    todo: 'More points, a second known pulley or one tape across the drive settles it.',
  }),
  'depth-guessed': ({ figures: { distance } }, { length }) => ({
    title: 'The marked pulleys are at different depths.',
    why: `They are corrected for a camera ${length(distance)} away, estimated for a usual lens.`,
    todo: 'Measure from the lens to the crank pulley and enter it.',
  }),
};

/** Tells what a picture says about itself, in the shop's unit. */
export function photoWords(drive: Drive, finding: PhotoFinding, unit: LengthUnit = 'mm'): FindingWords {
  return wordsOf(PHOTO_WORDS, finding, {
    name: (pulley) => pulleyLabel(drive, pulley),
    length: (mm) => formatLength(mm, unit),
  });
}

/** The same on one line, in mm. */
export function photoMessage(drive: Drive, finding: PhotoFinding): string {
  return inOneLine(photoWords(drive, finding));
}
