import { type Drive, pulleyLabel, READING_WORDS, type SurveyReading } from '../drive';
import { type FindingWords, inOneLine, type WordsByCode, wordsOf } from '../finding';
import { capital, formatLength, type LengthUnit, fixed } from '../quantity';
import type { ReadingSlip } from './mistakes';
import type { SurveyFinding } from './survey-finding';

const MISTAKES: Record<ReadingSlip, string> = {
  inch: 'Likely mistake: an inch or two out on the tape.',
  foot: 'Likely mistake: a foot out on the tape.',
  centimetre: 'Likely mistake: a centimetre out on the tape.',
  decimetre: 'Likely mistake: ten centimetres out on the tape.',
  unit: 'Likely mistake: inches and millimetres mixed up.',
  'rim-missed': 'Likely mistake: near side of a rim instead of the far side.',
  radius: 'Likely mistake: one end held at the centre instead of the rim.',
  centres: 'Likely mistake: measured centre to centre.',
  'far-rims': 'Likely mistake: measured far rim to far rim.',
  'near-rims': 'Likely mistake: measured near rim to near rim.',
  sign: 'Likely mistake: measured to the other side.',
  'turned-about': 'Likely mistake: measured from the other end.',
};

/** What a row of the table is told with: names, and figures in the shop's unit. */
interface Telling {
  name: (pulley: string) => string;
  reading: (id: string) => string;
  /** A figure of that reading: an angle, or a length. */
  figureOf: (id: string, value: number) => string;
  length: (mm: number) => string;
}

const SURVEY_WORDS: WordsByCode<SurveyFinding, Telling> = {
  'no-readings': () => ({
    title: 'No tape readings yet.',
    why: 'The positions are as sketched.',
    todo: 'Take the first reading across two rims.',
  }),
  undetermined: ({ pulley }, { name }) => ({
    title: `The position of ${name(pulley)} is not fixed yet.`,
    why: 'The readings leave it free to move.',
    todo: 'Tape it to one more pulley.',
  }),
  suspect: ({ reading: id, figures: { value, shouldBe, slip } }, { reading, figureOf }) => ({
    title: `Take ${reading(id)} again.`,
    why: `It reads ${figureOf(id, value)}; the others make it ${figureOf(id, shouldBe)}. ${
      slip === undefined ? '' : MISTAKES[slip]
    }`.trim(),
    todo: 'It is left out until then.',
  }),
  contradictory: ({ readings = [], diameters = [], circles = [] }, { name, reading }) => ({
    title: 'These readings disagree.',
    why: `${capital(
      [
        ...readings.map(reading),
        ...diameters.map((id) => `the diameter of ${name(id)}`),
        ...circles.map((id) => `the circle round ${name(id)}`),
      ].join('; '),
    )}. Not enough readings to say which is wrong.`,
    todo: 'Take one of them again, or one more between other pulleys.',
  }),
  disagree: ({ figures: { factor } }) => ({
    title: `The readings disagree ${fixed(factor, 1)} times as much as their ± allows.`,
    why: 'No single one is clearly wrong.',
    todo: 'The ± shown is widened to match. Check that the diameters are right.',
  }),
  unchecked: () => ({
    title: 'No reading checks the others.',
    why: 'There are just enough to draw from.',
    todo: 'One more tape reading would show a mistake.',
  }),
  mirrored: ({ pulley, figures: { x, y } }, { name, length }) => ({
    title: `${name(pulley)} fits as well on the other side.`,
    why: `At ${length(x)}, ${length(y)} the tapes agree too; Emery took the side it was sketched on.`,
    todo: 'If it sits there on the engine, move it across.',
  }),
  'two-ways': ({ pulley, figures: { deg, x, y } }, { name, length }) => ({
    title: 'The whole drive fits turned another way too.',
    why: `Only one reading across or up fixes how it is turned: turned by ${fixed(deg, 0)}° it fits as well, and ${name(pulley)} would be at ${length(x)}, ${length(y)}. Emery took the way it was sketched.`,
    todo: 'An angle, or one more reading across or up, settles it.',
  }),
  'circle-suspect': ({ pulley, figures: { off } }, { name, length }) => ({
    title: `Check the circle round ${name(pulley)} in the picture.`,
    why: `The other readings put its centre ${length(off)} away.`,
    todo: 'Check that the points lie on its rim, and its plane. It is left out until then.',
  }),
  'diameter-suspect': ({ pulley, figures: { off } }, { name, length }) => ({
    title: `The tapes do not fit the diameter of ${name(pulley)}.`,
    why: `They need it ${length(Math.abs(off))} ${off > 0 ? 'larger' : 'smaller'}.`,
    todo: 'Measure it again, over the same rim that the tapes went round. Its reading is left out until then.',
  }),
};

/** Tells a finding of the tape network in the shop's unit. */
export function surveyWords(drive: Drive, finding: SurveyFinding, unit: LengthUnit = 'mm'): FindingWords {
  const taken = new Map((drive.survey?.readings ?? []).map((reading) => [reading.id, reading]));
  const length = (mm: number) => formatLength(mm, unit);
  return wordsOf(SURVEY_WORDS, finding, {
    name: (pulley) => pulleyLabel(drive, pulley),
    reading: (id) => nameReading(drive, taken.get(id)),
    figureOf: (id, value) => (taken.get(id)?.kind === 'angle' ? `${fixed(value, 1)}°` : length(value)),
    length,
  });
}

/** The same on one line, in mm. */
export function surveyMessage(drive: Drive, finding: SurveyFinding): string {
  return inOneLine(surveyWords(drive, finding));
}

function nameReading(drive: Drive, reading: SurveyReading | undefined): string {
  if (!reading) return 'the reading';
  const to = pulleyLabel(drive, reading.to);
  if (reading.from === undefined) return `${to} ${READING_WORDS[reading.kind]}`;
  return `${pulleyLabel(drive, reading.from)} to ${to}, ${READING_WORDS[reading.kind]}`;
}
