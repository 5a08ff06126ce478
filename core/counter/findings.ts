import type { StringAnswer } from './string';
import type { CounterFinding } from './finding';
import type { TwoPulleys } from './two-pulleys';

/** A doubt of less than this is none worth a word, mm. */
const WORTH_A_WORD_MM = 2;

/** What would make a string's figure surer. */
export function stringFindings(answer: StringAnswer): CounterFinding[] {
  const { doubts, eitherWay } = answer;
  const otherLay = eitherWay === null ? 0 : Math.abs(eitherWay.groove.markedMm - eitherWay.rim.markedMm);
  return [
    ...(doubts.bends > Math.max(WORTH_A_WORD_MM, doubts.reading)
      ? [{ code: 'bends-doubtful' as const, severity: 'note' as const, figures: { mm: doubts.bends } }]
      : []),
    ...(eitherWay !== null && otherLay > WORTH_A_WORD_MM
      ? [
          {
            code: 'lay-matters' as const,
            severity: 'watch' as const,
            figures: { mm: otherLay, groove: eitherWay.groove.markedMm, rim: eitherWay.rim.markedMm },
          },
        ]
      : []),
  ];
}

/** Why two pulleys have no belt. */
export function pulleysFindings({ problem }: Pick<TwoPulleys, 'problem'>): CounterFinding[] {
  return problem === null ? [] : [{ code: problem, severity: 'fault' }];
}
