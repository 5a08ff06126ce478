import type { ReactNode } from 'react';
import { useBench } from '../state/bench';
import { stationOf } from '@emery/core/drive';
import type { FindingWords, Severity } from '@emery/core/finding';
import { findingWords, type PathFinding } from '@emery/core/path';

/** How bad a finding is, as a mark and a word: never a colour alone. */
const SEVERITY_MARKS: Record<Severity, { mark: string; word: string }> = {
  fault: { mark: '■', word: 'Stop' },
  watch: { mark: '▲', word: 'Watch' },
  note: { mark: '○', word: 'Open' },
};

/**
 * One finding that is not tapped: mark and word, verdict, why, what to do, and a button where there is something to do
 * at once.
 */
export function FindingItem({
  severity,
  words: { title, why, todo },
  children,
}: {
  severity: Severity;
  words: FindingWords;
  children?: ReactNode;
}) {
  const { mark, word } = SEVERITY_MARKS[severity];
  return (
    <li className={`finding is-${severity}`}>
      <span className="finding-word">
        <span aria-hidden>{mark}</span> {word}
      </span>
      <strong>{title}</strong> {why} <span className="finding-todo">{todo}</span>
      {children}
    </li>
  );
}

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
