import { CopyText } from './CopyText';
import { OnShelf } from './OnShelf';
import './ask-for.css';
import { formatInches, formatMm } from '@emery/core/quantity';
import { type AskFor, SCHEME_WORDS, sectionFor } from '@emery/core/section';

interface Props {
  ask: AskFor;
  section: string;
  ribs: number | null;
  large?: boolean;
  /** True where length and plain words stand beside it already. */
  briefly?: boolean;
  /** True where every scheme is told by what it writes, and the length stands above. */
  schemes?: boolean;
}

/** A belt as it is asked for: its marking in the schemes of a counter, each to copy, and what the shelf has of it. */
export function AskForBelt({
  ask: { lengthMm, markings, plain },
  section,
  ribs,
  large = false,
  briefly = false,
  schemes = false,
}: Props) {
  const [first, ...others] = markings;
  return (
    <div className={`ask-for${large ? ' is-large' : ''}${briefly ? ' is-brief' : ''}`}>
      {!first && <strong className="ask-for-plain">{plain}</strong>}
      {first && !schemes && <CopyText text={first.text} large={large} />}
      {!schemes && !briefly && (
        <span className="ask-for-length">
          {formatMm(lengthMm, 0)} · {formatInches(lengthMm)} {sectionFor(section)!.basis}
        </span>
      )}
      {others.length > 0 && !schemes && (
        <span className="ask-for-others">
          {!briefly && <span className="quiet">or</span>}
          {others.map(({ text }) => (
            <CopyText key={text} text={text} />
          ))}
        </span>
      )}
      {schemes && markings.length > 0 && (
        <ul className="ask-for-schemes" aria-label="Other markings for the same belt">
          {markings.map(({ text, scheme }) => (
            <li key={text}>
              <CopyText text={text} /> <span className="quiet">{SCHEME_WORDS[scheme]}</span>
            </li>
          ))}
        </ul>
      )}
      {first && !briefly && <span className="quiet">{plain}</span>}
      <OnShelf section={section} ribs={ribs} lengthMm={lengthMm} />
    </div>
  );
}
