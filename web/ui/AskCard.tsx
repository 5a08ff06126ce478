import { Button } from 'antd';
import type { ReactNode } from 'react';

interface Props<T extends string> {
  /** What it is called for who does not see it. */
  label: string;
  ask: ReactNode;
  /** How it is done, with what could hurt at it; shown at once, or once it is asked for where `brief`. */
  how?: ReactNode;
  brief?: boolean;
  /** Before the outcomes: another way to the answer. */
  first?: ReactNode;
  outcomes?: readonly { outcome: T; label: string }[];
  said?: T | undefined;
  /** A tap on an outcome; on the one that is said, it takes it back. */
  onSay?: (outcome: T) => void;
  children?: ReactNode;
}

/** One question with its outcomes as buttons: a tap says how it turned out, the same again takes it back. */
export function AskCard<T extends string>(props: Props<T>) {
  const { label, ask, how, brief = false, first, outcomes = [], said, onSay, children } = props;
  return (
    <div className="test-card" role="group" aria-label={label}>
      {how === undefined && <div className="test-ask">{ask}</div>}
      {how !== undefined && brief && (
        <details className="test-how">
          <summary>
            <span className="test-ask">{ask}</span> <span className="test-how-word">How</span>
          </summary>
          {how}
        </details>
      )}
      {how !== undefined && !brief && (
        <>
          <div className="test-ask-large">{ask}</div>
          {how}
        </>
      )}
      {(first !== undefined || outcomes.length > 0) && (
        <div className="button-row">
          {first}
          {outcomes.map(({ outcome, label: text }) => (
            <Button
              key={outcome}
              aria-pressed={said === outcome}
              className={said === outcome ? 'is-said' : ''}
              onClick={() => onSay?.(outcome)}
            >
              {said === outcome && '✓ '}
              {text}
            </Button>
          ))}
        </div>
      )}
      {children}
    </div>
  );
}
