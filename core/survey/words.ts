import { type Drive, pulleyLabel, READING_WORDS, type SurveyReading } from '../drive';
import { type FindingWords, inOneLine } from '../finding';
import { formatLength, type LengthUnit } from '../quantity';
import type { SurveyFinding } from './survey-finding';

const MISTAKES: Record<string, string> = {
  inch: 'The tape looks an inch or two out.',
  foot: 'The tape looks a foot out.',
  centimetre: 'The tape looks a centimetre out.',
  decimetre: 'The tape looks ten centimetres out.',
  unit: 'Inches and millimetres look mixed up.',
  'rim-missed': 'It looks as if one rim was missed: near side instead of far.',
  radius: 'It looks as if one end was held at the centre instead of the rim.',
  centres: 'It looks like centre to centre.',
  'far-rims': 'It looks like far rim to far rim.',
  'near-rims': 'It looks like near rim to near rim.',
  sign: 'It looks measured to the other side.',
  'turned-about': 'It looks measured from the other end.',
};

/** Tells a finding of the tape network in the shop's unit. */
export function surveyWords(drive: Drive, finding: SurveyFinding, unit: LengthUnit = 'mm'): FindingWords {
  const readings = drive.survey?.readings ?? [];
  const named = (id: string | undefined) =>
    nameReading(
      drive,
      readings.find((reading) => reading.id === id),
    );
  const name = finding.pulley === undefined ? 'the pulley' : pulleyLabel(drive, finding.pulley);
  const number = (key: string) => Number(finding.figures?.[key] ?? 0);
  switch (finding.code) {
    case 'no-readings':
      return {
        title: 'No tape readings yet.',
        why: 'The drawing stands as it was sketched.',
        todo: 'Take the first one across two rims.',
      };
    case 'undetermined':
      return {
        title: `${name} is not fixed yet.`,
        why: 'The readings leave it free to move.',
        todo: 'Tape it to one more pulley.',
      };
    case 'suspect': {
      const reading = readings.find(({ id }) => id === finding.reading);
      const show = (value: number) => (reading?.kind === 'angle' ? `${value.toFixed(1)}°` : formatLength(value, unit));
      return {
        title: `Take ${named(finding.reading)} again.`,
        why: `It reads ${show(number('value'))}; the others make it ${show(number('shouldBe'))}. ${MISTAKES[String(finding.figures?.['slip'])] ?? ''}`.trim(),
        todo: 'It is left out until then.',
      };
    }
    case 'circle-suspect':
      return {
        title: `Look at the circle round ${name} in the picture.`,
        why: `The other readings put its centre ${formatLength(number('off'), unit)} away.`,
        todo: 'Check that the points lie on its rim, and its plane. It is left out until then.',
      };
    case 'diameter-suspect':
      return {
        title: `The tapes do not go with the diameter of ${name}.`,
        why: `They would have it ${formatLength(Math.abs(number('off')), unit)} ${number('off') > 0 ? 'larger' : 'smaller'}.`,
        todo: 'Measure it again, over the very rim that the tapes took in. Its reading is left out until then.',
      };
    case 'contradictory':
      return {
        title: 'These readings contradict each other.',
        why: `${[...(finding.readings ?? []).map(named), ...(finding.diameters ?? []).map((id) => `the diameter of ${pulleyLabel(drive, id)}`), ...(finding.circles ?? []).map((id) => `the circle round ${pulleyLabel(drive, id)}`)].join('; ')}. Nothing tells which is wrong.`,
        todo: 'Take one of them again, or one more between other pulleys.',
      };
    case 'disagree':
      return {
        title: `The readings disagree ${number('factor').toFixed(1)} times as much as their ± allows.`,
        why: 'No single one stands out.',
        todo: 'The ± shown is widened to match. Check that the diameters are right.',
      };
    case 'unchecked':
      return {
        title: 'Nothing checks these readings.',
        why: 'There are just enough to draw from.',
        todo: 'One more tape would show a slip.',
      };
    case 'two-ways':
      return {
        title: 'The whole drive fits turned another way too.',
        why: `One reading across or up is all that says which way it lies: turned by ${number('deg').toFixed(0)}° it fits as well, and ${name} would be at ${formatLength(number('x'), unit)}, ${formatLength(number('y'), unit)}. The sketch decided.`,
        todo: 'An angle, or one more reading across or up, settles it.',
      };
    case 'mirrored':
      return {
        title: `${name} fits as well on the other side.`,
        why: `At ${formatLength(number('x'), unit)}, ${formatLength(number('y'), unit)} the tapes agree too; the sketch decided.`,
        todo: 'If it sits there on the engine, put it across.',
      };
  }
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
