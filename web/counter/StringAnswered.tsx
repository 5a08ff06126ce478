import type { ReactNode } from 'react';
import { useStockedLengths } from '../api/stock';
import { AskForBelt } from '../ask-for/AskForBelt';
import { FindingItem } from '../bench/FindingItem';
import { LengthFigure } from '../ui/LengthFigure';
import { percent } from '../ui/percent';
import { Headline } from './Headline';
import { useUnit } from './asked';
import {
  counterWords,
  type Held,
  lengthsToAsk,
  stringFindings,
  type StringAnswer,
  type StringAsk,
} from '@emery/core/counter';
import { formatLength, formatMm } from '@emery/core/quantity';
import { askFor, type Section } from '@emery/core/section';
import { RULE_WORDS, type ToldByTool } from '@emery/core/size';

interface Props {
  belt: { section: Section; ribs: number | null };
  /** What was asked with no drive known; null with one, and while something is missing. */
  asked: StringAsk | null;
  answer: StringAnswer | ToldByTool | null;
  held: Held;
  takesUpMm: number | null;
  children: ReactNode;
}

/** The belt to ask for, the length behind it, and what rules of thumb would have said. */
export function StringAnswered({ belt, asked, answer, held, takesUpMm, children }: Props) {
  const { section, ribs } = belt;
  const unit = useUnit();
  const stock = (useStockedLengths(section.name, ribs).data?.lengths ?? []).map(({ lengthMm }) => lengthMm);
  if (!answer)
    return (
      <div className="counter-answer">
        <p className="counter-empty">Write what the tape reads. The belt to ask for stands here as you type.</p>
        {children}
      </div>
    );
  const { lengths, best, second } = lengthsToAsk(section, answer, held, { takesUpMm, stock });
  const asks = (at: number | null) =>
    at === null ? null : askFor({ section: section.name, ribs, lengthMm: lengths[at]!.lengthMm });
  const [first, next] = [asks(best), asks(second)];
  const chance = best === null ? null : lengths[best]!.chance;
  return (
    <div id="answer" className="counter-answer" aria-live="polite">
      <Headline>
        {first ? (first.markings[0]?.text ?? first.plain) : 'no belt is so short'} · ± {formatMm(answer.plusMinus)}
      </Headline>
      <div className="label">Ask for</div>
      {first ? (
        <AskForBelt ask={first} section={section.name} ribs={ribs} large />
      ) : (
        <p className="answer-none">No belt is so short. Read the tape again.</p>
      )}
      <p data-testid="string-answer" data-mm={answer.markedMm} data-plus-minus={answer.plusMinus}>
        The belt is{' '}
        <strong>
          <LengthFigure mm={answer.markedMm} unit={unit} />
        </strong>{' '}
        ± {formatMm(answer.plusMinus)} {section.basis} length (
        {formatLength(answer.markedMm, unit === 'in' ? 'mm' : 'in')}).
        {chance !== null && ` That one goes on and can be tightened with ${percent(chance)} chance.`}
        {held === 'running' &&
          takesUpMm === null &&
          (asked
            ? ' Nobody said what the adjuster takes up: it is the nearest length.'
            : ' It is the nearest length; Size weighs it with the drawing and the adjuster.')}
      </p>
      <p className="quiet">
        ± is one standard deviation: the true length lies within it two thirds of the time, within twice it nineteen
        times in twenty.
      </p>
      {asked && 'doubts' in answer && (
        <ul className="findings" aria-label="Findings">
          {stringFindings(asked, answer).map((finding) => (
            <FindingItem key={finding.code} severity={finding.severity} words={counterWords(finding, unit)} />
          ))}
        </ul>
      )}
      {next && (
        <div>
          <div className="label">If they have none</div>
          <AskForBelt ask={next} section={section.name} ribs={ribs} />
        </div>
      )}
      {answer.rules.length > 0 && (
        <table className="ledger-table counter-rules" aria-label="Rules of thumb">
          <thead>
            <tr>
              <th>Rules of thumb would say</th>
              <th className="figure">Length</th>
              <th className="figure">Off by</th>
            </tr>
          </thead>
          <tbody>
            {answer.rules.map(({ rule, offMm }) => (
              <tr key={rule}>
                <td>{RULE_WORDS[rule]}</td>
                <td className="figure">
                  <LengthFigure mm={answer.markedMm + offMm} unit={unit} />
                </td>
                <td className="figure">{`${offMm < 0 ? '−' : '+'}${formatMm(Math.abs(offMm))}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="caution">
        <strong aria-hidden>▲</strong>
        <span>
          A string on the engine: key out, battery off, nothing hot. The vehicle’s manual goes before this figure.
        </span>
      </p>
      {children}
    </div>
  );
}
