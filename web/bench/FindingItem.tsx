import type { ReactNode } from 'react';
import type { FindingWords, Severity } from '@emery/core/finding';

/** How bad a finding is, as a mark and a word: never a colour alone. */
export const SEVERITY_MARKS: Record<Severity, { mark: string; word: string }> = {
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
