import { SEVERITY_MARKS } from './FindingItem';
import { useBench } from '../state/bench';
import { stationOf } from '@emery/core/drive';
import { findingWords, type PathFinding } from '@emery/core/path';

/**
 * Findings as the ledger tells them: a mark and a word, the verdict, why, what to do. A tap shows where on the drawing.
 */
export function FindingList({ findings }: { findings: readonly PathFinding[] }) {
  const { drive, unit, select, hover } = useBench('drive', 'unit', 'select', 'hover');
  const place = ({ pulley }: PathFinding) => {
    const station = pulley === undefined ? undefined : stationOf(drive, pulley);
    return station ? ({ kind: 'pulley', station: station.id, pulley: pulley! } as const) : null;
  };
  return (
    <ul className="findings" aria-label="Findings">
      {findings.map((finding, index) => {
        const { title, why, todo } = findingWords(drive, finding, unit);
        const { mark, word } = SEVERITY_MARKS[finding.severity];
        const at = place(finding);
        return (
          <li key={`${finding.code} ${finding.pulley} ${index}`}>
            <button
              type="button"
              className={`finding is-${finding.severity}`}
              disabled={at === null}
              onClick={() => select(at)}
              onPointerEnter={() => hover(at)}
              onPointerLeave={() => hover(null)}
            >
              <span className="finding-word">
                <span aria-hidden>{mark}</span> {word}
              </span>
              <strong>{title}</strong> {why} <span className="finding-todo">{todo}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
