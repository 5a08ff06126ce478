import type { ReactNode } from 'react';
import { AskForBelt } from '../ask-for/AskForBelt';
import { FindingItem } from '../bench/FindingItem';
import { LengthFigure } from '../ui/LengthFigure';
import { percent } from '../ui/percent';
import { Headline } from './Headline';
import { useUnit } from './asked';
import {
  type CounterFinding,
  counterWords,
  type LengthsToAsk,
  type LengthTold,
  type StringAnswer,
} from '@emery/core/counter';
import { capital, formatLength, formatMm } from '@emery/core/quantity';
import type { FindingWords, Severity } from '@emery/core/finding';
import { askFor, type Section } from '@emery/core/section';
import { type MeasuredLength, RULE_WORDS, type ToldByTool } from '@emery/core/size';

interface Props {
  belt: { section: Section; ribs: number | null };
  /** Null while something is missing. */
  answer: (LengthTold & Pick<ToldByTool, 'rules'> & { eitherWay: StringAnswer['eitherWay'] | EitherWay }) | null;
  /** What to ask for; null while it is worked out. */
  lengths: LengthsToAsk | null;
  busy?: boolean;
  findings?: readonly CounterFinding[];
  /** What Size has to say where it chooses none. */
  finding?: { severity: Severity; words: FindingWords } | null;
  note?: string | undefined;
  /** What the chance of a belt is the chance of. */
  does?: string;
  children: ReactNode;
}
type EitherWay = MeasuredLength['eitherWay'];

/** The belt to ask for, the length behind it, and what rules of thumb would have said. */
export function StringAnswered({
  belt,
  answer,
  lengths: asked,
  busy = false,
  findings = [],
  finding = null,
  note,
  does = 'goes on and can be tightened',
  children,
}: Props) {
  const { section, ribs } = belt;
  const unit = useUnit();
  if (!answer)
    return (
      <div className="counter-answer">
        <p className="counter-empty">Enter what the tape reads. The belt to ask for appears here as you type.</p>
        {children}
      </div>
    );
  const { lengths, best, second } = asked ?? { lengths: [], best: null, second: null };
  const asks = (at: number | null) =>
    at === null ? null : askFor({ section: section.name, ribs, lengthMm: lengths[at]!.lengthMm });
  const [first, next] = [asks(best), asks(second)];
  const chance = best === null ? null : lengths[best]!.chance;
  const either = answer.eitherWay !== null;
  const without = finding ? 'no adjuster given yet' : 'no such length is made';
  const none = busy || !asked ? 'calculating' : without;
  return (
    <div id="answer" className="counter-answer" aria-live="polite">
      <Headline>
        {first ? `${first.markings[0]?.text ?? first.plain} · ± ${formatMm(answer.plusMinus)}` : capital(none)}
      </Headline>
      <div className="label">Ask for</div>
      {first ? (
        <AskForBelt ask={first} section={section.name} ribs={ribs} large />
      ) : (
        <p className="answer-none">{capital(none)}.</p>
      )}
      <p data-testid="string-answer" data-mm={answer.markedMm} data-plus-minus={answer.plusMinus}>
        The belt is{' '}
        <strong>
          <LengthFigure mm={answer.markedMm} unit={unit} />
        </strong>{' '}
        ± {formatMm(answer.plusMinus)} {section.basis} length (
        {formatLength(answer.markedMm, unit === 'in' ? 'mm' : 'in')}).
        {chance !== null && ` ${first!.markings[0]?.text ?? 'That length'} ${does} with ${percent(chance)} chance.`}
        {note !== undefined && ` ${note}`}
      </p>
      <p className="quiet">
        ± is one standard deviation: the true length is within it about 2 times in 3, and within twice it 19 times in
        20.
      </p>
      {(findings.length > 0 || finding) && (
        <ul className="findings" aria-label="Findings">
          {findings.map((finding) => (
            <FindingItem key={finding.code} severity={finding.severity} words={counterWords(finding, unit)} />
          ))}
          {finding && <FindingItem {...finding} />}
        </ul>
      )}
      {next && (
        <div>
          <div className="label">{either ? 'Bring this one too, or check how it lay' : 'If not in stock'}</div>
          <AskForBelt ask={next} section={section.name} ribs={ribs} />
        </div>
      )}
      {answer.rules.length > 0 && (
        <table className="ledger-table counter-rules" aria-label="Rules of thumb">
          <thead>
            <tr>
              <th>By rules of thumb</th>
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
        <span>A string on the engine: key out, battery off, nothing hot. The vehicle’s manual takes precedence.</span>
      </p>
      {children}
    </div>
  );
}
